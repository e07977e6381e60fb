import type { Stage } from '../arrival/stage';
import type { Page, PageState } from '../files/pages';
import type { PlayCounts, TimeView } from '../sittings/api';

/** One thing said between a candidate and the invigilators. */
export interface Message {
  readonly id: number;
  readonly at: number;
  readonly from: 'you' | 'invigilator';
  readonly text: string;
}

/** A phone that may send pages for one part, until it has ended or its time is over. */
export interface JoinedPhone {
  readonly target: string;
  readonly until: number;
  /** Whether its page was opened on a phone already. */
  readonly joined: boolean;
}

/** Pages of answers, while the sitting runs. */
export interface LivePages {
  /** How far the bytes of each page are, by hash; of those of which nothing has come yet nothing is said. */
  readonly states: Readonly<Record<string, PageState>>;
  /** What joined phones have sent, by target, in the order of arrival. */
  readonly joined: Readonly<Record<string, readonly Page[]>>;
  /** Whether phones can be joined in this round. */
  readonly phones: boolean;
  readonly phone: JoinedPhone | null;
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
  readonly pages: LivePages | null;
  /** After the hand-in: another text whenever what the page shows of marking or of the result has changed. */
  readonly marked: string | null;
}
