/** Failures are forgotten so long after the last one. */
const WINDOW_MS = 15 * 60_000;
const FIRST_DELAY_MS = 1_000;
export const LONGEST_DELAY_MS = 30_000;
const KEPT = 20_000;

interface Known {
  failures: number;
  lastAt: number;
  /** When the next try may be made. */
  nextAt: number;
}

/**
 * Slows down whoever fails again and again: after some free tries each one waits, from 1 s to 30 s, twice as long as the one
 * before it. Nobody is ever locked out. A try is counted before it is made, so that many at once wait one behind the other.
 */
export class SlowDown {
  private readonly free: number;
  private readonly known = new Map<string, Known>();

  /** `free`: how many failures cost nothing. */
  constructor(free: number) {
    this.free = free;
  }

  private find(key: string, now: number): Known {
    const found = this.known.get(key);
    if (found && now - found.lastAt < WINDOW_MS) return found;
    if (this.known.size >= KEPT) this.forgetOld(now);
    const made = { failures: 0, lastAt: now, nextAt: now };
    this.known.set(key, made);
    return made;
  }

  private forgetOld(now: number): void {
    for (const [key, one] of this.known) if (now - one.lastAt >= WINDOW_MS) this.known.delete(key);
    // All of them are recent: the oldest goes.
    const [oldest] = this.known.keys();
    if (this.known.size >= KEPT) this.known.delete(oldest!);
  }

  /** How long somebody who has failed so often waits. */
  private delayAfter(failures: number): number {
    if (failures < this.free) return 0;
    return Math.min(LONGEST_DELAY_MS, FIRST_DELAY_MS * 2 ** (failures - this.free));
  }

  /** What a try would wait, behind those of the same key before it. */
  queued(key: string, now: number): number {
    const { failures, nextAt } = this.find(key, now);
    return Math.max(0, nextAt - now) + this.delayAfter(failures);
  }

  /** What a try would wait by its failures alone. */
  delay(key: string, now: number): number {
    return this.delayAfter(this.find(key, now).failures);
  }

  /** Counts a try that is made after `waitMs`. */
  count(key: string, now: number, waitMs: number): void {
    const one = this.find(key, now);
    one.failures += 1;
    one.lastAt = now;
    one.nextAt = Math.max(one.nextAt, now + waitMs);
  }

  /** Takes a try back that was none: it succeeded. */
  takeBack(key: string, now: number): void {
    const one = this.find(key, now);
    one.failures = Math.max(0, one.failures - 1);
  }
}
