import Joi from 'joi';
import { documentSchema } from '../../documents/documentSchema';
import { objectOf } from '../../validation/shapes';
import { rubricSchema, toldCriteriaSchema } from '../shared/schemas';
import type { OnPaperAsked, OnPaperKey } from './content';
import type { OnPaperResponse } from './response';

export const askedSchema = objectOf<OnPaperAsked>({ sheet: documentSchema, criteria: toldCriteriaSchema });

export const keySchema = objectOf<OnPaperKey>({ rubric: rubricSchema });

export const responseSchema = objectOf<OnPaperResponse>({ done: Joi.boolean() });
