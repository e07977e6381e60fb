import Joi from 'joi';
import { anyText, listOf, matching, objectOf, oneOf, textOf, walked, whole } from '../../validation/shapes';
import type { Rule } from '../../validation/walks';
import type { Json } from '../evidence';
import { rubricSchema, weight } from '../shared/schemas';
import type { CaseGroup, CodeAsked, CodeKey, TestCase } from './content';
import { LANGUAGES, type CodeResponse } from './response';

/** Is a value what JSON can hold? What is read from JSON always is; drafts of our own may be anything. */
const isJson: Rule = (value) => {
  if (value === null || ['boolean', 'string'].includes(typeof value)) return null;
  if (typeof value === 'number') return Number.isFinite(value) ? null : 'a number without end';
  if (typeof value !== 'object') return typeof value;
  return Object.values(value).reduce<string | null>((place, inner) => place ?? isJson(inner), null);
};
const json = walked<Json>(isJson, 'value of JSON');

const key = matching(/^[a-z0-9-]{1,20}$/);
const language = oneOf(LANGUAGES);
const testCase = objectOf<TestCase>({ key, title: anyText, arguments: listOf(json), expected: json });

export const askedSchema = objectOf<CodeAsked>({
  functionName: matching(/^[a-zA-Z_]\w{0,40}$/),
  languages: listOf(objectOf<CodeAsked['languages'][number]>({ language, starter: anyText }), { least: 1 }),
  cases: listOf(testCase, { most: 60 }),
  hiddenCases: whole(0),
  groupCount: whole(0),
  limits: objectOf<CodeAsked['limits']>({
    milliseconds: Joi.number().min(100).max(20_000),
    megabytes: Joi.number().min(16).max(512),
  }),
  numberTolerance: Joi.number().min(0),
  criteria: listOf(objectOf<CodeAsked['criteria'][number]>({ title: anyText, hundredths: whole(0) }), {
    most: 30,
  }),
});

const group = objectOf<CaseGroup>({
  key,
  title: anyText,
  cases: listOf(key, { least: 1 }),
  weight,
  counting: oneOf(['all', 'proportion']),
});

export const keySchema = objectOf<CodeKey>({
  cases: listOf(testCase, { most: 60 }),
  groups: listOf(group, { least: 1, most: 20 }),
  rubric: rubricSchema.allow(null),
});

const program = textOf(50_000).optional();

export const responseSchema = objectOf<CodeResponse>({
  language,
  programs: objectOf<CodeResponse['programs']>({ python: program, javascript: program }),
});
