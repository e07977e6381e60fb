import * as v from 'valibot';
import { entryKey, entrySchema, weightedEntrySchema } from '../shared/entries';
import { SEVERAL_RULES } from '../shared/severalRight';

export const askedSchema = v.strictObject({
  statements: v.pipe(v.array(weightedEntrySchema), v.minLength(1), v.maxLength(20)),
  categories: v.pipe(v.array(entrySchema), v.minLength(2), v.maxLength(8)),
  mode: v.picklist(['one', 'several']),
  /** For `several`: how a statement with several categories is scored. */
  rule: v.picklist(SEVERAL_RULES),
  mayStayEmpty: v.boolean(),
  /** Deals the statements in another order in each form. Categories keep theirs. */
  shuffle: v.boolean(),
});
export type GridChoiceAsked = v.InferOutput<typeof askedSchema>;

/** The right categories by statement; none where nothing applies. */
export const keySchema = v.strictObject({ rows: v.record(entryKey, v.array(entryKey)) });
export type GridChoiceKey = v.InferOutput<typeof keySchema>;

/** The statements as they are dealt, by key. */
export const arrangementSchema = v.array(entryKey);
export type GridChoiceArrangement = v.InferOutput<typeof arrangementSchema>;
