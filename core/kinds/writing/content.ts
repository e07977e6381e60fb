import type { Rubric, ToldCriteria } from '../shared/rubric';

export interface WritingAsked {
  readonly format: 'plain' | 'rich';
  readonly wordsFrom: number | null;
  readonly wordsTo: number | null;
  /** At a hard limit the page takes no further word, and what is beyond it is not read; a soft one is only told. */
  readonly limit: 'soft' | 'hard';
  /** By what it is judged, as candidates are told. */
  readonly criteria: ToldCriteria;
}

export interface WritingKey {
  readonly rubric: Rubric;
}
