import * as v from 'valibot';

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

export const nameSchema = v.pipe(v.string(), v.regex(/^[a-z][a-z0-9]{0,19}(_[a-z][a-z0-9]{0,19})?$/));

const operation = v.picklist(['plus', 'minus', 'times', 'over']);
const side = v.lazy(() => formulaSchema);

export const conditionSchema: v.GenericSchema<unknown, Condition> = v.strictObject({
  is: v.picklist(['same', 'other', 'below', 'above', 'upTo', 'from']),
  left: side,
  right: side,
});

export const formulaSchema: v.GenericSchema<unknown, Formula> = v.variant('is', [
  v.strictObject({ is: v.literal('figure'), text: v.pipe(v.string(), v.regex(/^\d{1,40}(\.\d{1,40})?$/)) }),
  v.strictObject({ is: v.literal('named'), name: nameSchema }),
  v.strictObject({
    is: v.literal('sibling'),
    part: v.pipe(v.string(), v.regex(/^[A-F]$/)),
    name: nameSchema,
  }),
  v.strictObject({ is: v.picklist(['negative', 'absolute']), of: side }),
  v.strictObject({ is: operation, left: side, right: side }),
  v.strictObject({
    is: v.picklist(['sum', 'least', 'most']),
    of: v.pipe(v.array(side), v.minLength(1), v.maxLength(60)),
  }),
  v.strictObject({
    is: v.literal('round'),
    of: side,
    places: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(10)),
  }),
  v.strictObject({ is: v.literal('if'), when: conditionSchema, then: side, otherwise: side }),
]);

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
