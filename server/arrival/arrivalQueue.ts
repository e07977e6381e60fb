import type { QueuePlace } from '../../core/arrival/api';
import type { LoopScheduler } from '../machine/loopScheduler';

/** How many people are let in within a second: on a server with time, and on one that has none. */
const MOST_A_SECOND = 150;
const LEAST_A_SECOND = 5;
/** With so many requests waiting to be begun the server has no time for more people. */
const LONG_BACKLOG = 20;
/** So many may come at once, as when a room full of people opens its links. */
const BURST = 150;
/** How often the pace follows the backlog, how fast it falls while that is long, and how it rises again. */
const LOOK_MS = 250;
const FALL = 0.85;
const RISE = 3;
/** Whoever has not asked for so long has gone away, and is not waited for. */
const GONE_MS = 60_000;
/** Whoever was let in may load the page again for so long. */
const STAYS_MS = 30 * 60_000;
const KEPT = 50_000;

interface Waiting {
  readonly invitation: number;
  askedAt: number;
}

/**
 * Lets people in no faster than the server can take them, in the order in which they came; the others are told their place
 * and about how long it takes. No clock runs for anybody here: who sits a test is never asked to wait.
 */
export class ArrivalQueue {
  private readonly scheduler: Pick<LoopScheduler, 'backlog'>;
  private readonly waiting = new Map<number, Waiting>();
  /** When whom was let in. */
  private readonly inside = new Map<number, number>();
  private rate = MOST_A_SECOND;
  private free = BURST;
  private lookedAt: number | null = null;

  constructor(scheduler: Pick<LoopScheduler, 'backlog'>) {
    this.scheduler = scheduler;
  }

  /** Where somebody stands in the queue; null where they may come in. `now` is any steady clock, in ms. */
  ask(invitation: number, now: number): QueuePlace | null {
    this.letIn(now);
    const since = this.inside.get(invitation);
    if (since !== undefined && now - since < STAYS_MS) return null;
    const known = this.waiting.get(invitation);
    if (known) known.askedAt = now;
    else if (this.waiting.size === 0 && this.free >= 1) {
      this.free -= 1;
      this.enter(invitation, now);
      return null;
    } else this.waiting.set(invitation, { invitation, askedAt: now });
    const place = [...this.waiting.keys()].indexOf(invitation) + 1;
    return { place, seconds: Math.ceil(place / this.rate) };
  }

  private enter(invitation: number, now: number): void {
    if (this.inside.size >= KEPT) this.inside.clear();
    this.inside.set(invitation, now);
  }

  /** Follows the backlog, and lets in whose turn it is. */
  private letIn(now: number): void {
    this.lookedAt ??= now;
    const looks = Math.floor((now - this.lookedAt) / LOOK_MS);
    if (looks === 0) return;
    this.lookedAt += looks * LOOK_MS;
    this.rate =
      this.scheduler.backlog >= LONG_BACKLOG
        ? Math.max(LEAST_A_SECOND, this.rate * FALL)
        : Math.min(MOST_A_SECOND, this.rate + RISE * Math.min(looks, MOST_A_SECOND));
    this.free = Math.min(BURST, this.free + (this.rate * looks * LOOK_MS) / 1000);
    for (const { invitation, askedAt } of this.waiting.values()) {
      if (this.free < 1) break;
      this.waiting.delete(invitation);
      if (now - askedAt >= GONE_MS) continue;
      this.free -= 1;
      this.enter(invitation, now);
    }
  }
}
