/** How long a device may wait from one request to the next save while the server has time for it, in ms. */
export const SAVE_MS = 10_000;
/** The longest such wait, on a busy server: well below a silence (`SILENCE_MS`), so that none arises from it. */
export const SLOWEST_SAVE_MS = 15_000;
/** From here on to the end a device never waits longer than `SAVE_MS`. */
export const LAST_MINUTES_MS = 120_000;
/** The share of the thread's time in use from which devices are asked to wait longer. */
const BUSY = 0.7;

/**
 * How long devices may wait until their next save, in ms.
 *
 * @param utilization the share of the server's thread that is in use, 0 to 1
 * @param usualMs the wait while the thread is used less than 70 %; it grows evenly to one and a half times as long at 100 %
 */
export function saveWaitMs(utilization: number, usualMs = SAVE_MS): number {
  const over = Math.min(1, Math.max(0, (utilization - BUSY) / (1 - BUSY)));
  return Math.round(usualMs * (1 + (over * (SLOWEST_SAVE_MS - SAVE_MS)) / SAVE_MS));
}

/**
 * How much of such a wait a device uses, in ms: none of it goes across the beginning of the last minutes, and in them it is
 * the usual one at the most.
 *
 * @param leftMs time left until the end; null where the clock stands still
 */
export function savePauseMs(waitMs: number, leftMs: number | null): number {
  if (leftMs === null) return waitMs;
  const untilLast = leftMs - LAST_MINUTES_MS;
  return untilLast > 0 ? Math.min(waitMs, untilLast) : Math.min(waitMs, SAVE_MS);
}
