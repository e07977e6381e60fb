import Joi from 'joi';
import { listOf, objectOf, recordOf, whole } from '../../validation/shapes';
import { ENTRY_KEY, entryKey, entryMembers, weightedEntrySchema } from '../shared/schemas';
import type { SortAsked, SortKey } from './content';
import type { BinShown, SortResponse } from './response';

const MOST_CHIPS = 30;
const MOST_BINS = 8;

export const askedSchema = objectOf<SortAsked>({
  chips: listOf(weightedEntrySchema, { least: 2, most: MOST_CHIPS }),
  fromSource: Joi.boolean(),
  bins: listOf(objectOf<BinShown>({ ...entryMembers, limit: whole(1).allow(null) }), {
    least: 1,
    most: MOST_BINS,
  }),
  often: Joi.boolean(),
  leftOver: Joi.boolean(),
  shuffle: Joi.boolean(),
});

const bins = recordOf(ENTRY_KEY, listOf(entryKey, { most: MOST_CHIPS }), MOST_BINS);

export const keySchema = objectOf<SortKey>({ bins });

export const arrangementSchema = listOf(entryKey);

export const responseSchema = objectOf<SortResponse>({ bins });
