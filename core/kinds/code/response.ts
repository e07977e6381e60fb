import * as v from 'valibot';
import type { Json } from '../evidence';

export const languageSchema = v.picklist(['python', 'javascript']);
export type Language = v.InferOutput<typeof languageSchema>;

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
  /** By what people judge the program besides, and what each is worth. */
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

export const responseSchema = v.strictObject({
  language: languageSchema,
  programs: v.record(languageSchema, v.optional(v.pipe(v.string(), v.maxLength(50_000)))),
});
export type CodeResponse = v.InferOutput<typeof responseSchema>;
