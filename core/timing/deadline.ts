import type { Standing } from '../journal/entry';

/** Times of one sitting, in the server's milliseconds since 1970. */
export interface SittingTimes {
  readonly startedAt: number;
  readonly limitMs: number;
  /** Extra time by arrangement: 25 is a quarter more. */
  readonly extraPercent: number;
  readonly grantedMs: number;
  readonly pausedMs: number;
}

export const MINUTE_MS = 60_000;
/** Entries made before the deadline count when they arrive within this of it. */
export const GRACE_MS = 2 * MINUTE_MS;

/** Time this candidate has, before grants and pauses. */
export const allowedMs = (limitMs: number, extraPercent: number): number =>
  Math.round(limitMs * (1 + extraPercent / 100));

/** `start + limit × (1 + extra) + granted + paused`. Source: `2-domain.md`, “Time”. */
export const deadlineOf = (times: SittingTimes): number =>
  times.startedAt + allowedMs(times.limitMs, times.extraPercent) + times.grantedMs + times.pausedMs;

/** `closedAt` is null while the sitting runs; `handedIn` when a person closed it rather than the time. */
export interface Arrival {
  readonly deadlineAt: number;
  readonly closedAt: number | null;
  readonly handedIn: boolean;
  readonly madeAt: number;
  readonly arrivedAt: number;
}

/** Where an arriving entry stands. Nothing is thrown away; what is not counted is kept. */
export function standingOf({ deadlineAt, closedAt, handedIn, madeAt, arrivedAt }: Arrival): Standing {
  if (closedAt !== null && handedIn)
    return madeAt <= closedAt && arrivedAt <= closedAt ? 'in-time' : 'after-time';
  if (arrivedAt <= deadlineAt) return 'in-time';
  if (madeAt > deadlineAt) return 'after-time';
  return arrivedAt <= deadlineAt + GRACE_MS ? 'late' : 'waiting';
}

/** Warnings (minutes before the end) that fall due when the time left shrinks from `beforeMs` to `nowMs`. */
export const warningsDue = (minutes: readonly number[], beforeMs: number, nowMs: number): number[] =>
  minutes.filter((m) => beforeMs > m * MINUTE_MS && nowMs <= m * MINUTE_MS && nowMs > 0);
