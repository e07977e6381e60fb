/** What requests may do in one turn of the event loop, and what else may be done in it when they leave room. */
const REQUESTS_MS = 4;
const BETWEEN_MS = 2;
/** What may be done in a turn while people come in. */
const AT_THE_DOOR_MS = 2;
/** What other requests may do in a turn however much is saved, so that nobody waits for ever. */
const LEAST_MS = 0.5;

class Line {
  private waiting: (() => void)[] = [];

  get empty(): boolean {
    return this.waiting.length === 0;
  }

  get length(): number {
    return this.waiting.length;
  }

  join(work: () => void): void {
    this.waiting.push(work);
  }

  /** Does one piece after the other, until the time is over or nothing is left. */
  workFor(ms: number): void {
    const until = performance.now() + ms;
    let done = 0;
    while (done < this.waiting.length && performance.now() < until) this.waiting[done++]!();
    this.waiting = this.waiting.slice(done);
  }
}

/**
 * Keeps the turns of the event loop short, whatever comes at once, and shorter still while people come in. The loop
 * takes up one new connection a turn (libuv since 1.45): in a rush, turns that do all there is to do would leave those
 * waiting for a minute who open their links.
 */
export class LoopScheduler {
  /** A connection was taken up in this turn: more may wait behind it. */
  private newConnection = false;
  private readonly saving = new Line();
  private readonly requests = new Line();
  private readonly rest = new Line();

  /** The work of those who sit a test now: before everybody else's, and before those who only come in. */
  save<T>(work: () => T | Promise<T>): Promise<T> {
    return this.wait(this.saving, work);
  }

  /** The work of any other request: begun as soon as there is room, in the order in which they came. */
  request<T>(work: () => T | Promise<T>): Promise<T> {
    return this.wait(this.requests, work);
  }

  /** What thousands may want in the same moment and nobody waits for with a finger on a key: views that are told. */
  inBetween<T>(work: () => T): Promise<T> {
    return this.wait(this.rest, work);
  }

  /** How many requests wait to be begun. */
  get backlog(): number {
    return this.saving.length + this.requests.length;
  }

  private get idle(): boolean {
    return this.saving.empty && this.requests.empty && this.rest.empty;
  }

  private wait<T>(line: Line, work: () => T | Promise<T>): Promise<T> {
    return new Promise((resolve, reject) => {
      if (this.idle) setImmediate(() => this.turn());
      line.join(() => {
        try {
          resolve(work());
        } catch (error) {
          reject(error instanceof Error ? error : new Error(String(error)));
        }
      });
    });
  }

  /** To be told of every new connection. */
  noteConnection(): void {
    this.newConnection = true;
  }

  private turn(): void {
    const rush = this.newConnection;
    this.newConnection = false;
    const until = performance.now() + (rush ? AT_THE_DOOR_MS : REQUESTS_MS);
    this.saving.workFor(until - performance.now());
    this.requests.workFor(Math.max(until - performance.now(), LEAST_MS));
    if (this.saving.empty && this.requests.empty) this.rest.workFor(rush ? AT_THE_DOOR_MS : BETWEEN_MS);
    if (!this.idle) setImmediate(() => this.turn());
  }
}

export interface HasScheduler {
  readonly scheduler: LoopScheduler;
}
