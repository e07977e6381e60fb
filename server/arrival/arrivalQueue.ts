import type { QueuePlace } from '../../core/arrival/api';

/** How many people are let in within a second: on a server with time, and on one that has none. */
const MOST_A_SECOND = 150;
const LEAST_A_SECOND = 5;
/** So many may come at once, as when a room full of people opens its links. */
const BURST = 150;
/** How often the pace follows the load, how fast it falls while the server has no time, and how it rises again. */
const LOOK_MS = 250;
const FALL = 0.85;
const RISE = 3;
/** Whoever has not asked for so long has gone away, and is not waited for: twice as long as a page waits to ask again. */
const GONE_MS = 120_000;
/** Whoever was let in may load the page again for so long. */
const STAYS_MS = 30 * 60_000;
const KEPT = 50_000;

interface Waiting {
  /** Counted from 0 in the order in which people came. */
  readonly number: number;
  askedAt: number;
}

/**
 * Lets people in no faster than the server can take them, in the order in which they came; the others are told their place
 * and about how long it takes. No clock runs for anybody here: who sits a test is never asked to wait.
 */
export class ArrivalQueue {
  private readonly hasNoTime: () => boolean;
  /** By link, in the order in which they came. */
  private readonly waiting = new Map<string, Waiting>();
  /** When which link was let in. */
  private readonly inside = new Map<string, number>();
  private came = 0;
  private rate = MOST_A_SECOND;
  private free = BURST;
  private lookedAt: number | null = null;

  /** `hasNoTime`: whether people who are in wait for the server now. */
  constructor(hasNoTime: () => boolean) {
    this.hasNoTime = hasNoTime;
  }

  /** Whether a link waits here already: then nothing else has to be looked up for it. */
  isWaiting(link: string): boolean {
    return this.waiting.has(link);
  }

  /** Where somebody stands in the queue; null where they may come in. `now` is any steady clock, in ms. */
  ask(link: string, now: number): QueuePlace | null {
    this.letIn(now);
    const since = this.inside.get(link);
    if (since !== undefined && now - since < STAYS_MS) return null;
    const known = this.waiting.get(link);
    if (known) known.askedAt = now;
    else if (this.waiting.size === 0 && this.free >= 1) {
      this.free -= 1;
      this.enter(link, now);
      return null;
    } else this.waiting.set(link, { number: this.came++, askedAt: now });
    const first = this.waiting.values().next().value!.number;
    const place = this.waiting.get(link)!.number - first + 1;
    return { place, seconds: Math.ceil(place / this.rate) };
  }

  private enter(link: string, now: number): void {
    if (this.inside.size >= KEPT) this.inside.clear();
    this.inside.set(link, now);
  }

  /** Follows the load, and lets in whose turn it is. */
  private letIn(now: number): void {
    this.lookedAt ??= now;
    const looks = Math.floor((now - this.lookedAt) / LOOK_MS);
    if (looks === 0) return;
    this.lookedAt += looks * LOOK_MS;
    this.rate = this.hasNoTime()
      ? Math.max(LEAST_A_SECOND, this.rate * FALL)
      : Math.min(MOST_A_SECOND, this.rate + RISE * Math.min(looks, MOST_A_SECOND));
    this.free = Math.min(BURST, this.free + (this.rate * looks * LOOK_MS) / 1000);
    for (const [link, { askedAt }] of this.waiting) {
      if (this.free < 1) break;
      this.waiting.delete(link);
      if (now - askedAt >= GONE_MS) continue;
      this.free -= 1;
      this.enter(link, now);
    }
  }
}
