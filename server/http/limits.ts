import type { Request } from 'express';
import { ipKeyGenerator, MemoryStore, type Options } from 'express-rate-limit';
import { ApiError } from './errors';

const MINUTE_MS = 60_000;

function countIn(windowMs: number): MemoryStore {
  const store = new MemoryStore();
  store.init({ windowMs } as Options);
  return store;
}

/** How long a network is of which one person may have every address (IPv6, RFC 6177). */
const IPV6_PREFIX = 64;

/** Where a request comes from, for counting: the address, of IPv6 its network. */
export const networkOf = ({ ip = '' }: Pick<Request, 'ip'>): string => ipKeyGenerator(ip, IPV6_PREFIX);

const refused = (key: string) => new ApiError(429, 'too-many-tries', { key });

/** Counts something by caller, and refuses what is more than `most` a minute. */
export function perMinute(most: number, key: string): (caller: string) => Promise<void> {
  const store = countIn(MINUTE_MS);
  return async (caller) => {
    const { totalHits } = await store.increment(caller);
    if (totalHits > most) throw refused(key);
  };
}

/** Lets only a few pieces of costly work run at once and only so many wait; refuses the rest, to be tried again. */
export class Gate {
  private readonly atOnce: number;
  private readonly mostWaiting: number;
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(atOnce: number, mostWaiting: number) {
    this.atOnce = atOnce;
    this.mostWaiting = mostWaiting;
  }

  async run<T>(work: () => Promise<T>): Promise<T> {
    if (this.running < this.atOnce) this.running += 1;
    else if (this.waiting.length >= this.mostWaiting) throw new ApiError(503, 'busy');
    // Whoever ends gives their place to anyone who has waited longest.
    else await new Promise<void>((go) => this.waiting.push(go));
    try {
      return await work();
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.running -= 1;
    }
  }
}
