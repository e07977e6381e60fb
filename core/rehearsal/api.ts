import type { CheckName } from '../arrival/checks';
import type { CandidatePaper } from '../papers/candidatePaper';

/**
 * A rehearsal for the round of a link: a small paper of its own, as a candidate sees it. It is worked on the device and
 * scored by a call that keeps nothing, so that no key is ever on a candidate's device.
 */
export interface RehearsalView {
  readonly organisation: string;
  readonly round: {
    readonly title: string;
    readonly opensAt: number;
    readonly closesAt: number;
    readonly timeZone: string;
  };
  readonly checks: readonly CheckName[];
  readonly paper: CandidatePaper;
}

export interface RehearsalAnswers {
  readonly answers: Readonly<Record<string, unknown>>;
}
