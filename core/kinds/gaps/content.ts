import * as v from 'valibot';
import { weightSchema } from '../shared/credits';
import { gapKey } from './response';

const word = v.pipe(v.string(), v.minLength(1), v.maxLength(200));

const gap = v.variant('by', [
  v.strictObject({ key: gapKey, by: v.literal('typing'), oneWord: v.boolean(), weight: weightSchema }),
  v.strictObject({
    key: gapKey,
    by: v.literal('list'),
    options: v.pipe(v.array(word), v.minLength(2), v.maxLength(30)),
    weight: weightSchema,
  }),
]);

export const askedSchema = v.strictObject({
  /** With `[[key]]` where each gap stands. */
  text: v.string(),
  gaps: v.pipe(v.array(gap), v.minLength(1), v.maxLength(30)),
});
export type GapsAsked = v.InferOutput<typeof askedSchema>;

const variant = v.strictObject({
  text: word,
  /** Share of the gap's marks. */
  percent: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)),
});

const gapRule = v.variant('by', [
  v.strictObject({
    by: v.literal('typing'),
    accepted: v.pipe(v.array(variant), v.minLength(1), v.maxLength(100)),
    ignoreCase: v.boolean(),
    ignoreAccents: v.boolean(),
    slips: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(3)),
  }),
  v.strictObject({ by: v.literal('list'), right: word }),
]);
export type GapRule = v.InferOutput<typeof gapRule>;

/** By the gap's key. */
export const keySchema = v.strictObject({ gaps: v.record(gapKey, gapRule) });
export type GapsKey = v.InferOutput<typeof keySchema>;
