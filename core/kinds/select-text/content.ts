import * as v from 'valibot';
import { documentSchema } from '../../documents/documentSchema';
import { weightSchema } from '../shared/credits';
import { entryKey, entrySchema } from '../shared/entries';

const passage = v.strictObject({
  key: entryKey,
  title: v.pipe(v.string(), v.minLength(1), v.maxLength(200)),
  /** With the phrases marked in it; null where they stand in the source. */
  body: v.nullable(documentSchema),
  limit: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
  weight: weightSchema,
  /** The phrases that can be chosen, in the order of the text. */
  phrases: v.pipe(v.array(entrySchema), v.minLength(2), v.maxLength(100)),
});

export const askedSchema = v.strictObject({
  passages: v.pipe(v.array(passage), v.minLength(1), v.maxLength(6)),
});
export type SelectTextAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({ right: v.pipe(v.array(entryKey), v.minLength(1)) });
export type SelectTextKey = v.InferOutput<typeof keySchema>;
