import { readFileSync } from 'node:fs';

/** Seconds of all processors since the machine started. */
export interface ProcessorTime {
  readonly all: number;
  /** Of these, what the host gave to others although something here wanted to run. */
  readonly taken: number;
}

/** As the kernel tells it; where it does not, nothing was taken. */
export function processorTime(): ProcessorTime {
  try {
    const times = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.split(/\s+/).slice(1, 9).map(Number);
    return { all: times.reduce((a, b) => a + b) / 100, taken: times[7]! / 100 };
  } catch {
    return { all: 0, taken: 0 };
  }
}
