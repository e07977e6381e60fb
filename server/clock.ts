/** The one clock of the server. Everything that asks for the time asks this, so that tests can move it. */
export interface Clock {
  now(): number;
}

export const systemClock: Clock = { now: () => Date.now() };

export class MovableClock implements Clock {
  private shiftMs = 0;
  now(): number {
    return Date.now() + this.shiftMs;
  }
  advance(ms: number): void {
    this.shiftMs += ms;
  }
}
