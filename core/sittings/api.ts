import type { Entry } from '../journal/entry';
import type { Desk } from '../journal/fold';

/** Sent with every answer of the server to a desk, so that the clock is corrected as one goes. */
export interface ServerTime {
  readonly now: number;
  readonly deadlineAt: number;
}

export interface SittingOpened extends ServerTime {
  readonly sitting: string;
  readonly startedAt: number;
  /** Of the copy of the paper that this sitting uses. */
  readonly paperHash: string;
  readonly desk: Desk;
}

export interface JournalBatch {
  readonly entries: readonly Entry[];
}

export interface JournalKept extends ServerTime {
  /** The last seq of each device that is now durable. */
  readonly kept: readonly { readonly device: string; readonly seq: number }[];
  readonly closed: boolean;
}

export interface Receipt {
  readonly code: string;
  readonly handedInAt: number;
  readonly usedMs: number;
  readonly closedBy: ClosedBy;
  readonly answered: number;
  readonly parts: number;
}

/** Who closed a sitting: the candidate, the device at the deadline, or the server that heard nothing. */
export type ClosedBy = 'candidate' | 'time' | 'server';
