import { describe, expect, it } from 'vitest';
import { editDistance, matchesText, normaliseText } from './compareText';
import { parsePassage, passageAsText } from './passage';

const strict = { ignoreCase: false, ignoreAccents: false, slips: 0 };

describe('comparing text', () => {
  it.each([
    ['ca', 'abc', 3], // the restricted distance; the unrestricted one is 2
    ['kitten', 'sitting', 3],
    ['seed', 'sede', 1], // neighbours swapped
    ['', 'abc', 3],
  ])('%j to %j takes %i edits', (a, b, distance) => expect(editDistance(a, b)).toBe(distance));

  it('folds width, spaces, case and accents only as the rule says', () => {
    expect(normaliseText('  Ｋ-2   lot ', strict)).toBe('K-2 lot');
    expect(matchesText('TENTH', ['tenth'], strict)).toBe(false);
    expect(matchesText('TÉNTH', ['tenth'], { ...strict, ignoreCase: true, ignoreAccents: true })).toBe(true);
    expect(matchesText('thenth', ['tenth'], { ...strict, slips: 1 })).toBe(true);
    expect(matchesText('  ', ['tenth'], { ...strict, slips: 3 })).toBe(false);
  });
});

describe('passages', () => {
  it('reads paragraphs, lists, tables and the three styles', () => {
    const blocks = parsePassage(
      'One **two** *three* `four`\n\n- a\n- b\n\n| Lot | Up |\n|---|---|\n| K-1 | 3 |',
    );
    expect(blocks).toEqual([
      {
        type: 'paragraph',
        inlines: [
          { text: 'One ' },
          { text: 'two', style: 'strong' },
          { text: ' ' },
          { text: 'three', style: 'stressed' },
          { text: ' ' },
          { text: 'four', style: 'code' },
        ],
      },
      { type: 'list', ordered: false, items: [[{ text: 'a' }], [{ text: 'b' }]] },
      {
        type: 'table',
        head: [[{ text: 'Lot' }], [{ text: 'Up' }]],
        rows: [[[{ text: 'K-1' }], [{ text: '3' }]]],
      },
    ]);
  });

  it('never turns HTML into mark-up', () => {
    expect(parsePassage('<img src=x onerror=alert(1)>')).toEqual([
      { type: 'paragraph', inlines: [{ text: '<img src=x onerror=alert(1)>' }] },
    ]);
  });

  it('gives plain text for printouts', () =>
    expect(passageAsText('**both**\n\n1. a\n2. b')).toBe('both\n\n– a\n– b'));
});
