import Joi from 'joi';
import { MOST_PHONE_PAGES } from '../../files/pages';
import { pageSchema } from '../../files/pageSchema';
import { listOf, objectOf, whole } from '../../validation/shapes';
import { richTextSchema } from '../shared/richTextSchema';
import { rubricSchema, toldCriteriaSchema } from '../shared/schemas';
import type { UploadAsked, UploadKey } from './content';
import { MOST_DESK_PAGES, MOST_PAGES, type UploadResponse } from './response';

const pages = whole(1, MOST_PAGES);

export const askedSchema = objectOf<UploadAsked>({
  pagesFrom: pages,
  pagesTo: pages,
  text: Joi.boolean(),
  criteria: toldCriteriaSchema,
});

export const keySchema = objectOf<UploadKey>({ rubric: rubricSchema });

export const responseSchema = objectOf<UploadResponse>({
  pages: listOf(pageSchema, { most: MOST_DESK_PAGES + MOST_PHONE_PAGES }),
  joined: whole(0),
  text: richTextSchema,
});
