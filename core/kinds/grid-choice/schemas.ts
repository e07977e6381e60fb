import Joi from 'joi';
import { listOf, objectOf, oneOf, recordOf } from '../../validation/shapes';
import { ENTRY_KEY, entryKey, entrySchema, weightedEntrySchema } from '../shared/schemas';
import { SEVERAL_RULES } from '../shared/severalRight';
import type { GridChoiceAsked, GridChoiceKey } from './content';
import type { GridChoiceResponse } from './response';

const MOST_STATEMENTS = 20;
const MOST_CATEGORIES = 8;

export const askedSchema = objectOf<GridChoiceAsked>({
  statements: listOf(weightedEntrySchema, { least: 1, most: MOST_STATEMENTS }),
  categories: listOf(entrySchema, { least: 2, most: MOST_CATEGORIES }),
  mode: oneOf(['one', 'several']),
  rule: oneOf(SEVERAL_RULES),
  mayStayEmpty: Joi.boolean(),
  shuffle: Joi.boolean(),
});

const rows = recordOf(ENTRY_KEY, listOf(entryKey, { most: MOST_CATEGORIES }), MOST_STATEMENTS);

export const keySchema = objectOf<GridChoiceKey>({ rows });

export const arrangementSchema = listOf(entryKey);

export const responseSchema = objectOf<GridChoiceResponse>({ rows });
