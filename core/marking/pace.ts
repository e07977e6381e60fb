/** A break longer than this is none of the work: marks an hour count the time that somebody marked. */
export const LONGEST_BREAK_MS = 15 * 60_000;
const HOUR_MS = 3_600_000;

/**
 * Marks an hour of somebody who gave them at these times (ms): of the time between marks, without breaks of more than a
 * quarter of an hour. Null while there are not two marks in one spell of work.
 */
export function marksAnHour(times: readonly number[]): number | null {
  const inOrder = [...times].sort((a, b) => a - b);
  const gaps = inOrder.slice(1).map((at, i) => at - inOrder[i]!);
  const worked = gaps.filter((gap) => gap <= LONGEST_BREAK_MS);
  const ms = worked.reduce((sum, gap) => sum + gap, 0);
  return ms > 0 ? (worked.length * HOUR_MS) / ms : null;
}

/**
 * When the rest will be done at the present pace: as many a day as since the first mark, or in the last seven days if it
 * was earlier. Null where nothing was marked yet, or nothing is left.
 */
export function finishAt(times: readonly number[], left: number, now: number): number | null {
  if (left === 0 || times.length === 0) return null;
  const from = Math.max(Math.min(...times), now - 7 * 24 * HOUR_MS);
  const count = times.filter((at) => at >= from).length;
  if (count === 0) return null;
  // What was marked within the first hour would promise too much.
  const took = Math.max(now - from, HOUR_MS);
  return Math.round(now + (left * took) / count);
}
