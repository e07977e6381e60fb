/**
 * A formula over named figures as a tree. Authors write it as text (`held_march - out_march`, `A.total * 2`); it is
 * parsed where a paper is published, and read here in exact fractions.
 */
export type Formula =
  | { readonly is: 'figure'; readonly text: string }
  | { readonly is: 'named'; readonly name: string }
  /** A figure of a sibling part, by its letter. */
  | { readonly is: 'sibling'; readonly part: string; readonly name: string }
  | { readonly is: 'negative' | 'absolute'; readonly of: Formula }
  | { readonly is: Operation; readonly left: Formula; readonly right: Formula }
  | { readonly is: 'sum' | 'least' | 'most'; readonly of: readonly Formula[] }
  /** Half away from zero. */
  | { readonly is: 'round'; readonly of: Formula; readonly places: number }
  | { readonly is: 'if'; readonly when: Condition; readonly then: Formula; readonly otherwise: Formula };

export type Operation = 'plus' | 'minus' | 'times' | 'over';
export type Comparison = 'same' | 'other' | 'below' | 'above' | 'upTo' | 'from';

export interface Condition {
  readonly is: Comparison;
  readonly left: Formula;
  readonly right: Formula;
}

/** The formulas right below one. */
function inside(formula: Formula): readonly Formula[] {
  switch (formula.is) {
    case 'figure':
    case 'named':
    case 'sibling':
      return [];
    case 'negative':
    case 'absolute':
    case 'round':
      return [formula.of];
    case 'sum':
    case 'least':
    case 'most':
      return formula.of;
    case 'if':
      return [formula.when.left, formula.when.right, formula.then, formula.otherwise];
    default:
      return [formula.left, formula.right];
  }
}

const everyFormula = (formula: Formula): Formula[] => [formula, ...inside(formula).flatMap(everyFormula)];

/** The names that a formula builds on. */
export const namesIn = (formula: Formula): string[] =>
  everyFormula(formula).flatMap((one) => (one.is === 'named' ? [one.name] : []));

/** The figures of sibling parts that it builds on. */
export const siblingsIn = (formula: Formula): { part: string; name: string }[] =>
  everyFormula(formula).flatMap((one) => (one.is === 'sibling' ? [{ part: one.part, name: one.name }] : []));

/** A condition as formulas, for the names in it. */
export const sidesOf = ({ left, right }: Condition): readonly Formula[] => [left, right];
