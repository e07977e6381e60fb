import * as v from 'valibot';
import type { Json } from '../evidence';
import { weightSchema } from '../shared/credits';
import { rubricSchema } from '../shared/rubric';
import { languageSchema } from './response';

const jsonSchema: v.GenericSchema<unknown, Json> = v.lazy(() =>
  v.union([
    v.null(),
    v.boolean(),
    v.number(),
    v.string(),
    v.array(jsonSchema),
    v.record(v.string(), jsonSchema),
  ]),
);

const key = v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,20}$/));
const count = v.pipe(v.number(), v.integer(), v.minValue(0));
const testCase = v.strictObject({
  key,
  title: v.string(),
  arguments: v.array(jsonSchema),
  expected: jsonSchema,
});

export const askedSchema = v.strictObject({
  functionName: v.pipe(v.string(), v.regex(/^[a-zA-Z_]\w{0,40}$/)),
  languages: v.pipe(
    v.array(v.strictObject({ language: languageSchema, starter: v.string() })),
    v.minLength(1),
  ),
  /** Shown cases can be run at will. */
  cases: v.pipe(v.array(testCase), v.maxLength(60)),
  /** What candidates are told of the hidden cases: how many there are, and in how many groups. */
  hiddenCases: count,
  groupCount: count,
  limits: v.strictObject({
    milliseconds: v.pipe(v.number(), v.minValue(100), v.maxValue(20_000)),
    megabytes: v.pipe(v.number(), v.minValue(16), v.maxValue(512)),
  }),
  /** Figures that differ by no more than this count as the same. */
  numberTolerance: v.pipe(v.number(), v.minValue(0)),
  /** By what people judge the program besides the cases. */
  criteria: v.pipe(v.array(v.strictObject({ title: v.string(), hundredths: count })), v.maxLength(30)),
});
export type CodeAsked = v.InferOutput<typeof askedSchema>;

const group = v.strictObject({
  key,
  title: v.string(),
  /** Hidden or shown ones, by key. */
  cases: v.pipe(v.array(key), v.minLength(1)),
  /** Its share, beside the other groups, of what the rubric leaves of the part's marks. */
  weight: weightSchema,
  counting: v.picklist(['all', 'proportion']),
});

export const keySchema = v.strictObject({
  cases: v.pipe(v.array(testCase), v.maxLength(60)),
  groups: v.pipe(v.array(group), v.minLength(1), v.maxLength(20)),
  rubric: v.nullable(rubricSchema),
});
export type CodeKey = v.InferOutput<typeof keySchema>;
