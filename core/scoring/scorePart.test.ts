import { describe, expect, it } from 'vitest';
import { keyKinds, type KeyKinds } from '../kinds/keyKinds';
import { samples as numbers } from '../kinds/number/samples';
import { column, figureKey } from '../kinds/table-entry/samples';
import { placeFor } from '../testing/scoreAlone';
import { plus, sibling, times } from '../testing/formulas';
import { scorePart, valuesFor, type Answered } from './scorePart';

const kinds = keyKinds as unknown as KeyKinds;
const plain = numbers[1]!.content;

/** A is 4 within 0.5, B ten times A, C five more than B: a chain of three parts. Half for what follows. */
const chain = (a: string, b: string, c: string): Record<string, Answered> => {
  const place = placeFor(100);
  return {
    A: {
      kind: 'number',
      content: {
        asked: plain.asked,
        key: {
          tolerance: { by: 'distance', within: '0.5' },
          accepted: [{ figure: '4', percent: 100, note: '' }],
          also: [],
        },
      },
      response: { typed: a },
      place,
    },
    B: {
      kind: 'table-entry',
      content: column([['b', '?']], [figureKey('b_x', '40', times(sibling('A', 'figure'), 10))]),
      response: { cells: { b_x: b } },
      place,
    },
    C: {
      kind: 'table-entry',
      content: column([['c', '?']], [figureKey('c_x', '45', plus(sibling('B', 'b_x'), 5))]),
      response: { cells: { c_x: c } },
      place,
    },
  };
};
const marksOf = (parts: Record<string, Answered>) =>
  Object.entries(parts).map(([letter, own]) => {
    const siblings = Object.fromEntries(Object.entries(parts).filter(([one]) => one !== letter));
    const [found] = scorePart(kinds, {
      ...own,
      target: letter,
      arrangement: null,
      evidence: {},
      siblings,
    });
    return 'undecided' in found! ? 'people' : found!.hundredths;
  });

describe('a chain of parts', () => {
  it.each([
    ['all right', ['4', '40', '45'], [100, 100, 100]],
    // 4.2 is accepted; ten times that is 42, which is right as well, and so is 42 + 5.
    ['from an accepted figure', ['4.2', '42', '47'], [100, 100, 100]],
    // 6 is not accepted: what follows from it earns half, all the way.
    ['from a wrong figure', ['6', '60', '65'], [0, 50, 50]],
    ['a slip in the middle', ['4.2', '43', '48'], [100, 0, 50]],
    ['a figure that cannot be read', ['four', '40', '45'], ['people', 100, 100]],
  ])('%s', (_, [a, b, c], expected) => expect(marksOf(chain(a!, b!, c!))).toEqual(expected));

  it('tells the same as the scores do of every figure that is built on', () => {
    const parts = chain('4.2', '42', '47');
    expect(valuesFor(kinds, parts.C!, parts)).toMatchObject({ B: { b_x: { accepted: true } } });
  });

  it('that turns in a circle, which no paper does, comes to an end', () => {
    const parts = chain('4', '40', '45');
    const circle = column([['b', '?']], [figureKey('b_x', '40', plus(sibling('C', 'c_x'), 1))]);
    expect(marksOf({ ...parts, B: { ...parts.B!, content: circle } })).toEqual([100, 100, 100]);
  });
});
