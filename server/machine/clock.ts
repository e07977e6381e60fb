/** Why the machine's clock is not believed, as things stand. */
export interface ClockDoubt {
  /** Server time at which it was found. */
  readonly since: number;
  /** How far the machine's clock is ahead of the server's time, in ms; negative where it is behind. */
  readonly aheadMs: number;
}

/** The one clock of the server. Everything that asks for the time asks this, so that tests can move it. */
export interface Clock {
  /** Milliseconds since 1970. */
  now(): number;
}

/** The clock of a running server, which may differ from its machine's. */
export interface ServerClock extends Clock {
  /** Null while the machine's clock and the server's time agree. */
  doubt(): ClockDoubt | null;
  /** Goes on with the machine's clock, because somebody who is responsible says that it is right. */
  believe(): void;
}

/** What the database says of the time when the server starts. */
export interface LastKnown {
  /** The time of the newest row; 0 where there is none. */
  readonly newest: number;
  /** Whether sittings are open: a wrong time would close them. */
  readonly open: boolean;
}

/** A step of the machine's clock that is taken as a correction, in ms. */
const CORRECTION_MS = 2000;
/** A server that was off for longer than this while sittings are open asks before it counts that time. */
const LONGEST_OFF_MS = 3_600_000;

interface Sources {
  /** The machine's clock, which somebody can set. */
  readonly wall: () => number;
  /** Time since some beginning, which nobody can set; it stands still while the machine is suspended. */
  readonly steady: () => number;
}

const sources: Sources = { wall: () => Date.now(), steady: () => performance.now() };

/**
 * The machine's clock as it was at the start, carried on by a steady clock. A jump of the machine's clock by more than two
 * seconds (it was set, or the machine was suspended) changes nothing until somebody believes it; smaller corrections are
 * followed. It never goes back by itself.
 */
export class SteadyClock implements ServerClock {
  private readonly sources: Sources;
  private base: number;
  private latest = -Infinity;
  private doubted: ClockDoubt | null = null;

  constructor(from: Partial<Sources> = {}) {
    this.sources = { ...sources, ...from };
    this.base = this.offset();
  }

  now(): number {
    return (this.latest = Math.max(this.latest, Math.floor(this.base + this.sources.steady())));
  }

  doubt(): ClockDoubt | null {
    return this.doubted;
  }

  believe(): void {
    this.base = this.offset();
    this.latest = -Infinity;
    this.doubted = null;
  }

  /** Compares with the machine's clock; gives whether something has changed. To be asked every second or so. */
  check(): boolean {
    const aheadMs = Math.round(this.offset() - this.base);
    if (Math.abs(aheadMs) <= CORRECTION_MS) {
      this.base += aheadMs;
      const changed = this.doubted !== null;
      this.doubted = null;
      return changed;
    }
    const before = this.doubted;
    this.doubted = { since: before?.since ?? this.now(), aheadMs };
    return before === null || Math.abs(before.aheadMs - aheadMs) > CORRECTION_MS;
  }

  /**
   * At a start: a machine's clock that is behind the newest row, or more than an hour ahead of it while sittings are open,
   * is not believed. The time goes on from the newest row.
   */
  startFrom({ newest, open }: LastKnown): void {
    const wall = this.sources.wall();
    const isBehind = wall < newest - CORRECTION_MS;
    const isFarAhead = open && newest > 0 && wall > newest + LONGEST_OFF_MS;
    if (!isBehind && !isFarAhead) return;
    this.base = newest - this.sources.steady();
    this.latest = -Infinity;
    this.check();
  }

  private offset(): number {
    return this.sources.wall() - this.sources.steady();
  }
}

/** Believes the machine without a question: for programs beside the server. */
export const systemClock: Clock = { now: () => Date.now() };

/** A clock that tests move. */
export class MovableClock implements ServerClock {
  private shiftMs = 0;
  private aheadMs = 0;

  now(): number {
    return Date.now() + this.shiftMs;
  }

  advance(ms: number): void {
    this.shiftMs += ms;
  }

  /** As if the machine's clock had jumped; 0 as if it were back. */
  jump(aheadMs: number): void {
    this.aheadMs = aheadMs;
  }

  doubt(): ClockDoubt | null {
    return this.aheadMs === 0 ? null : { since: this.now(), aheadMs: this.aheadMs };
  }

  believe(): void {
    this.shiftMs += this.aheadMs;
    this.aheadMs = 0;
  }
}

export interface HasClock {
  readonly clock: ServerClock;
}
