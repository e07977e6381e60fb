import * as v from 'valibot';
import { entryKey, entrySchema, weightedEntrySchema } from '../shared/entries';

const bin = v.strictObject({
  ...entrySchema.entries,
  limit: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
});

export const askedSchema = v.strictObject({
  chips: v.pipe(v.array(weightedEntrySchema), v.minLength(2), v.maxLength(30)),
  /** The chips are phrases of the source, named by their keys; they are picked up there too. */
  fromSource: v.boolean(),
  bins: v.pipe(v.array(bin), v.minLength(1), v.maxLength(8)),
  often: v.boolean(),
  leftOver: v.boolean(),
  shuffle: v.boolean(),
});
export type SortAsked = v.InferOutput<typeof askedSchema>;

/** The right chips by bin; a chip in none of them is rightly left over. */
export const keySchema = v.strictObject({ bins: v.record(entryKey, v.array(entryKey)) });
export type SortKey = v.InferOutput<typeof keySchema>;

/** The chips as they are dealt, by key. */
export const arrangementSchema = v.array(entryKey);
export type SortArrangement = v.InferOutput<typeof arrangementSchema>;
