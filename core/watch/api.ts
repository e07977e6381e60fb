import type { RoundRow } from '../rounds/api';
import type { ArrivalPicture } from '../files/purpose';
import type { Message } from '../messages/message';
import type { PlayCount } from '../sittings/api';

/** Where a candidate of a round is, as an invigilator sees it; `out of reach` follows from the time (`rowAt`). */
export type WatchState =
  | 'not here'
  | 'arriving'
  | 'waiting'
  | 'writing'
  | 'stopped'
  | 'out of reach'
  | 'handed in';

/** A writing candidate of whom nothing was heard for this long is out of reach. */
export const OUT_OF_REACH_MS = 45_000;

export interface WatchRow {
  readonly invitation: number;
  readonly name: string;
  readonly reference: string;
  readonly arrangements: readonly Message[];
  readonly state: WatchState;
  readonly startedAt: number | null;
  readonly deadlineAt: number | null;
  /** When this was so; the time used and left then, in ms. */
  readonly at: number;
  readonly usedMs: number;
  readonly leftMs: number;
  /** Share (0..1) of the paper's marks whose parts are done; follows within seconds. */
  readonly marksDone: number;
  readonly heardAt: number | null;
  readonly hand: { readonly at: number; readonly text: string } | null;
  readonly stopped: 'pause' | 'break' | null;
  /** Whether all checks went well and no correction of the details waits: who is clean is admitted without a reason. */
  readonly clean: boolean;
  /** The last thing said, and what checks found weak: to be read in a line. */
  readonly notes: readonly Message[];
  readonly pictures: readonly ArrivalPicture[];
  /** Recordings of which plays were used, by file. */
  readonly plays: readonly UsedPlays[];
}

export interface UsedPlays extends PlayCount {
  readonly file: string;
  readonly title: string;
}

export interface WatchView {
  readonly round: number;
  readonly title: string;
  readonly now: number;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly timeZone: string;
  readonly startRule: string;
  /** Shown from five minutes before the opening; null until then and where there is none. */
  readonly doorCode: string | null;
  readonly rows: readonly WatchRow[];
}

/** What has changed in a room since it was told before: whole rows, and when something was last heard of others. */
export interface WatchChange {
  readonly now: number;
  readonly doorCode: string | null;
  readonly rows: readonly WatchRow[];
  /** By invitation: when something was last heard. */
  readonly heard: readonly (readonly [number, number])[];
}

/** The stream of a room: the whole first, then what changes. */
export type WatchNews = { readonly whole: WatchView } | { readonly change: WatchChange };

const WINDOWS = { open: 0, later: 1, over: 2 } as const;

export interface WatchRoundRow {
  readonly id: number;
  readonly title: string;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly timeZone: string;
  /** Where the window stands by the server's clock. */
  readonly window: RoundRow['window'];
  /** Candidates whose raised hand has not been answered. */
  readonly hands: number;
  /** When the oldest of those hands was raised; null for none. */
  readonly handSince: number | null;
}

/** Rounds in the order in which they need somebody: the hand that has waited longest first, then what is open. */
export const roundsByNeed = (rounds: readonly WatchRoundRow[]): WatchRoundRow[] =>
  [...rounds].sort(
    (a, b) => (a.handSince ?? Infinity) - (b.handSince ?? Infinity) || WINDOWS[a.window] - WINDOWS[b.window],
  );

interface Urgent {
  readonly state: WatchState;
  readonly hand: WatchRow['hand'];
}

/** Who needs someone comes first: a raised hand, out of reach, waiting; then those who write; then the rest. */
const ORDER: Record<WatchState, number> = {
  'out of reach': 1,
  waiting: 2,
  stopped: 3,
  writing: 4,
  arriving: 5,
  'not here': 6,
  'handed in': 7,
};
export const urgencyOf = ({ state, hand }: Urgent): number => (hand ? 0 : ORDER[state]);

/** What an invigilator can do for one candidate; each with a reason on record. */
export const watchActs = [
  'admit',
  'message',
  'answer hand',
  'grant',
  'pause',
  'go on',
  'readmit',
  'give play back',
  'note',
] as const;
export type WatchAct = (typeof watchActs)[number];
