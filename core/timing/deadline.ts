export const MINUTE_MS = 60_000;
/** Entries made before the deadline count when they arrive within this of it. */
export const GRACE_MS = 2 * MINUTE_MS;

/** Time this candidate has, before grants and pauses. */
export const allowedMs = (limitMs: number, extraPercent: number): number =>
  Math.round(limitMs * (1 + extraPercent / 100));

/** Warnings (minutes before the end) that fall due when the time left shrinks from `beforeMs` to `nowMs`. */
export const warningsDue = (minutes: readonly number[], beforeMs: number, nowMs: number): number[] =>
  minutes.filter((m) => beforeMs > m * MINUTE_MS && nowMs <= m * MINUTE_MS && nowMs > 0);
