import * as v from 'valibot';

export type GapShown =
  | { readonly key: string; readonly by: 'typing'; readonly oneWord: boolean }
  | { readonly key: string; readonly by: 'list'; readonly options: readonly string[] };

export interface GapsShown {
  /** With `[[key]]` where each gap stands. */
  readonly text: string;
  readonly gaps: readonly GapShown[];
}

export const gapKey = v.pipe(v.string(), v.regex(/^[a-z0-9]{1,10}$/));

export const responseSchema = v.strictObject({
  filled: v.record(gapKey, v.pipe(v.string(), v.maxLength(200))),
});
export type GapsResponse = v.InferOutput<typeof responseSchema>;
