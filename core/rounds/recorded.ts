import { message, type Message } from '../messages/message';
import { takesPicture } from '../arrival/picture';
import type { RoundSettings } from './api';
import './recordedWords';

type Recording = Pick<RoundSettings, 'checks' | 'identityPicture' | 'keptDays'>;

/**
 * What is recorded of a candidate in a round with these settings, as sentences for cover, rules and letters; nobody types
 * it. `programs`: the paper has programs to write.
 */
export function recordedOf(settings: Recording, programs: boolean): Message[] {
  const days = settings.keptDays;
  const picture = settings.identityPicture
    ? message('recorded.identity', { days })
    : message(takesPicture(settings) ? 'recorded.picture' : 'recorded.noPicture', { days });
  return [
    picture,
    message('recorded.answers'),
    message('recorded.connection'),
    ...(programs ? [message('recorded.programs')] : []),
    message('recorded.noFilm'),
  ];
}
