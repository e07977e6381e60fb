/** An exact decimal: `digits / 10^places`. Compared and rounded without binary fractions. */
export interface Decimal {
  readonly digits: bigint;
  readonly places: number;
}

export type DecimalError = 'empty' | 'letters' | 'two-separators' | 'sign' | 'unfinished' | 'too-long';

const PLAIN = /^([+\-−]?)(\d*)(?:[.,](\d*))?$/;
const LONGEST = 30;

/** Reads a figure typed by a person: `,` or `.` as the separator, spaces between groups, a real minus. */
export function parseDecimal(typed: string): Decimal | DecimalError {
  const text = typed.replace(/[\s\u00a0\u202f]/g, '');
  if (text === '') return 'empty';
  if (text.length > LONGEST) return 'too-long';
  const match = PLAIN.exec(text);
  if (!match) {
    if (/[^\d.,+\-−]/.test(text)) return 'letters';
    return (text.match(/[.,]/g)?.length ?? 0) > 1 ? 'two-separators' : 'sign';
  }
  const [, sign, whole = '', fraction = ''] = match;
  if (whole === '' && fraction === '') return 'unfinished';
  const digits = BigInt(whole + fraction);
  return { digits: sign === '-' || sign === '−' ? -digits : digits, places: fraction.length };
}

/** A decimal from the bank's content; throws where the content is not a figure. */
export function decimal(text: string): Decimal {
  const parsed = parseDecimal(text);
  if (typeof parsed === 'string') throw new RangeError(`not a decimal: ${text}`);
  return parsed;
}

const scaled = (value: Decimal, places: number): bigint =>
  value.digits * 10n ** BigInt(places - value.places);
const size = (n: bigint): bigint => (n < 0n ? -n : n);

/** |a − b| ≤ tolerance, exactly. */
export function within(a: Decimal, b: Decimal, tolerance: Decimal): boolean {
  const places = Math.max(a.places, b.places, tolerance.places);
  return size(scaled(a, places) - scaled(b, places)) <= scaled(tolerance, places);
}

/** |a − b| ≤ |b| · share, exactly; `share` 0.01 is one per cent. */
export function withinShare(a: Decimal, b: Decimal, share: Decimal): boolean {
  const bound = { digits: size(b.digits * share.digits), places: b.places + share.places };
  return within(a, b, bound);
}

/** Rounded half away from zero to `places` decimals, as schools and laboratories do. */
export function roundTo(value: Decimal, places: number): Decimal {
  if (value.places <= places) return { digits: scaled(value, places), places };
  const step = 10n ** BigInt(value.places - places);
  const up = (size(value.digits) * 2n + step) / (2n * step);
  return { digits: value.digits < 0n ? -up : up, places };
}

export const sameFigure = (a: Decimal, b: Decimal): boolean => within(a, b, { digits: 0n, places: 0 });

/** Number of significant figures as written: `0.0450` has three, `1200` counts as four. */
export function significantFigures(value: Decimal): number {
  return value.digits === 0n ? 1 : size(value.digits).toString().length;
}

/** Rounded to `figures` significant figures (half away from zero). */
export function roundToFigures(value: Decimal, figures: number): Decimal {
  const places = value.places + figures - significantFigures(value);
  if (places >= 0) return roundTo(value, places);
  const step = 10n ** BigInt(-places);
  const whole = roundTo(value, 0).digits;
  const up = (size(whole) * 2n + step) / (2n * step);
  return { digits: (whole < 0n ? -up : up) * step, places: 0 };
}

export function showDecimal(value: Decimal): string {
  const digits = size(value.digits)
    .toString()
    .padStart(value.places + 1, '0');
  const cut = digits.length - value.places;
  const fraction = value.places > 0 ? `.${digits.slice(cut)}` : '';
  return `${value.digits < 0n ? '−' : ''}${digits.slice(0, cut)}${fraction}`;
}
