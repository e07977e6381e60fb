import type { CheckName } from '../arrival/checks';
import type { FullPaper } from '../papers/paper';

/** A rehearsal for the round of a link: a small paper of its own that is worked and scored on the device. */
export interface RehearsalView {
  readonly organisation: string;
  readonly round: {
    readonly title: string;
    readonly opensAt: number;
    readonly closesAt: number;
    readonly timeZone: string;
  };
  readonly checks: readonly CheckName[];
  readonly paper: FullPaper;
}
