import * as v from 'valibot';
import { documentSchema } from '../../documents/documentSchema';
import { entryKey, weightedEntrySchema } from '../shared/entries';
import { shapeSchema } from './shapes';

const area = v.strictObject({ ...weightedEntrySchema.entries, shape: shapeSchema });

export const askedSchema = v.strictObject({
  /** A text that is one picture. */
  picture: documentSchema,
  mode: v.picklist(['choose', 'mark']),
  /** Every area that is named, the right ones among others. */
  areas: v.pipe(v.array(area), v.minLength(2), v.maxLength(30)),
  limit: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(30)),
});
export type HotAreaAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({ right: v.pipe(v.array(entryKey), v.minLength(1)) });
export type HotAreaKey = v.InferOutput<typeof keySchema>;
