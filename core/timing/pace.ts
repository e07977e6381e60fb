import { MINUTE_MS } from './deadline';

export interface PacedQuestion {
  readonly minutes: number;
}

/** A place on the rail: question `index` and how far into it (0..1). */
export interface PacePoint {
  readonly index: number;
  readonly within: number;
}

/**
 * Where a candidate ought to be after `share` (0..1) of the time: the questions' minutes laid end to end.
 */
export function pacePoint(questions: readonly PacedQuestion[], share: number): PacePoint {
  const all = questions.reduce((sum, q) => sum + q.minutes, 0);
  let left = Math.min(Math.max(share, 0), 1) * all;
  for (const [index, { minutes }] of questions.entries()) {
    if (left < minutes) return { index, within: minutes > 0 ? left / minutes : 0 };
    left -= minutes;
  }
  return { index: Math.max(questions.length - 1, 0), within: 1 };
}

/**
 * The time left for each mark that is open, as “1 min 10 s”, rounded to ten seconds; empty below that, null when nothing
 * is open or no time is left.
 */
export function pacePerMark(leftMs: number, openHundredths: number): string | null {
  if (openHundredths <= 0 || leftMs <= 0) return null;
  const seconds = Math.round(leftMs / 1000 / (openHundredths / 100) / 10) * 10;
  const [minutes, rest] = [Math.floor(seconds / 60), seconds % 60];
  const parts = [minutes > 0 ? `${minutes} min` : '', rest > 0 ? `${rest} s` : ''].filter(Boolean);
  return parts.join(' ');
}

/** A length of time as the clock shows it: `47:12`, `1:15:00`. Counts the running second as whole. */
export function showClock(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000));
  const pad = (n: number) => String(n).padStart(2, '0');
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return h > 0 ? `${h}:${pad(m)}:${pad(s)}` : `${m}:${pad(s)}`;
}

/** A length of time in words: `1 h 15 min`, `60 min`. */
export function showLength(ms: number): string {
  const minutes = Math.round(ms / MINUTE_MS);
  if (minutes <= 60) return `${minutes} min`;
  return minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}
