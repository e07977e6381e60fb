import { dateAndTime, dateOf, durationOf, LOCALE, shortDate } from '../../core/messages/dates';

/** Where the reader is. */
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Of the languages the reader prefers, the first that is a variety of ours. */
const ownLocale = (): string => navigator.languages.find((tag) => /^en(-|$)/.test(tag)) ?? LOCALE;

const reader = (timeZone: string) => ({ locale: ownLocale(), timeZone });

export const showMoment = (at: number, zone = ownZone()): string => dateAndTime(at, reader(zone));
export const showDay = (at: number, zone = ownZone()): string => dateOf(at, reader(zone));
export const showShort = (at: number, zone = ownZone()): string => shortDate(at, reader(zone));
export const showDuration = (minutes: number): string => durationOf(minutes, ownLocale());

/** “15, 5 and 1”, as the reader writes lists. */
export const showList = (all: readonly string[]): string =>
  new Intl.ListFormat(ownLocale(), { type: 'conjunction' }).format(all);
