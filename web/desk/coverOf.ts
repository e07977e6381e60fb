import { stopAtNow, type DeskState } from './deskStore';

export type Cover = 'elsewhere' | 'queued' | 'pause' | 'break' | 'going on';

/** Why the questions are put away, if they are. */
export function coverOf({ elsewhere, queuedAt, time, now, toConfirm }: DeskState): Cover | null {
  if (queuedAt !== null) return 'queued';
  if (elsewhere) return 'elsewhere';
  if (time.stopped && stopAtNow(time, now)) return time.stopped.why;
  return toConfirm ? 'going on' : null;
}
