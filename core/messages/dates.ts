/** The language in which dates are written where the reader's is not known. */
export const LOCALE = 'en-GB';

export interface Reader {
  readonly locale: string;
  /** IANA name. */
  readonly timeZone: string;
}

type Shape = Intl.DateTimeFormatOptions;
const known = new Map<string, Intl.DateTimeFormat>();

/** Making a formatter takes a hundred times as long as using it. */
function formatter({ locale, timeZone }: Reader, name: string, shape: Shape): Intl.DateTimeFormat {
  const key = `${name} ${locale} ${timeZone}`;
  const made = known.get(key) ?? new Intl.DateTimeFormat(locale, { ...shape, timeZone });
  known.set(key, made);
  return made;
}

const clock: Shape = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' };

/** “Tuesday 24 November 2026 at 09:00” in British English. `at` in milliseconds since 1970. */
export const dateAndTime = (at: number, reader: Reader): string =>
  formatter(reader, 'full', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    ...clock,
  }).format(at);

/** “24 November 2026”. */
export const dateOf = (at: number, reader: Reader): string =>
  formatter(reader, 'date', { day: 'numeric', month: 'long', year: 'numeric' }).format(at);

/** “24 Nov, 09:00”. */
export const shortDate = (at: number, reader: Reader): string =>
  formatter(reader, 'short', { day: 'numeric', month: 'short', ...clock }).format(at);

const UNITS = [
  ['day', 24 * 60],
  ['hour', 60],
  ['minute', 1],
] as const;

/** “50 days”, “1 day 3 hours”, “12 minutes”: what is nothing is not said. Whole minutes, at least one. */
export function durationOf(minutes: number, locale: string): string {
  let left = minutes;
  return UNITS.flatMap(([unit, length]) => {
    const count = Math.floor(left / length);
    left -= count * length;
    if (count === 0) return [];
    return [new Intl.NumberFormat(locale, { style: 'unit', unit, unitDisplay: 'long' }).format(count)];
  }).join(' ');
}
