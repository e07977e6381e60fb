import { performance } from 'node:perf_hooks';

/** How often the thread is looked at, and how busy it is where it has no room. */
const LOOK_MS = 250;
const BUSY = 0.7;

type Used = ReturnType<typeof performance.eventLoopUtilization>;

/**
 * Tells when the thread has room for work that can wait: when less than 70 % of the last quarter of a second was used
 * (Node.js, *event loop utilization*). When thousands hand in within two minutes, scoring their scripts at once would
 * make those wait who still write. Has room until it is started.
 */
export class LoadMeter {
  private readonly usedSince: (before?: Used) => Used;
  private timer: NodeJS.Timeout | null = null;
  private used = 0;

  constructor(usedSince: LoadMeter['usedSince'] = (before) => performance.eventLoopUtilization(before)) {
    this.usedSince = usedSince;
  }

  start(): void {
    if (this.timer) return;
    let before = this.usedSince();
    this.timer = setInterval(() => {
      this.used = this.usedSince(before).utilization;
      before = this.usedSince();
    }, LOOK_MS);
    this.timer.unref();
  }

  stop(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    this.used = 0;
  }

  /** The share of the last quarter of a second in which the thread was in use, 0 to 1. */
  get utilization(): number {
    return this.used;
  }

  get busy(): boolean {
    return this.used >= BUSY;
  }

  /** Waits until there is room, at most about so long. */
  async wait(mostMs: number): Promise<void> {
    for (let waited = 0; this.busy && waited < mostMs; waited += LOOK_MS)
      await new Promise((go) => setTimeout(go, LOOK_MS));
  }
}

export interface HasLoad {
  readonly load: LoadMeter;
}
