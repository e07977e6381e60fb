import { message, type Message } from '../messages/message';
import type { RoundSettings } from '../rounds/api';
import { MINUTE_MS } from '../timing/deadline';
import { showLength } from '../timing/pace';

export type AttemptSettings = Pick<RoundSettings, 'attemptsAllowed' | 'counts' | 'pauseMinutes'>;

/**
 * What a candidate reads about attempts: how many there are and are left, which counts, what an empty one does. `used` is
 * how many were started; null in a letter, which says only how many there are.
 */
export function attemptsTold(
  { attemptsAllowed, counts, pauseMinutes }: AttemptSettings,
  used: number | null,
): Message[] {
  if (attemptsAllowed === 1) return [message('attempts.one')];
  const left = attemptsAllowed - (used ?? 0);
  return [
    used === null || used === 0
      ? message('attempts.several', { count: attemptsAllowed })
      : message('attempts.left', { count: left, all: attemptsAllowed, used }),
    message(`attempts.${counts}`),
    message('attempts.empty'),
    ...(pauseMinutes > 0
      ? [message('attempts.pause', { length: showLength(pauseMinutes * MINUTE_MS) })]
      : []),
  ];
}
