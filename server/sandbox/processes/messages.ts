import type { EngineName } from '../engines/engine';
import type { CaseJob } from '../../../core/programs/engine';

/** To a process of the box: the cases of one run, a line of JSON. */
export interface RunMessage {
  readonly slot: number;
  readonly cases: readonly CaseJob[];
}

/** Why a process was stopped by the one that watches it. `between`: after a case it never came to the next. */
export type Stopped = 'time' | 'memory' | 'asleep' | 'wall' | 'between';

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

const STOPS: readonly unknown[] = [null, 'time', 'memory', 'asleep', 'wall', 'between'];

/**
 * A line of the control channel, or null for anything else: in the portable lane a program that has got out of its
 * engine could write there.
 */
export function readControl(line: string): ControlMessage | null {
  let said: Partial<Record<string, unknown>> | null;
  try {
    said = JSON.parse(line) as typeof said;
  } catch {
    return null;
  }
  if (typeof said !== 'object' || said === null) return null;
  const { is, trouble, slot, status, cpuMs, stopped, marker } = said;
  const well =
    is === 'ready' ||
    (is === 'failed' && typeof trouble === 'string') ||
    (is === 'refused' && Number.isInteger(slot)) ||
    (is === 'ended' &&
      [slot, status].every(Number.isInteger) &&
      Number.isFinite(cpuMs) &&
      STOPS.includes(stopped) &&
      typeof marker === 'string');
  return well ? (said as unknown as ControlMessage) : null;
}

export const MARKER_BYTES = 16;
/** The channels of a process: its control, then one for what each slot's programs reply. */
export const CONTROL = 3;
export const FIRST_DATA = 4;
