import { describe, expect, it } from 'vitest';
import { conditionSchema, formulaSchema } from '../../core/formulas/formulaSchema';
import { isOf } from '../../core/validation/shapes';
import { minus, over, plus, round, sibling, sum, times, when } from '../../core/testing/formulas';
import { parseFormula } from './parseFormula';

describe('a formula of an author', () => {
  it.each([
    ['held_march - out_march', minus('held_march', 'out_march')],
    ['a + b * 2', plus('a', times('b', 2))],
    ['(a + b) / 0.5', over(plus('a', 'b'), 0.5)],
    ['-a', { is: 'negative', of: { is: 'named', name: 'a' } }],
    ['sum(a, b, 3)', sum('a', 'b', 3)],
    ['round(a / 3, 2)', round(over('a', 3), 2)],
    [
      'abs(min(a, b))',
      {
        is: 'absolute',
        of: {
          is: 'least',
          of:
            sum('a', 'b').is === 'sum'
              ? [
                  { is: 'named', name: 'a' },
                  { is: 'named', name: 'b' },
                ]
              : [],
        },
      },
    ],
    ['A.total_held * 2', times(sibling('A', 'total_held'), 2)],
    ['10 %', over(10, 100)],
    [
      'a > 0 ? a : 0',
      {
        is: 'if',
        when: when('a', 'above', 0),
        then: { is: 'named', name: 'a' },
        otherwise: { is: 'figure', text: '0' },
      },
    ],
    ['a <= b', when('a', 'upTo', 'b')],
    ['a == 1', when('a', 'same', 1)],
  ])('reads %s', (text, tree) => {
    const { value, issues } = parseFormula(text);
    expect(issues).toEqual([]);
    expect(value).toEqual(tree);
    expect([formulaSchema, conditionSchema].some((schema) => isOf(schema, value))).toBe(true);
  });

  it.each([
    ['a +', 'formula.unreadable'],
    ['2 a', 'formula.operator'],
    ['a ^ 2', 'formula.operator'],
    ['sqrt(a)', 'formula.function'],
    ['import("x")', 'formula.function'],
    ['a = 3', 'formula.function'],
    ['[1, 2]', 'formula.function'],
    ['a; b', 'formula.function'],
    ['"text"', 'formula.figure'],
    ['1e-7', 'formula.figure'],
    ['0.1234567890123456', 'formula.figure'],
    ['round(a, b)', 'formula.places'],
    ['a ? 1 : 2', 'formula.noCondition'],
    ['a.b.c', 'formula.function'],
    ['constructor.constructor("x")', 'formula.function'],
    ['a'.repeat(501), 'formula.tooLong'],
  ])('refuses %s', (text, code) => {
    expect(parseFormula(text)).toMatchObject({
      value: null,
      issues: [{ severity: 'severe', message: { code } }],
    });
  });
});
