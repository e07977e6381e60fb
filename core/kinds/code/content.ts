import type { Rubric, ToldCriteria } from '../shared/rubric';
import type { Checker, CodeShown, Fixture, Language, TestCase } from './response';

export interface CodeAsked extends Omit<CodeShown, 'criteria'> {
  /** Whether a candidate's result sheet shows hidden cases in full. */
  readonly showsHidden: boolean;
  readonly criteria: ToldCriteria;
}

export interface CaseGroup {
  readonly key: string;
  readonly title: string;
  /** Hidden or shown ones, by key. */
  readonly cases: readonly string[];
  /** Its share, beside the other groups and the conditions, of what the rubric leaves of the part's marks. */
  readonly weight?: number | undefined;
  readonly counting: 'all' | 'proportion';
  /** An earlier group of which all cases have to be as expected first. */
  readonly needs?: string | undefined;
}

/** A program of the author, by which the cases are tried before candidates see them. */
export interface Solution {
  readonly language: Language;
  /** The texts of the open files, by name. */
  readonly files: Readonly<Record<string, string>>;
  /** False for one that hidden cases have to find out. */
  readonly right: boolean;
}

export interface CodeKey {
  readonly cases: readonly TestCase[];
  readonly fixtures: readonly Fixture[];
  readonly groups: readonly CaseGroup[];
  /** Where candidates' devices must not have it. */
  readonly checker: Checker | null;
  readonly solutions: readonly Solution[];
  readonly rubric: Rubric | null;
}
