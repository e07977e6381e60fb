import type { Condition, Formula, Operation } from '../formulas/formula';

/* Formulas as trees, written shorter: `over(named('a'), 4)`. */

type Part = Formula | string | number;

const asFormula = (part: Part): Formula =>
  typeof part === 'object'
    ? part
    : typeof part === 'number'
      ? { is: 'figure', text: String(part) }
      : { is: 'named', name: part };

const operation =
  (is: Operation) =>
  (left: Part, right: Part): Formula => ({
    is,
    left: asFormula(left),
    right: asFormula(right),
  });

export const plus = operation('plus');
export const minus = operation('minus');
export const times = operation('times');
export const over = operation('over');
export const sum = (...of: Part[]): Formula => ({ is: 'sum', of: of.map(asFormula) });
export const round = (of: Part, places: number): Formula => ({ is: 'round', of: asFormula(of), places });
export const sibling = (part: string, name: string): Formula => ({ is: 'sibling', part, name });
export const when = (left: Part, is: Condition['is'], right: Part): Condition => ({
  is,
  left: asFormula(left),
  right: asFormula(right),
});
