import * as v from 'valibot';
import { itemKey } from './response';

const item = v.strictObject({ key: itemKey, text: v.string() });

export const askedSchema = v.strictObject({
  /** As they stand at first, unless they are shuffled; never in the right order. */
  items: v.pipe(v.array(item), v.minLength(3), v.maxLength(10)),
  rule: v.picklist(['exact', 'pairs', 'rank']),
  shuffle: v.boolean(),
});
export type OrderAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({ right: v.array(itemKey) });
export type OrderKey = v.InferOutput<typeof keySchema>;

/** The items as they are dealt, by key. */
export const arrangementSchema = v.array(itemKey);
export type OrderArrangement = v.InferOutput<typeof arrangementSchema>;
