import * as v from 'valibot';
import type { Json } from '../contract';

export const jsonSchema: v.GenericSchema<unknown, Json> = v.lazy(() =>
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
const language = v.picklist(['python', 'javascript']);
export type Language = v.InferOutput<typeof language>;

const testCase = v.strictObject({
  key,
  title: v.string(),
  arguments: v.array(jsonSchema),
  expected: jsonSchema,
  /** Shown cases can be run at will and earn nothing; the hidden ones score. */
  shown: v.boolean(),
});

const group = v.strictObject({
  key,
  title: v.string(),
  cases: v.pipe(v.array(key), v.minLength(1)),
  /** Share of the part's marks. */
  percent: v.pipe(v.number(), v.minValue(0), v.maxValue(100)),
  counting: v.picklist(['all', 'proportion']),
});

export const contentSchema = v.pipe(
  v.strictObject({
    functionName: v.pipe(v.string(), v.regex(/^[a-zA-Z_]\w{0,40}$/)),
    languages: v.pipe(v.array(v.strictObject({ language, starter: v.string() })), v.minLength(1)),
    cases: v.pipe(v.array(testCase), v.minLength(1), v.maxLength(60)),
    groups: v.pipe(v.array(group), v.minLength(1)),
    limits: v.strictObject({
      milliseconds: v.pipe(v.number(), v.minValue(100), v.maxValue(20_000)),
      megabytes: v.pipe(v.number(), v.minValue(16), v.maxValue(512)),
    }),
    /** Figures that differ by no more than this count as the same. */
    numberTolerance: v.pipe(v.number(), v.minValue(0)),
  }),
  v.check(
    (c) => c.groups.every((g) => g.cases.every((k) => c.cases.some((t) => t.key === k))),
    'a case is missing',
  ),
  v.check(
    (c) => c.groups.reduce((sum, g) => sum + g.percent, 0) === 100,
    'the groups do not add up to 100 %',
  ),
);
export type CodeContent = v.InferOutput<typeof contentSchema>;

export interface CodeShown {
  readonly functionName: string;
  readonly languages: readonly { readonly language: Language; readonly starter: string }[];
  readonly cases: readonly {
    readonly key: string;
    readonly title: string;
    readonly arguments: readonly Json[];
    readonly expected: Json;
  }[];
  readonly hiddenCases: number;
  readonly groupCount: number;
  readonly limits: { readonly milliseconds: number; readonly megabytes: number };
  readonly numberTolerance: number;
}

export const responseSchema = v.strictObject({
  language,
  programs: v.record(language, v.optional(v.pipe(v.string(), v.maxLength(50_000)))),
});
export type CodeResponse = v.InferOutput<typeof responseSchema>;
