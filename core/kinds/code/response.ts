import type { Json } from '../evidence';

export const LANGUAGES = ['python', 'javascript'] as const;
export type Language = (typeof LANGUAGES)[number];

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

/** The programs in the languages that were tried, and the language that counts. */
export interface CodeResponse {
  readonly language: Language;
  readonly programs: { readonly [L in Language]?: string | undefined };
}
