export const MINUTE_MS = 60_000;
/** Heads count when they arrive within this of an end. */
export const GRACE_MS = 2 * MINUTE_MS;
/** However much time was given back, this much of the grace is left. */
export const LEAST_GRACE_MS = MINUTE_MS / 2;
/** Entries announced in time count when their bytes arrive within this of an end. */
export const BYTES_MS = 12 * MINUTE_MS;
/** Bytes of pages that an answer names count so long after the end; later ones go before a coordinator. */
export const PAGES_MS = 30 * MINUTE_MS;
/** A device with a working line is heard of at least this often, with room for a stalled request. */
export const SILENCE_MS = 25_000;
/** Writing that ends at most this long after staff began a stop counts as written before it: the device did not know of the stop yet. */
export const STOP_ROOM_MS = 10_000;
/** At a closing by staff, writing may be claimed up to this much after it. */
export const STAFF_CLOSING_MS = 2000;

/** Time this candidate has, before grants and pauses. */
export const allowedMs = (limitMs: number, extraPercent: number): number =>
  Math.round(limitMs * (1 + extraPercent / 100));

/** Everybody is warned of the last minute, whatever else is asked for. */
const LAST_WARNING = 1;

/** All warnings of a paper, in minutes before the end, the earliest first. */
export const warningsOf = (minutes: readonly number[]): number[] =>
  [...new Set([...minutes, LAST_WARNING])].sort((a, b) => b - a);

/** Whether one of the warnings (minutes before the end) falls due when the time left shrinks from `beforeMs` to `nowMs`. */
export const warningsDue = (minutes: readonly number[], beforeMs: number, nowMs: number): boolean =>
  nowMs > 0 && warningsOf(minutes).some((m) => beforeMs > m * MINUTE_MS && nowMs <= m * MINUTE_MS);
