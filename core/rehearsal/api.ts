import type { CheckName } from '../arrival/checks';
import type { CandidatePaper } from '../papers/candidatePaper';
import type { ResultSheet } from '../results/resultSheet';

/**
 * A rehearsal for the round of a link: made-up questions in the shape of its paper, as a candidate sees them. It is worked
 * on the device and scored by a call that keeps nothing, so that no key is ever on a candidate's device.
 */
export interface RehearsalView {
  readonly organisation: string;
  readonly checks: readonly CheckName[];
  /** More time by arrangement, in percent. */
  readonly extraPercent: number;
  readonly paper: CandidatePaper;
}

/** Where the answers stand that were sent to be scored: how many come before them, or what they came to. */
export type RehearsalScore = { readonly before: number } | { readonly sheet: ResultSheet };

export interface RehearsalTicket {
  readonly ticket: string;
}

export interface RehearsalAnswers {
  readonly answers: Readonly<Record<string, unknown>>;
}
