import type { EngineName, ProcessCase } from '../engines/engine';

/** To a process of the box: the cases of one run, a line of JSON. */
export interface RunMessage {
  readonly slot: number;
  readonly cases: readonly ProcessCase[];
}

/** Why a process was stopped by the one that watches it. */
export type Stopped = 'time' | 'memory' | 'asleep' | 'wall';

/** From the process that forks, by a channel that no fork has: lines of JSON. */
export type ControlMessage =
  | { readonly is: 'ready' }
  | { readonly is: 'failed'; readonly trouble: string }
  | {
      readonly is: 'ended';
      readonly slot: number;
      readonly status: number;
      readonly cpuMs: number;
      readonly stopped: Stopped | null;
      /** What is written behind everything the fork wrote, in hexadecimal. */
      readonly marker: string;
    }
  | { readonly is: 'refused'; readonly slot: number };

/** States that a forking process keeps ready, one for each case of a run. Python's is too large to keep several. */
export const CASES_A_FORK: Record<EngineName, number> = { python: 1, javascript: 16, sql: 16 };

export const MARKER_BYTES = 16;
/** The channels of a process: its control, then one for what each slot's programs reply. */
export const CONTROL = 3;
export const FIRST_DATA = 4;
