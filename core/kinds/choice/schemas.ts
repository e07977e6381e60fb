import Joi from 'joi';
import { documentSchema } from '../../documents/documentSchema';
import { listOf, matching, objectOf, oneOf, textOf, whole } from '../../validation/shapes';
import { SEVERAL_RULES } from '../shared/severalRight';
import type { ChoiceAsked, ChoiceKey } from './content';
import type { ChoiceResponse, OptionShown } from './response';

const optionKey = matching(/^[a-z0-9-]{1,20}$/);
const chosen = listOf(optionKey, { most: 12 });
const share = whole(1, 1000);

const option = objectOf<OptionShown>({
  key: optionKey,
  text: textOf(500, 1),
  body: documentSchema.optional(),
});

export const askedSchema = objectOf<ChoiceAsked>({
  options: listOf(option, { least: 2, most: 12 }),
  mode: oneOf(['one', 'several']),
  choose: whole(1).allow(null),
  rule: oneOf(SEVERAL_RULES),
  penalty: objectOf<NonNullable<ChoiceAsked['penalty']>>({ over: share, under: share }).allow(null),
  shuffle: Joi.boolean(),
});

export const keySchema = objectOf<ChoiceKey>({ right: listOf(optionKey, { least: 1 }) });

export const arrangementSchema = listOf(optionKey);

export const responseSchema = objectOf<ChoiceResponse>({ chosen });

/** Options that the candidate has struck out as wrong. */
export const strikeSchema = chosen;
