import type { Stage } from '../arrival/stage';
import type { PlayCounts, TimeView } from '../sittings/api';

/** One thing said between a candidate and the invigilators. */
export interface Message {
  readonly id: number;
  readonly at: number;
  readonly from: 'you' | 'invigilator';
  readonly text: string;
}

/** What changes while a candidate waits or writes; sent whenever it does. Times are the server's. */
export interface LiveView {
  readonly now: number;
  readonly stage: Stage;
  readonly opensAt: number;
  readonly time: TimeView | null;
  readonly messages: readonly Message[];
  /** A raised hand that nobody has answered yet. */
  readonly hand: { readonly at: number; readonly text: string } | null;
  /** Place among those who wait for admission, from 1; null when not waiting. */
  readonly place: number | null;
  /** Wrong door codes that may still be tried. */
  readonly triesLeft: number;
  /** The number of the hold that may write; devices with an earlier one are told. */
  readonly hold: number | null;
  /** Recordings with a limit of plays, while the sitting runs. */
  readonly plays: PlayCounts;
}
