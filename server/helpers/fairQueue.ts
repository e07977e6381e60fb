/**
 * A queue that gives turns by owner: each owner's work is done in its order, and whoever asks for a lot waits behind those
 * who ask for little.
 */
export class FairQueue<T> {
  private readonly byOwner = new Map<string, T[]>();
  private count = 0;
  /** Who had the last turn; they may have asked again since. */
  private last: string | null = null;

  get length(): number {
    return this.count;
  }

  add(owner: string, one: T): void {
    const own = this.byOwner.get(owner);
    if (own) own.push(one);
    else this.byOwner.set(owner, [one]);
    this.count += 1;
  }

  /** The oldest of the owner whose turn it is; their next one comes after everybody else's. */
  next(): T | undefined {
    const owners = [...this.byOwner.keys()];
    const owner = owners.find((one) => one !== this.last) ?? owners[0];
    if (owner === undefined) return undefined;
    const own = this.byOwner.get(owner)!;
    const one = own.shift()!;
    this.byOwner.delete(owner);
    if (own.length > 0) this.byOwner.set(owner, own);
    this.count -= 1;
    this.last = owner;
    return one;
  }

  /** Takes out everything that waits. */
  clear(): T[] {
    const all = [...this.byOwner.values()].flat();
    this.byOwner.clear();
    this.count = 0;
    return all;
  }
}
