import Joi from 'joi';
import { FORMS } from '../../expressions/forms';
import { anyText, listOf, matching, objectOf, oneOf, recordOf, textOf } from '../../validation/shapes';
import { percent } from '../shared/schemas';
import type { AcceptedExpression, ExpressionAsked, ExpressionKey, LetterDomain } from './content';
import { TOOLS, type ExpressionResponse } from './response';

const LETTER = /^[A-Za-z]$/;
const letter = matching(LETTER);
const text = textOf(100);
const end = Joi.number().unsafe().optional();
const flag = Joi.boolean().optional();

export const askedSchema = objectOf<ExpressionAsked>({
  before: text,
  after: text,
  tools: listOf(oneOf(TOOLS)),
  list: Joi.boolean(),
  letters: listOf(letter, { most: 20 }),
  functions: listOf(letter, { most: 10 }),
  form: oneOf(FORMS).allow(null),
});

const accepted = objectOf<AcceptedExpression>({
  latex: textOf(2000, 1),
  percent: percent(1),
  note: anyText,
});

const domain = objectOf<LetterDomain>({ from: end, to: end, fromOpen: flag, toOpen: flag, whole: flag });

export const keySchema = objectOf<ExpressionKey>({
  accepted: listOf(accepted, { least: 1, most: 10 }),
  otherForm: percent(0),
  domain: recordOf(LETTER, domain, 52),
  log: oneOf([10, 'e']),
});

export const responseSchema = objectOf<ExpressionResponse>({ latex: textOf(2000) });
