import * as v from 'valibot';

const key = v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,20}$/));
export const optionSchema = v.strictObject({
  key,
  text: v.pipe(v.string(), v.minLength(1), v.maxLength(500)),
});

/**
 * How several right options are scored: `all-or-nothing`; `each` (each right one +1/R, each wrong one −1/W, never
 * below 0); `decisions` (share of right decisions over all options).
 */
export const severalRule = v.picklist(['all-or-nothing', 'each', 'decisions']);

export const contentSchema = v.pipe(
  v.strictObject({
    options: v.pipe(v.array(optionSchema), v.minLength(2), v.maxLength(12)),
    right: v.pipe(v.array(key), v.minLength(1)),
    mode: v.picklist(['one', 'several']),
    /** For `several`: exactly this many are to be chosen; null leaves it open. */
    choose: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
    rule: severalRule,
    /** Marks lost for a wrong choice of one, as a share of the maximum; 0 costs nothing. */
    penalty: v.pipe(v.number(), v.minValue(0), v.maxValue(1)),
    shuffle: v.boolean(),
  }),
  v.check(
    (c) => c.right.every((r) => c.options.some((o) => o.key === r)),
    'a right option is not among the options',
  ),
  v.check(
    (c) => new Set(c.options.map((o) => o.key)).size === c.options.length,
    'two options have the same key',
  ),
  v.check((c) => c.mode === 'several' || c.right.length === 1, 'one choice has exactly one right option'),
);
export type ChoiceContent = v.InferOutput<typeof contentSchema>;

export interface ChoiceShown {
  readonly options: readonly { readonly key: string; readonly text: string }[];
  readonly mode: 'one' | 'several';
  readonly choose: number | null;
  readonly rule: ChoiceContent['rule'];
  readonly penalty: number;
  readonly shuffle: boolean;
}

export const responseSchema = v.strictObject({ chosen: v.pipe(v.array(key), v.maxLength(12)) });
export type ChoiceResponse = v.InferOutput<typeof responseSchema>;
