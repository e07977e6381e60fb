import { TZDate } from '@date-fns/tz';
import { format } from 'date-fns';

/** Where the reader is. */
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

export const showMoment = (at: number, zone = ownZone()): string =>
  format(new TZDate(at, zone), 'EEEE d MMMM, HH:mm');
export const showDay = (at: number, zone = ownZone()): string => format(new TZDate(at, zone), 'd MMMM yyyy');
export const showShort = (at: number, zone = ownZone()): string =>
  format(new TZDate(at, zone), 'd MMM HH:mm');
