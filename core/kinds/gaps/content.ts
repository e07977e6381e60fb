import * as v from 'valibot';

const key = v.pipe(v.string(), v.regex(/^[a-z0-9]{1,10}$/));
const texts = v.pipe(v.array(v.pipe(v.string(), v.minLength(1))), v.minLength(1));

const typedGap = v.strictObject({
  key,
  by: v.literal('typing'),
  accepted: texts,
  oneWord: v.boolean(),
  ignoreCase: v.boolean(),
  ignoreAccents: v.boolean(),
  slips: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(3)),
});
const listGap = v.pipe(
  v.strictObject({ key, by: v.literal('list'), options: texts, right: v.string() }),
  v.check((gap) => gap.options.includes(gap.right), 'the right option is not in the list'),
);
export const gapSchema = v.union([typedGap, listGap]);
export type Gap = v.InferOutput<typeof gapSchema>;

/** A text with `[[key]]` where each gap stands. */
export const contentSchema = v.pipe(
  v.strictObject({ text: v.string(), gaps: v.pipe(v.array(gapSchema), v.minLength(1), v.maxLength(30)) }),
  v.check(
    (c) => c.gaps.every((gap) => c.text.split(`[[${gap.key}]]`).length === 2),
    'a gap is not once in the text',
  ),
);
export type GapsContent = v.InferOutput<typeof contentSchema>;

export type GapShown =
  | { readonly key: string; readonly by: 'typing'; readonly oneWord: boolean }
  | { readonly key: string; readonly by: 'list'; readonly options: readonly string[] };

export interface GapsShown {
  readonly text: string;
  readonly gaps: readonly GapShown[];
}

export const responseSchema = v.strictObject({ filled: v.record(key, v.pipe(v.string(), v.maxLength(200))) });
export type GapsResponse = v.InferOutput<typeof responseSchema>;
