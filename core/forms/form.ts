import type { CandidatePaper } from '../papers/candidatePaper';

/**
 * The form of a sitting: which item versions in which order, and how each part is arranged, as the candidate sees them.
 * It is drawn once from a seed and then stored; scoring, marking and results read the stored one.
 */
export interface Form {
  readonly kind: 'form';
  readonly version: 1;
  readonly paper: CandidatePaper;
  /** How each part is arranged, by target; its kind reads it. */
  readonly arrangements: Readonly<Record<string, unknown>>;
}
