import { readFileSync } from 'node:fs';

/**
 * Seconds of all processors since the machine started; of these, those that the host gave to others although something here
 * wanted to run.
 */
export function processorTime(): { readonly all: number; readonly taken: number } {
  const times = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.split(/\s+/).slice(1, 9).map(Number);
  return { all: times.reduce((a, b) => a + b) / 100, taken: times[7]! / 100 };
}
