import type { Json } from '../evidence';
import type { Rubric, ToldCriteria } from '../shared/rubric';
import type { Language } from './response';

export interface TestCase {
  readonly key: string;
  readonly title: string;
  readonly arguments: readonly Json[];
  readonly expected: Json;
}

export interface CodeAsked {
  readonly functionName: string;
  readonly languages: readonly { readonly language: Language; readonly starter: string }[];
  /** Shown cases can be run at will. */
  readonly cases: readonly TestCase[];
  /** What candidates are told of the hidden cases: how many there are, and in how many groups. */
  readonly hiddenCases: number;
  readonly groupCount: number;
  readonly limits: { readonly milliseconds: number; readonly megabytes: number };
  /** Figures that differ by no more than this count as the same. */
  readonly numberTolerance: number;
  /** By what people judge the program besides the cases. */
  readonly criteria: ToldCriteria;
}

export interface CaseGroup {
  readonly key: string;
  readonly title: string;
  /** Hidden or shown ones, by key. */
  readonly cases: readonly string[];
  /** Its share, beside the other groups, of what the rubric leaves of the part's marks. */
  readonly weight?: number | undefined;
  readonly counting: 'all' | 'proportion';
}

export interface CodeKey {
  readonly cases: readonly TestCase[];
  readonly groups: readonly CaseGroup[];
  readonly rubric: Rubric | null;
}
