import * as v from 'valibot';
import { isExactText } from '../../numbers/exact';

export const figure = v.pipe(v.string(), v.check(isExactText, 'not a figure'));
const count = (from: number) => v.pipe(v.number(), v.integer(), v.minValue(from), v.maxValue(10));

export const askedSchema = v.strictObject({
  before: v.string(),
  unit: v.string(),
  unitSynonyms: v.array(v.string()),
  minusPossible: v.boolean(),
  scientific: v.boolean(),
  fractions: v.boolean(),
  demand: v.nullable(
    v.variant('by', [
      v.strictObject({ by: v.literal('places'), places: count(0) }),
      v.strictObject({ by: v.literal('figures'), figures: count(1) }),
    ]),
  ),
});
export type NumberAsked = v.InferOutput<typeof askedSchema>;

const accepted = v.strictObject({
  figure,
  /** Share of the marks. */
  percent: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)),
  /** What it means, for the result sheet. */
  note: v.string(),
});

export const keySchema = v.strictObject({
  /** How near is near enough: a distance, or a share of the key (0.01 is one per cent). Null: as the demand says. */
  tolerance: v.nullable(v.strictObject({ by: v.picklist(['distance', 'share']), within: figure })),
  accepted: v.pipe(v.array(accepted), v.minLength(1), v.maxLength(50)),
  /** Accepted later by a correction of the key: the very value, in whatever form it was entered. */
  also: v.array(figure),
});
export type NumberKey = v.InferOutput<typeof keySchema>;
