/** The offset of a time zone from UTC at an instant, in ms. */
function offsetAt(at: number, timeZone: string): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  }).formatToParts(at);
  const part = (type: string) => Number(parts.find((one) => one.type === type)!.value);
  const shown = Date.UTC(
    ...([part('year'), part('month') - 1, part('day')] as const),
    ...([part('hour'), part('minute'), part('second')] as const),
  );
  return shown - Math.floor(at / 1000) * 1000;
}

/**
 * The instant (ms since 1970) at which clocks in a time zone show a date and time, written `2026-11-24T09:00`; null
 * where that is no date and time. Of an hour that comes twice the first one counts; a time that is left out in spring is
 * moved on by as much.
 */
export function instantOf(wall: string, timeZone: string): number | null {
  const asUtc = /^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(wall) ? Date.parse(`${wall}:00Z`) : Number.NaN;
  if (Number.isNaN(asUtc)) return null;
  // The offset half a day before and after: at a change of clocks the two differ, and the larger one comes first.
  const near = [asUtc - 43_200_000, asUtc + 43_200_000].map((at) => offsetAt(at, timeZone));
  const fits = near.map((offset) => asUtc - offset).filter((at) => at + offsetAt(at, timeZone) === asUtc);
  return fits.length > 0 ? Math.min(...fits) : asUtc - near[0]!;
}

/** What clocks in a time zone show at an instant, written `2026-11-24T09:00`. */
export const wallTimeAt = (at: number, timeZone: string): string =>
  new Date(at + offsetAt(at, timeZone)).toISOString().slice(0, 16);
