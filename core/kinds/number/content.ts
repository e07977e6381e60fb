import * as v from 'valibot';
import { exactOf } from '../../numbers/exact';

export const figure = v.pipe(
  v.string(),
  v.check((text) => {
    try {
      exactOf(text);
      return true;
    } catch {
      return false;
    }
  }, 'not a figure'),
);

/** What counts as right: a distance, a share of the key, or a demanded number of places or significant figures. */
export const toleranceSchema = v.variant('by', [
  v.strictObject({ by: v.literal('distance'), within: figure }),
  v.strictObject({ by: v.literal('share'), within: figure }),
  v.strictObject({
    by: v.literal('places'),
    places: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(10)),
  }),
  v.strictObject({
    by: v.literal('figures'),
    figures: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(10)),
  }),
]);

export const contentSchema = v.strictObject({
  before: v.optional(v.string(), ''),
  unit: v.optional(v.string(), ''),
  /** What may be typed for the unit as well, besides what is printed. */
  unitSynonyms: v.optional(v.array(v.string()), []),
  minusPossible: v.boolean(),
  /** Whether figures may be entered like 1.2×10³, or as fractions and mixed numbers. */
  scientific: v.optional(v.boolean(), false),
  fractions: v.optional(v.boolean(), false),
  tolerance: toleranceSchema,
  /** Accepted figures with their share of the marks in per cent, and what it means for the result sheet. */
  accepted: v.pipe(
    v.array(
      v.strictObject({
        figure,
        percent: v.pipe(v.number(), v.minValue(1), v.maxValue(100)),
        note: v.string(),
      }),
    ),
    v.minLength(1),
  ),
});
export type NumberContent = v.InferOutput<typeof contentSchema>;
export type Tolerance = v.InferOutput<typeof toleranceSchema>;

export interface NumberShown {
  readonly before: string;
  readonly unit: string;
  readonly minusPossible: boolean;
  readonly scientific: boolean;
  readonly fractions: boolean;
  readonly unitSynonyms: readonly string[];
  readonly locale: string;
  /** Only a demand on the form of the answer is shown, never how near is near enough. */
  readonly asked: { readonly places: number } | { readonly figures: number } | null;
}

export const responseSchema = v.strictObject({ typed: v.pipe(v.string(), v.maxLength(200)) });
export type NumberResponse = v.InferOutput<typeof responseSchema>;
