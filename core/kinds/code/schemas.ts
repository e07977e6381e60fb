import Joi from 'joi';
import {
  anyText,
  listOf,
  holding,
  matching,
  nothing,
  objectOf,
  oneOf,
  recordOf,
  textOf,
  variantOf,
  walked,
  whole,
} from '../../validation/shapes';
import type { Rule } from '../../validation/walks';
import { textRules } from '../../programs/compareText';
import type { ProgramFile } from '../../programs/engine';
import type { ValueType } from '../../programs/signature';
import type { Json } from '../evidence';
import { rubricSchema, weight } from '../shared/schemas';
import type { CaseGroup, CodeAsked, CodeKey, Solution } from './content';
import {
  FILE_MOST,
  INPUT_MOST,
  LANGUAGES,
  lengthOf,
  PROGRAMS_MOST,
  type AskedFile,
  type Checker,
  type CodeResponse,
  type Comparison,
  type Condition,
  type Fixture,
  type LanguageAsked,
  type RunEvent,
  type Limits,
  type TestCase,
  type Way,
} from './response';

/** Is a value what JSON can hold? What is read from JSON always is; drafts of our own may be anything. */
const isJson: Rule = (value) => {
  if (value === null || ['boolean', 'string'].includes(typeof value)) return null;
  if (typeof value === 'number') return Number.isFinite(value) ? null : 'a number without end';
  if (typeof value !== 'object') return typeof value;
  return Object.values(value).reduce<string | null>((place, inner) => place ?? isJson(inner), null);
};
const json = walked<Json>(isJson, 'value of JSON');

const PLAIN_TYPES: readonly unknown[] = ['whole', 'decimal', 'text', 'truth', 'nothing', 'any'];
const MOST_NESTED = 8;

function problemOfType(type: unknown, depth = 0): string | null {
  if (typeof type === 'string') return PLAIN_TYPES.includes(type) ? null : `the type ${type}`;
  if (typeof type !== 'object' || type === null || depth > MOST_NESTED) return 'a type';
  const [entry, ...more] = Object.entries(type) as [string, unknown][];
  if (!entry || more.length > 0) return 'a type with one word: list, map or record';
  const [word, of] = entry;
  if (word === 'list' || word === 'map') return problemOfType(of, depth + 1);
  if (word !== 'record' || typeof of !== 'object' || of === null) return word;
  return Object.entries(of).reduce<string | null>(
    (place, [name, one]) =>
      place ?? (/^[A-Za-z_]\w{0,40}$/.test(name) ? problemOfType(one, depth + 1) : name),
    null,
  );
}
const valueType = walked<ValueType>((type) => problemOfType(type), 'type of a value');

const key = matching(/^[a-z0-9-]{1,20}$/);
const language = oneOf(LANGUAGES);
const identifier = matching(/^[a-zA-Z_]\w{0,40}$/);
const fileName = matching(/^(?!\.)[\w.-]{1,40}$/);

const way = variantOf<Way>('is', [
  [
    'function',
    objectOf<Extract<Way, { is: 'function' }>>({
      is: oneOf(['function']),
      name: identifier,
      parameters: Joi.alternatives<Extract<Way, { is: 'function' }>['parameters']>(
        listOf(objectOf<{ name: string; type: ValueType }>({ name: identifier, type: valueType }), {
          most: 12,
        }),
        nothing,
      ),
      returns: valueType,
    }),
  ],
  ['streams', objectOf<Extract<Way, { is: 'streams' }>>({ is: oneOf(['streams']) })],
  ['query', objectOf<Extract<Way, { is: 'query' }>>({ is: oneOf(['query']) })],
]);

const limits = objectOf<Limits>({
  milliseconds: Joi.number().min(100).max(20_000),
  megabytes: Joi.number().min(16).max(512),
});

const inputFile = objectOf<ProgramFile>({ name: fileName, text: textOf(200_000) });

const askedFile = objectOf<AskedFile>({
  name: fileName,
  text: textOf(FILE_MOST),
  open: Joi.boolean().default(true),
  head: textOf(FILE_MOST).default(''),
  tail: textOf(FILE_MOST).default(''),
});

const testCase = objectOf<TestCase>({
  key,
  title: anyText,
  input: json,
  files: listOf(inputFile, { most: 10 }).default([]),
  expected: json,
});

const fixture = objectOf<Fixture>({ key, title: anyText, sql: textOf(200_000) });

const checker = objectOf<Checker>({
  language: oneOf(['python', 'javascript', 'typescript']),
  program: textOf(FILE_MOST, 1),
});

const comparison = objectOf<Comparison>({
  text: oneOf(textRules).default('lines'),
  within: Joi.number().min(0).default(0),
  anyOrder: Joi.boolean().default(false),
  columnNames: Joi.boolean().default(false),
  byChecker: Joi.boolean().default(false),
});

const kept = { key, weight, must: Joi.boolean() };
const condition = variantOf<Condition>('is', [
  ['recursion', objectOf({ ...kept, is: oneOf(['recursion']) })],
  ['loop', objectOf({ ...kept, is: oneOf(['loop']) })],
  ['name', objectOf({ ...kept, is: oneOf(['name']), name: textOf(60, 1) })],
  ['import', objectOf({ ...kept, is: oneOf(['import']), name: textOf(60, 1) })],
  ['lines', objectOf({ key, weight, is: oneOf(['lines']), most: whole(1, 10_000) })],
]);

export const askedSchema = objectOf<CodeAsked>({
  way,
  languages: listOf(
    objectOf<LanguageAsked>({
      language,
      files: listOf(askedFile, { most: 10 }).default([]),
      limits: limits.allow(null).default(null),
    }),
    { least: 1, most: LANGUAGES.length },
  ),
  cases: listOf(testCase, { most: 60 }),
  fixtures: listOf(fixture, { most: 20 }).default([]),
  hiddenCases: whole(0),
  groupCount: whole(0),
  limits,
  comparison,
  checker: checker.allow(null).default(null),
  conditions: listOf(condition, { most: 20 }).default([]),
  showsHidden: Joi.boolean().default(false),
  criteria: listOf(objectOf<CodeAsked['criteria'][number]>({ title: anyText, hundredths: whole(0) }), {
    most: 30,
  }).default([]),
});

const group = objectOf<CaseGroup>({
  key,
  title: anyText,
  cases: listOf(key, { least: 1 }),
  weight,
  counting: oneOf(['all', 'proportion']),
  needs: key.optional(),
});

const texts = recordOf(/^(?!\.)[\w.-]{1,40}$/, textOf(FILE_MOST), 10);

export const keySchema = objectOf<CodeKey>({
  cases: listOf(testCase, { most: 60 }),
  fixtures: listOf(fixture, { most: 20 }).default([]),
  groups: listOf(group, { least: 1, most: 20 }),
  checker: checker.allow(null).default(null),
  solutions: listOf(objectOf<Solution>({ language, files: texts, right: Joi.boolean().default(true) }), {
    most: 12,
  }).default([]),
  rubric: rubricSchema.allow(null).default(null),
});

const own = texts.optional();

export const responseSchema = holding<CodeResponse, Joi.ObjectSchema<CodeResponse>>(
  objectOf<CodeResponse>({
    language,
    programs: objectOf<CodeResponse['programs']>({ python: own, javascript: own, typescript: own, sql: own }),
  }),
  (response) => lengthOf(response) <= PROGRAMS_MOST,
  'has more than 120,000 characters',
);

/** Inputs that a candidate has tried beside the cases, as typed. */
export const inputsSchema = listOf(textOf(INPUT_MOST), { most: 12 });

export const runSchema = objectOf<RunEvent>({
  language,
  cases: listOf(objectOf<RunEvent['cases'][number]>({ key: textOf(40), verdict: textOf(20) }), { most: 80 }),
});
