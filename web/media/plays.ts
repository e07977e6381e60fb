/** How often a recording may still be started here. */
export interface PlaysState {
  readonly allowed: number;
  /** Those that are left; the one that this device holds ready is among them. */
  readonly left: number;
  /** One can be started now, with or without a connection. */
  readonly ready: boolean;
  /** How many another device of this candidate holds ready. */
  readonly elsewhere: number;
  /** The last one was begun and not heard to its end. */
  readonly broken: boolean;
}

/** Who counts the plays of recordings that may be heard only so often. */
export interface PlayKeeper {
  stateOf(file: string, plays: number): PlaysState;
  /** Uses a play up, durably, before its sound starts; false where none is ready. */
  use(file: string): Promise<boolean>;
  /** The play that was used last is over: heard to its end, or broken off. */
  finish(file: string, heard: boolean): void;
  subscribe(listener: () => void): () => void;
}

/** Counts for as long as the page is open: in a rehearsal, and where staff look at a paper. */
export class TrialPlays implements PlayKeeper {
  private readonly used = new Map<string, number>();
  private readonly brokenOff = new Set<string>();
  private readonly listeners = new Set<() => void>();

  stateOf(file: string, plays: number): PlaysState {
    const left = Math.max(0, plays - (this.used.get(file) ?? 0));
    return { allowed: plays, left, ready: left > 0, elsewhere: 0, broken: this.brokenOff.has(file) };
  }

  use(file: string): Promise<boolean> {
    this.used.set(file, (this.used.get(file) ?? 0) + 1);
    this.brokenOff.delete(file);
    this.tell();
    return Promise.resolve(true);
  }

  finish(file: string, heard: boolean): void {
    if (!heard) this.brokenOff.add(file);
    this.tell();
  }

  subscribe(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}
