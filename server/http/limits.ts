import { MemoryStore, type Options } from 'express-rate-limit';
import { ApiError } from './errors';

const MINUTE_MS = 60_000;

/** Counts something by caller, and refuses what is more than `most` a minute. */
export function perMinute(most: number, key: string): (caller: string) => Promise<void> {
  const store = new MemoryStore();
  store.init({ windowMs: MINUTE_MS } as Options);
  return async (caller) => {
    const { totalHits } = await store.increment(caller);
    if (totalHits > most) throw new ApiError(429, 'too-many-tries', { key });
  };
}
