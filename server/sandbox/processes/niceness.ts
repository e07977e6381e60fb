import { getPriority, setPriority } from 'node:os';

/** How far a program gives way to the server, as the system counts it (0 to 19). */
export const NICENESS = 5;

/** Gives way to others from now on; a server that gives way further itself must not be overtaken, which is refused. */
export function giveWay(): void {
  if (getPriority(0) < NICENESS) setPriority(0, NICENESS);
}
