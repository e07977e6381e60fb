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
  /** The case that runs, or null. */
  readonly running: () => number | null;
  /** Processor time since the case began. */
  readonly spentMs: () => number;
  /** By the clock. */
  readonly wallMs: () => number;
}

/** Memory that the thread which runs a program and the one which watches it share. */
export function watchBoard(memory = new SharedArrayBuffer(24)): WatchBoard {
  const phase = new Int32Array(memory, 0, 1);
  const times = new Float64Array(memory, 8, 2);
  const now = () => Number(process.hrtime.bigint() / 1000n) / 1000;
  return {
    memory,
    begin(index) {
      [times[0], times[1]] = [processorMs(), now()];
      Atomics.store(phase, 0, index + 1);
    },
    finish: () => void Atomics.store(phase, 0, 0),
    running() {
      const index = Atomics.load(phase, 0);
      return index === 0 ? null : index - 1;
    },
    spentMs: () => processorMs() - times[0]!,
    wallMs: () => now() - times[1]!,
  };
}
