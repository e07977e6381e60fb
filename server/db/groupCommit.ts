import type { Db } from './open';

/**
 * What follows a commit sooner than this waits for the next one: a commit stops the thread for as long as the disk takes,
 * and one for each of a few hundred writes a second would leave little room for anything else. Milliseconds.
 */
const APART_MS = 10;
/** How long one transaction takes up what is saved, and then what others write: all in it wait for its end. */
const SAVING_MS = 30;
const OTHERS_MS = 8;

interface Waiting {
  readonly work: () => void;
  readonly settle: () => void;
  readonly fail: (error: unknown) => void;
}

/**
 * Group commit: what requests of the same moment want to write goes into one transaction with one FULL commit, and only
 * then is any of it acknowledged. A piece of work that throws takes back only itself. What those write who sit a test
 * now goes before everything else; what finds no room in a transaction comes into the next one.
 */
export class GroupCommit {
  private readonly db: Db;
  private readonly listeners: (() => void)[] = [];
  private readonly outcomes: ((error: unknown) => void)[] = [];
  private wellAt = -Infinity;
  private readonly saving: Waiting[] = [];
  private readonly others: Waiting[] = [];
  private isDue = false;
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

  /** To be told how each commit went; null where it went well. */
  onOutcome(tell: (error: unknown) => void): void {
    this.outcomes.push(tell);
  }

  /** How long ago a commit last went well, in ms. */
  wellSinceMs(): number {
    return performance.now() - this.wellAt;
  }

  private outcome(error: unknown): void {
    if (error === null) this.wellAt = performance.now();
    for (const tell of this.outcomes) tell(error);
  }

  private takenBack(): void {
    for (const forget of this.listeners) forget();
  }

  /** Does the work with that of others; resolves once it is durable. */
  run<T>(work: () => T): Promise<T> {
    return this.wait(this.others, work);
  }

  /** As `run`, for the work of those who sit a test now. */
  save<T>(work: () => T): Promise<T> {
    return this.wait(this.saving, work);
  }

  private wait<T>(line: Waiting[], work: () => T): Promise<T> {
    return new Promise((resolve, reject) => {
      let result: T;
      line.push({ work: () => (result = work()), settle: () => resolve(result), fail: reject });
      this.commitSoon();
    });
  }

  private commitSoon(): void {
    if (this.isDue) return;
    this.isDue = true;
    const since = performance.now() - this.lastAt;
    if (since >= APART_MS) setImmediate(() => this.commit());
    else setTimeout(() => this.commit(), APART_MS - since);
  }

  private commit(): void {
    const taken: Waiting[] = [];
    const done: Waiting[] = [];
    try {
      this.inTransaction(() => {
        this.take(this.saving, SAVING_MS, taken, done);
        this.take(this.others, OTHERS_MS, taken, done);
      });
    } catch (error) {
      this.takenBack();
      // Where not even a transaction could begin, nothing was taken up: whoever waits is told, and tries again.
      const failed = taken.length > 0 ? taken : [...this.saving.splice(0), ...this.others.splice(0)];
      this.outcome(error);
      for (const { fail } of failed) fail(error);
      return;
    } finally {
      this.lastAt = performance.now();
      this.isDue = false;
      if (this.saving.length + this.others.length > 0) this.commitSoon();
    }
    if (done.length > 0) this.outcome(null);
    for (const { settle } of done) settle();
  }

  /** Does what waits in a line, at least the first of it, until the time is over. */
  private take(line: Waiting[], ms: number, taken: Waiting[], done: Waiting[]): void {
    const until = performance.now() + ms;
    let count = 0;
    try {
      while (count < line.length && (count === 0 || performance.now() < until)) {
        const one = line[count++]!;
        taken.push(one);
        this.doOne(one, done);
      }
    } finally {
      line.splice(0, count);
    }
  }

  private doOne(one: Waiting, done: Waiting[]): void {
    try {
      this.inTransaction(one.work);
      done.push(one);
    } catch (error) {
      // Without room on the disk SQLite has taken the whole transaction back already.
      if (!this.db.$client.inTransaction) throw error;
      this.takenBack();
      one.fail(error);
    }
  }
}

export interface HasCommits {
  readonly commits: GroupCommit;
}
