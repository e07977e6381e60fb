import * as v from 'valibot';
import { entryKey, entrySchema, weightedEntrySchema } from '../shared/entries';

export const askedSchema = v.strictObject({
  left: v.pipe(v.array(weightedEntrySchema), v.minLength(1), v.maxLength(12)),
  right: v.pipe(v.array(entrySchema), v.minLength(2), v.maxLength(12)),
  once: v.boolean(),
  leftOver: v.boolean(),
  /** Deals the right side in another order in each form. */
  shuffle: v.boolean(),
});
export type MatchAsked = v.InferOutput<typeof askedSchema>;

/** The right partner of each entry on the left; none where it has none. */
export const keySchema = v.strictObject({ pairs: v.record(entryKey, entryKey) });
export type MatchKey = v.InferOutput<typeof keySchema>;

/** The right side as it is dealt, by key. */
export const arrangementSchema = v.array(entryKey);
export type MatchArrangement = v.InferOutput<typeof arrangementSchema>;
