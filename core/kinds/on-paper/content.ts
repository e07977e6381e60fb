import * as v from 'valibot';
import { documentSchema } from '../../documents/documentSchema';
import { rubricSchema, toldCriteriaSchema } from '../shared/rubric';

export const askedSchema = v.strictObject({ sheet: documentSchema, criteria: toldCriteriaSchema });
export type OnPaperAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({ rubric: rubricSchema });
export type OnPaperKey = v.InferOutput<typeof keySchema>;
