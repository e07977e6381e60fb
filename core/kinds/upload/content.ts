import * as v from 'valibot';
import { rubricSchema, toldCriteriaSchema } from '../shared/rubric';
import { MOST_PAGES } from './response';

const pages = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(MOST_PAGES));

export const askedSchema = v.strictObject({
  pagesFrom: pages,
  pagesTo: pages,
  /** Whether the answer may also be typed: then either is enough. */
  text: v.boolean(),
  /** By what it is judged, as candidates are told. */
  criteria: toldCriteriaSchema,
});
export type UploadAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({ rubric: rubricSchema });
export type UploadKey = v.InferOutput<typeof keySchema>;
