import { describe, expect, it } from 'vitest';
import { exactOf, exactText } from '../numbers/exact';
import { minus, over, plus, round, sibling, sum, times, when } from '../testing/formulas';
import { circleIn, evaluate, isTrue } from './evaluate';
import { parsed } from '../validation/shapes';
import { formulaSchema } from './formulaSchema';
import { namesIn, siblingsIn, type Formula } from './formula';

const known: Readonly<Record<string, string>> = { a: '0.1', b: '0.2', c: '-3' };
const figures = {
  named: (name: string) => (known[name] === undefined ? null : exactOf(known[name])),
  sibling: (part: string) => (part === 'B' ? exactOf('7') : null),
};
const least = (...of: Formula[]): Formula => ({ is: 'least', of });
const named = (name: string): Formula => ({ is: 'named', name });

const CASES: [Formula, string | null][] = [
  // 0.1 + 0.2 is 0.3 here, not 0.30000000000000004
  [plus('a', 'b'), '0.3'],
  [minus('a', 'c'), '3.1'],
  [times('c', 'c'), '9'],
  [over(1, 3), '1/3'],
  [over(1, minus('a', 'a')), null],
  [sum('a', 'b', 'c'), '-2.7'],
  [round(over(2, 3), 2), '0.67'],
  [round(over('c', 2), 0), '-2'],
  [least(named('a'), named('c')), '-3'],
  [{ is: 'most', of: [named('a'), named('c')] }, '0.1'],
  [{ is: 'absolute', of: named('c') }, '3'],
  [{ is: 'negative', of: named('c') }, '3'],
  [sibling('B', 'x'), '7'],
  [plus('a', sibling('C', 'x')), null],
  [sum('a', 'missing'), null],
  [{ is: 'if', when: when('a', 'below', 'b'), then: named('c'), otherwise: named('a') }, '-3'],
  [{ is: 'if', when: when('missing', 'below', 'b'), then: named('c'), otherwise: named('a') }, null],
];

describe('a formula', () => {
  it.each(CASES)('%j is %s', (formula, value) => {
    expect(parsed(formulaSchema, JSON.parse(JSON.stringify(formula)))).toEqual(formula);
    const found = evaluate(formula, figures);
    expect(found && exactText(found)).toBe(value);
  });

  it.each([
    ['same', false],
    ['other', true],
    ['below', true],
    ['above', false],
    ['upTo', true],
    ['from', false],
  ] as const)('0.1 %s 0.2 is %s', (is, expected) =>
    expect(isTrue(when('a', is, 'b'), figures)).toBe(expected),
  );

  it('knows what it builds on, and circles', () => {
    const formula = plus(round('a', 1), times('b', sibling('B', 'total_x')));
    expect([namesIn(formula), siblingsIn(formula)]).toEqual([['a', 'b'], [{ part: 'B', name: 'total_x' }]]);
    const built = (of: Record<string, string[]>) => circleIn(new Map(Object.entries(of)));
    expect(built({ a: ['b'], b: ['c'], c: ['b'] })).toEqual(['b', 'c']);
    expect(built({ a: ['a'] })).toEqual(['a']);
    expect(built({ a: ['b', 'c'], b: ['c'], c: [] })).toBeNull();
  });
});
