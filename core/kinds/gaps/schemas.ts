import Joi from 'joi';
import {
  anyText,
  listOf,
  matching,
  objectOf,
  oneOf,
  recordOf,
  textOf,
  variantOf,
  whole,
} from '../../validation/shapes';
import { percent, weight } from '../shared/schemas';
import type { AcceptedWord, GapAsked, GapRule, GapsAsked, GapsKey, TypedRule } from './content';
import type { GapsResponse } from './response';

const GAP_KEY = /^[a-z0-9]{1,10}$/;
const MOST_GAPS = 30;
const key = matching(GAP_KEY);
const word = textOf(200, 1);
const [typing, list] = [oneOf(['typing']), oneOf(['list'])];

type GapBy<By> = Extract<GapAsked, { readonly by: By }>;
const gap = variantOf<GapAsked>('by', [
  ['typing', objectOf<GapBy<'typing'>>({ key, by: typing, oneWord: Joi.boolean(), weight })],
  ['list', objectOf<GapBy<'list'>>({ key, by: list, options: listOf(word, { least: 2, most: 30 }), weight })],
]);

export const askedSchema = objectOf<GapsAsked>({
  text: anyText,
  gaps: listOf(gap, { least: 1, most: MOST_GAPS }),
});

const accepted = objectOf<AcceptedWord>({ text: word, percent: percent(1) });

const rule = variantOf<GapRule>('by', [
  [
    'typing',
    objectOf<TypedRule>({
      by: typing,
      accepted: listOf(accepted, { least: 1, most: 100 }),
      ignoreCase: Joi.boolean(),
      ignoreAccents: Joi.boolean(),
      slips: whole(0, 3),
    }),
  ],
  ['list', objectOf<Exclude<GapRule, TypedRule>>({ by: list, right: word })],
]);

export const keySchema = objectOf<GapsKey>({ gaps: recordOf(GAP_KEY, rule, MOST_GAPS) });

export const responseSchema = objectOf<GapsResponse>({ filled: recordOf(GAP_KEY, textOf(200), MOST_GAPS) });
