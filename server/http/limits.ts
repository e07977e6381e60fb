import { MemoryStore, type Options } from 'express-rate-limit';
import { ApiError } from './errors';

const MINUTE_MS = 60_000;

function countIn(windowMs: number): MemoryStore {
  const store = new MemoryStore();
  store.init({ windowMs } as Options);
  return store;
}

const refused = (key: string) => new ApiError(429, 'too-many-tries', { key });

/** Counts something by caller, and refuses what is more than `most` a minute. */
export function perMinute(most: number, key: string): (caller: string) => Promise<void> {
  const store = countIn(MINUTE_MS);
  return async (caller) => {
    const { totalHits } = await store.increment(caller);
    if (totalHits > most) throw refused(key);
  };
}

interface Most {
  /** Failures of one caller at one account. */
  readonly atOne: number;
  /** Failures of one caller in all. */
  readonly inAll: number;
  readonly windowMs: number;
}

/**
 * Counts failures by caller and account together, and by caller alone: nobody can lock somebody else out of an account
 * by failing at it, and nobody can try a few passwords at each of many accounts.
 */
export class FailureLimit {
  private readonly most: Most;
  private readonly key: string;
  private readonly atOne: MemoryStore;
  private readonly inAll: MemoryStore;

  constructor(most: Most, key: string) {
    this.most = most;
    this.key = key;
    this.atOne = countIn(most.windowMs);
    this.inAll = countIn(most.windowMs);
  }

  /**
   * Counts a try before it is made, so that many at once do not slip through; `succeeded` takes it back. Throws where
   * this caller has failed too often.
   */
  async count(caller: string, account: string): Promise<void> {
    const [one, all] = await Promise.all([
      this.atOne.increment(`${caller} ${account}`),
      this.inAll.increment(caller),
    ]);
    if (one.totalHits > this.most.atOne || all.totalHits > this.most.inAll) throw refused(this.key);
  }

  async succeeded(caller: string, account: string): Promise<void> {
    await Promise.all([this.atOne.decrement(`${caller} ${account}`), this.inAll.decrement(caller)]);
  }
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
    // Whoever ends gives their place to whoever has waited longest.
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
