import * as v from 'valibot';
import { rubricSchema, toldCriteriaSchema } from '../shared/rubric';

export const askedSchema = v.strictObject({
  format: v.picklist(['plain', 'rich']),
  wordsFrom: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0))),
  wordsTo: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
  /** At a hard limit the page takes no further word, and what is beyond it is not read; a soft one is only told. */
  limit: v.picklist(['soft', 'hard']),
  /** By what it is judged, as candidates are told. */
  criteria: toldCriteriaSchema,
});
export type WritingAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({ rubric: rubricSchema });
export type WritingKey = v.InferOutput<typeof keySchema>;
