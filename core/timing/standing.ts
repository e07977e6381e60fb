import type { Standing } from '../journal/entry';
import { GRACE_MS } from './deadline';
import { endedAt, type SittingTime } from './sittingTime';

export interface Arrival {
  /** The section with a limit of its own that the entry belongs to; null where there is none. */
  readonly section: string | null;
  /** When the device says it was made, in the server's time as known there. */
  readonly madeAt: number;
  readonly arrivedAt: number;
}

/**
 * Where an arriving entry stands to the sitting's time. What a device says of when it was made is believed only
 * between the start and its arrival, so that no clock set forward or back can matter. Nothing is thrown away; what is
 * not counted is kept. Source: `2-domain.md`, “Time”.
 */
export function standingOf(time: SittingTime, { section, madeAt, arrivedAt }: Arrival): Standing {
  const made = Math.max(Math.min(madeAt, arrivedAt), time.startedAt ?? madeAt);
  const { closed } = time;
  // What a candidate handed in stays as it was: work of another device that comes later is for a person to decide.
  if (closed?.by === 'candidate')
    return arrivedAt <= closed.at ? 'in-time' : made <= closed.at ? 'waiting' : 'after-time';
  const end = endedAt(time, section, arrivedAt);
  if (end === null || arrivedAt <= end) return 'in-time';
  return made <= end ? withinGrace(end, arrivedAt) : 'after-time';
}

const withinGrace = (end: number, arrivedAt: number): Standing =>
  arrivedAt <= end ? 'in-time' : arrivedAt <= end + GRACE_MS ? 'late' : 'waiting';
