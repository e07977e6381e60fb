/** Processor time of this process so far, all threads together. */
export const processorMs = (): number => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
};

export interface WatchBoard {
  readonly memory: SharedArrayBuffer;
  /** Called by the thread that runs: case `index` begins now. */
  readonly begin: (index: number) => void;
  readonly finish: () => void;
  /** As `finish`, where another case follows: what a program has left behind may go on while its state is made. */
  readonly pause: () => void;
  /** The case that runs, or null. */
  readonly running: () => number | null;
  /** Whether the next case is being made ready. */
  readonly between: () => boolean;
  /** Processor time since the case, or the time between two, began. */
  readonly spentMs: () => number;
  /** By the clock. */
  readonly wallMs: () => number;
}

const BETWEEN = -1;

/** Memory that the thread which runs a program and the one which watches it share. */
export function watchBoard(memory = new SharedArrayBuffer(24)): WatchBoard {
  const phase = new Int32Array(memory, 0, 1);
  const times = new Float64Array(memory, 8, 2);
  const now = () => Number(process.hrtime.bigint() / 1000n) / 1000;
  const enter = (state: number) => {
    [times[0], times[1]] = [processorMs(), now()];
    Atomics.store(phase, 0, state);
  };
  return {
    memory,
    begin: (index) => enter(index + 1),
    finish: () => void Atomics.store(phase, 0, 0),
    pause: () => enter(BETWEEN),
    running() {
      const index = Atomics.load(phase, 0);
      return index <= 0 ? null : index - 1;
    },
    between: () => Atomics.load(phase, 0) === BETWEEN,
    spentMs: () => processorMs() - times[0]!,
    wallMs: () => now() - times[1]!,
  };
}
