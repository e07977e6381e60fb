import { readFileSync } from 'node:fs';

/** Linux counts a process's time in ticks of a hundredth of a second (`USER_HZ`, proc(5)). */
const TICK_MS = 10;

/** Processor time that a process has taken, with all its threads, in ms; null where the system does not tell. */
export function processorTimeOf(pid: number): number | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
    // Behind the name, which may hold anything: the state is the third field, user and system time the 14th and 15th.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return (Number(fields[11]) + Number(fields[12])) * TICK_MS;
  } catch {
    return null;
  }
}
