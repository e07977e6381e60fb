import { BYTES_MS } from '../timing/deadline';
import type { SittingTime } from '../timing/sittingTime';

/** What a sitting has written into the journal: entries and heads as rows, and the entries' text in bytes of UTF-8. */
export interface Amount {
  readonly rows: number;
  readonly bytes: number;
}

/**
 * What may come at once, and for every second since the start. The fastest typist makes an entry and a head a second;
 * in an essay of 3,000 words (60 kB with its formatting) a whole value after every fifty entries is 1.2 kB a second, and
 * the patches are 0.3 kB. The rate is above three times as much, so that a device that was offline all the time can send
 * everything it holds.
 */
export const ALLOWED = {
  burst: { rows: 4000, bytes: 8 * 1024 * 1024 },
  aSecond: { rows: 8, bytes: 8 * 1024 },
} as const;

/** What a sitting may have written by `now` (ms); the allowance stops growing when nothing that comes can count. */
export function allowedBy({ startedAt, closed }: SittingTime, now: number): Amount {
  const until = closed ? Math.min(now, closed.at + BYTES_MS) : now;
  const seconds = Math.max(0, until - (startedAt ?? until)) / 1000;
  return {
    rows: ALLOWED.burst.rows + Math.floor(ALLOWED.aSecond.rows * seconds),
    bytes: ALLOWED.burst.bytes + Math.floor(ALLOWED.aSecond.bytes * seconds),
  };
}

export const isWithin = (amount: Amount, most: Amount): boolean =>
  amount.rows <= most.rows && amount.bytes <= most.bytes;
