import { describe, expect, it } from 'vitest';
import { tokensOf } from './fingerprints';
import { sharedPassages, similarResponses, type ResponseText } from './similar';

const words = (script: number, text: string): ResponseText => ({ script, form: 'words', text });
const python = (script: number, text: string): ResponseText => ({ script, form: 'python', text });

const COPIED =
  'The reserve cooler said that it was ready, but it never took over, and so both lots in the bay were warm for nine hours.';
const OTHERS = [
  'At twenty to ten the supply failed and nobody heard the alarm because the desk stood empty that night.',
  'K-4 was counted twice by different people who did not follow one rule, which explains their figures.',
  'I would sow both lots again at once and have somebody test the cooler every month from now on.',
];

describe('similar responses', () => {
  it('finds what was copied, whatever its capitals and spaces, and tells how usual that is', () => {
    const scripts = OTHERS.map((text, i) => words(i, text));
    const copy = COPIED.toUpperCase().replaceAll(' ', '\n');
    const found = similarResponses([...scripts, words(8, COPIED), words(9, `${copy} Truly.`)], []);
    expect(found).toMatchObject({ compared: 5, base: { pairs: 10 } });
    expect(found.pairs.map((pair) => [pair.scripts, pair.atLeast])).toEqual([[[8, 9], 1]]);
    expect(found.pairs[0]!.overlap).toBeGreaterThan(0.9);
  });

  it('takes out what everybody was given', () => {
    const both = [words(1, `${COPIED} ${OTHERS[0]}`), words(2, `${COPIED} ${OTHERS[1]}`)];
    expect(similarResponses(both, []).pairs).toHaveLength(1);
    expect(similarResponses(both, [COPIED]).pairs).toEqual([]);
  });

  it('sees through other names, comments and strings of a program, not through another program', () => {
    const program = (name: string, comment: string) =>
      `def strongest(${name}):  # ${comment}\n    best, share = "", -1\n    for one in ${name}:\n        if one["sown"] > 0 and one["up"] / one["sown"] > share:\n            best, share = one["name"], one["up"] / one["sown"]\n    return best\n`;
    const other =
      'def strongest(lots):\n    return max(lots, key=lambda lot: lot["up"] / lot["sown"])["name"]\n';
    const found = similarResponses(
      [python(1, program('lots', 'mine')), python(2, program('trays', 'my own')), python(3, other)],
      [],
    );
    expect(found.pairs.map((pair) => pair.scripts)).toEqual([[1, 2]]);
    const tokens = tokensOf('x = 7 // 2  # half', 'python').map((token) => token.text);
    expect(tokens).toEqual(['name', '=', 'number', '/', '/', 'number']);
  });

  it('shows the passages that both have', () => {
    const [a, b] = [words(1, `${OTHERS[0]} ${COPIED}`), words(2, `${COPIED} ${OTHERS[1]}`)];
    const [first, second] = sharedPassages([a, b], []);
    const read = ({ text }: ResponseText, passages: typeof first) =>
      passages.map(({ start, end }) => text.slice(start, end)).join(' … ');
    expect(read(a, first)).toBe(read(b, second));
    expect(COPIED).toContain(read(a, first));
    expect(read(a, first).length).toBeGreaterThan(COPIED.length / 2);
  });

  it('of nothing, of one, and of texts too short to compare is nothing', () => {
    expect(similarResponses([], []).pairs).toEqual([]);
    expect(similarResponses([words(1, COPIED)], []).base).toEqual({ pairs: 0, mean: 0, high: 0 });
    expect(similarResponses([words(1, 'It got warm.'), words(2, 'It got warm.')], []).pairs).toEqual([]);
  });
});
