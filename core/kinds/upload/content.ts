import type { Rubric, ToldCriteria } from '../shared/rubric';

export interface UploadAsked {
  readonly pagesFrom: number;
  readonly pagesTo: number;
  /** Whether the answer may also be typed: then either is enough. */
  readonly text: boolean;
  /** By what it is judged, as candidates are told. */
  readonly criteria: ToldCriteria;
}

export interface UploadKey {
  readonly rubric: Rubric;
}
