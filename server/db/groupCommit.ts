import type { Db } from './open';

/**
 * What follows a commit sooner than this waits for the next one: a commit stops the thread for as long as the disk takes,
 * and one for each of a few hundred writes a second would leave little room for anything else. Milliseconds.
 */
const APART_MS = 4;

interface Waiting {
  readonly work: () => void;
  readonly settle: () => void;
  readonly fail: (error: unknown) => void;
}

/**
 * Group commit: what requests of the same moment want to write goes into one transaction with one FULL commit, and only
 * then is any of it acknowledged. A piece of work that throws takes back only itself.
 */
export class GroupCommit {
  private readonly db: Db;
  private readonly listeners: (() => void)[] = [];
  private waiting: Waiting[] = [];
  private lastAt = -Infinity;
  /** Made once: a transaction made for every piece of work costs as much as the work. */
  private readonly inTransaction: (work: () => void) => void;

  constructor(db: Db) {
    this.db = db;
    this.inTransaction = db.$client.transaction((work: () => void) => work());
  }

  /** To be told when something was taken back: what is remembered of it elsewhere no longer holds. */
  onTakenBack(forget: () => void): void {
    this.listeners.push(forget);
  }

  private takenBack(): void {
    for (const forget of this.listeners) forget();
  }

  /** Does the work with that of others; resolves once it is durable. */
  run<T>(work: () => T): Promise<T> {
    return new Promise((resolve, reject) => {
      if (this.waiting.length === 0) this.commitSoon();
      let result: T;
      this.waiting.push({ work: () => (result = work()), settle: () => resolve(result), fail: reject });
    });
  }

  private commitSoon(): void {
    const since = performance.now() - this.lastAt;
    if (since >= APART_MS) setImmediate(() => this.commit());
    else setTimeout(() => this.commit(), APART_MS - since);
  }

  private commit(): void {
    const group = this.waiting;
    this.waiting = [];
    const done: Waiting[] = [];
    try {
      this.inTransaction(() => {
        for (const one of group)
          try {
            this.inTransaction(one.work);
            done.push(one);
          } catch (error) {
            // Without room on the disk SQLite has taken the whole transaction back already.
            if (!this.db.$client.inTransaction) throw error;
            this.takenBack();
            one.fail(error);
          }
      });
    } catch (error) {
      this.takenBack();
      for (const { fail } of group) fail(error);
      return;
    } finally {
      this.lastAt = performance.now();
    }
    for (const { settle } of done) settle();
  }
}
