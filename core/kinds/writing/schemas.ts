import { objectOf, oneOf, whole } from '../../validation/shapes';
import { richTextSchema } from '../shared/richTextSchema';
import { rubricSchema, toldCriteriaSchema } from '../shared/schemas';
import type { WritingAsked, WritingKey } from './content';
import type { WritingResponse } from './response';

export const askedSchema = objectOf<WritingAsked>({
  format: oneOf(['plain', 'rich']),
  wordsFrom: whole(0).allow(null),
  wordsTo: whole(1).allow(null),
  limit: oneOf(['soft', 'hard']),
  criteria: toldCriteriaSchema,
});

export const keySchema = objectOf<WritingKey>({ rubric: rubricSchema });

export const responseSchema = objectOf<WritingResponse>({ text: richTextSchema });
