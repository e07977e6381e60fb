import { orOnline } from './orOnline';
import { retryAfterMs } from './retryAfterMs';

const TRIES = 4;

/** Asks up to four times, within some seven seconds: a line that is cut for a moment must take nothing away. */
export async function withRetries<T>(ask: () => Promise<T>): Promise<T> {
  for (let failures = 1; ; failures++)
    try {
      return await ask();
    } catch (error) {
      if (failures === TRIES) throw error;
      await orOnline(retryAfterMs(failures, Math.random()));
    }
}
