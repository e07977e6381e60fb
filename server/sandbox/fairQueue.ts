interface Waiting<T> {
  readonly owner: string;
  readonly work: () => Promise<T>;
  readonly alone: boolean;
  readonly settle: (result: Promise<T>) => void;
}

/**
 * Work in slots, one owner after the other: somebody who has asked for sixty runs waits between them for everybody who
 * has asked for one.
 */
export class FairQueue {
  private readonly slots: number;
  /** In the order in which the owners come next. */
  private readonly owners = new Map<string, Waiting<unknown>[]>();
  private busy = 0;
  private aloneNow = false;
  /** Of everything so far. */
  private starts = 0;

  constructor(slots: number) {
    this.slots = slots;
  }

  get waiting(): number {
    return [...this.owners.values()].reduce((sum, own) => sum + own.length, 0);
  }

  /** How many owners come before this one; 0 where it waits for nothing. */
  before(owner: string): number {
    return Math.max(0, [...this.owners.keys()].indexOf(owner));
  }

  /** How many run now, and how many have been started: whether something had company follows from both. */
  get activity(): { readonly running: number; readonly starts: number } {
    return { running: this.busy, starts: this.starts };
  }

  /** With `alone` nothing else runs meanwhile. */
  add<T>(owner: string, work: () => Promise<T>, { alone = false } = {}): Promise<T> {
    return new Promise<T>((resolve) => {
      const own = this.owners.get(owner) ?? [];
      this.owners.set(owner, own);
      own.push({ owner, work, alone, settle: resolve as (result: Promise<unknown>) => void });
      this.next();
    });
  }

  private next(): void {
    while (this.busy < this.slots) {
      const [entry] = this.owners;
      if (!entry) return;
      const [owner, own] = entry;
      // Whoever is to run alone waits until the others have ended, and nobody begins before it.
      if (this.aloneNow || (own[0]!.alone && this.busy > 0)) return;
      const one = own.shift()!;
      // To the end of the line, or out of it.
      this.owners.delete(owner);
      if (own.length > 0) this.owners.set(owner, own);
      this.busy++;
      this.starts++;
      this.aloneNow = one.alone;
      const done = one.work();
      one.settle(done);
      void done
        .catch(() => undefined)
        .finally(() => {
          this.busy--;
          if (one.alone) this.aloneNow = false;
          this.next();
        });
    }
  }
}
