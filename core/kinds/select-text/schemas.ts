import { documentOrNull } from '../../documents/documentSchema';
import { listOf, objectOf, textOf, whole } from '../../validation/shapes';
import { entryKey, entrySchema, weight } from '../shared/schemas';
import type { PassageAsked, SelectTextAsked, SelectTextKey } from './content';
import type { SelectTextResponse } from './response';

const passage = objectOf<PassageAsked>({
  key: entryKey,
  title: textOf(200, 1),
  body: documentOrNull,
  limit: whole(1).allow(null),
  weight,
  phrases: listOf(entrySchema, { least: 2, most: 100 }),
});

export const askedSchema = objectOf<SelectTextAsked>({ passages: listOf(passage, { least: 1, most: 6 }) });

export const keySchema = objectOf<SelectTextKey>({ right: listOf(entryKey, { least: 1 }) });

export const responseSchema = objectOf<SelectTextResponse>({ chosen: listOf(entryKey, { most: 200 }) });
