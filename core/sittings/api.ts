import type { Entry } from '../journal/entry';
import type { Desk } from '../journal/fold';

/** The time of a running sitting as a device shows it. */
export interface TimeView {
  readonly startedAt: number;
  /** Time left when this was said; what a standing clock shows. */
  readonly leftMs: number;
  /** When the time runs out as things stand; while the clock stands still, as if it went on now. */
  readonly deadlineAt: number;
  /** Why the clock stands still, and for a break when it goes on by itself. */
  readonly stopped: {
    readonly why: 'pause' | 'break';
    readonly since: number;
    readonly until: number | null;
  } | null;
  readonly breakLeftMs: number;
  /** Ends of opened sections that have a limit of their own. */
  readonly sectionEnds: Readonly<Record<string, number>>;
}

/** Sent with every answer of the server to a desk, so that the clock is corrected as one goes. */
export interface ServerTime {
  readonly now: number;
  readonly time: TimeView;
}

export interface SittingOpened extends ServerTime {
  readonly sitting: string;
  /** Of the copy of the paper that this sitting uses. */
  readonly paperHash: string;
  readonly desk: Desk;
}

export interface JournalBatch {
  readonly entries: readonly Entry[];
}

/** The end, said by the candidate or by the device at the deadline; `at` is when, in the server's time as known there. */
export interface HandInBody extends JournalBatch {
  readonly by: 'candidate' | 'time';
  readonly at: number;
}

export interface JournalKept extends ServerTime {
  /** The last seq of each device that is now durable. */
  readonly kept: readonly { readonly device: string; readonly seq: number }[];
  readonly closed: boolean;
}

export interface Receipt {
  readonly code: string;
  /** When it was closed; `arrivedAt` differs where it was handed in without a connection and came later. */
  readonly handedInAt: number;
  readonly arrivedAt: number | null;
  readonly usedMs: number;
  readonly closedBy: ClosedBy;
  readonly answered: number;
  readonly parts: number;
}

/** Who closed a sitting: the candidate, the device at the deadline, the server that heard nothing, or an invigilator. */
export type ClosedBy = 'candidate' | 'time' | 'server' | 'staff';
