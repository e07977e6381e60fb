import { describe, expect, it } from 'vitest';
import { editsWithin } from './spelling';

/** Everything that one edit makes of a word over two letters. */
function oneEdit(word: string): string[] {
  const made: string[] = [];
  for (let i = 0; i <= word.length; i++) {
    const [before, after] = [word.slice(0, i), word.slice(i)];
    for (const c of 'ab') made.push(before + c + after);
    if (after === '') continue;
    made.push(before + after.slice(1));
    for (const c of 'ab') made.push(before + c + after.slice(1));
    if (after.length > 1) made.push(before + after[1]! + after[0]! + after.slice(2));
  }
  return made;
}

describe('mistakes of spelling', () => {
  it('are one edit each: left out, put in, replaced, two neighbours exchanged', () => {
    for (const given of ['germintion', 'gerrmination', 'germinetion', 'germniation'])
      expect([editsWithin('germination', given, 0), editsWithin('germination', given, 1)]).toEqual([
        false,
        true,
      ]);
    // An exchange and a letter left out are two.
    expect([
      editsWithin('germination', 'germniatio', 1),
      editsWithin('germination', 'germniatio', 2),
    ]).toEqual([false, true]);
    // Between two exchanged letters more may be put in: “ca” and “abc” are two edits apart (Lowrance and Wagner 1975).
    expect([editsWithin('xxca', 'xxabc', 1), editsWithin('xxca', 'xxabc', 2)]).toEqual([false, true]);
  });

  it('are counted as going from word to word by single edits counts them', () => {
    for (const wanted of ['abab', 'aabb', 'abba', 'aaaab', 'babba']) {
      const one = new Set(oneEdit(wanted));
      const two = new Set([...one].flatMap(oneEdit));
      for (let length = 2; length <= 7; length++)
        for (let bits = 0; bits < 2 ** length; bits++) {
          const given = Array.from({ length }, (_, i) => 'ab'[(bits >> i) & 1]).join('');
          const most = given === wanted ? 0 : one.has(given) ? 1 : two.has(given) ? 2 : 3;
          const found = [0, 1, 2].map((edits) => editsWithin(wanted, given, edits));
          expect([wanted, given, ...found]).toEqual([wanted, given, most <= 0, most <= 1, most <= 2]);
        }
    }
  });

  it('may be a space left out beside a short word, but no letter of another script', () => {
    expect(editsWithin('sea kale', 'seakale', 1)).toBe(true);
    expect(editsWithin('not dormant', 'notdormant', 1)).toBe(true);
    expect(editsWithin('sea kale', 'sea-kale', 1)).toBe(false);
    expect(editsWithin('sea kale', 'se akale', 1)).toBe(false);
    // Cyrillic а, Greek ο and Cyrillic с, in place of the letter and beside it.
    for (const given of ['kаle', 'kalеe', 'cоllar', 'cοllar', 'соllar'])
      expect(editsWithin(given.includes('l') && given.length > 5 ? 'collar' : 'kale', given, 3)).toBe(false);
    expect(editsWithin('семена', 'семна', 1)).toBe(true);
    expect(editsWithin('α-amylase', 'α-amylse', 1)).toBe(true);
  });

  it('are none in short words of the key, beside them, or in digits', () => {
    expect(editsWithin('not dormant', 'now dormant', 2)).toBe(false);
    expect(editsWithin('not dormant', 'not dormnt', 2)).toBe(true);
    expect(editsWithin('lot 14', 'lot 15', 3)).toBe(false);
    expect(editsWithin('tray 14', 'tray 1', 3)).toBe(false);
    expect(editsWithin('tray', 'tray7', 3)).toBe(false);
    expect(editsWithin('bays', 'bay', 1)).toBe(true);
  });

  it('of characters beyond two bytes count as of one', () => {
    expect(editsWithin('𝛼𝛽𝛾𝛿𝜀', '𝛼𝛽𝛿𝛾𝜀', 1)).toBe(true);
    expect(editsWithin('', '', 0)).toBe(true);
    expect(editsWithin('seed', '', 3)).toBe(false);
  });
});
