import Joi from 'joi';
import { listOf, objectOf, recordOf } from '../../validation/shapes';
import { ENTRY_KEY, entryKey, entrySchema, weightedEntrySchema } from '../shared/schemas';
import type { MatchAsked, MatchKey } from './content';
import type { MatchResponse } from './response';

const MOST = 12;

export const askedSchema = objectOf<MatchAsked>({
  left: listOf(weightedEntrySchema, { least: 1, most: MOST }),
  right: listOf(entrySchema, { least: 2, most: MOST }),
  once: Joi.boolean(),
  leftOver: Joi.boolean(),
  shuffle: Joi.boolean(),
});

const pairs = recordOf(ENTRY_KEY, entryKey, MOST);

export const keySchema = objectOf<MatchKey>({ pairs });

export const arrangementSchema = listOf(entryKey);

export const responseSchema = objectOf<MatchResponse>({ pairs });
