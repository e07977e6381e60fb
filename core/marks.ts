/**
 * Marks are whole hundredths of a mark, so that sums are exact decimals and never binary fractions.
 * Range: any integer; a part's maximum is 1..100 000 hundredths.
 */
export type Hundredths = number;

export const sumMarks = (marks: readonly Hundredths[]): Hundredths => marks.reduce((a, b) => a + b, 0);

/** `share` (0..1, as numerator and denominator) of `maximum`, rounded half up to a hundredth. */
export function shareOfMarks(maximum: Hundredths, numerator: number, denominator: number): Hundredths {
  if (denominator <= 0) throw new RangeError('a share needs a positive denominator');
  const bounded = Math.min(Math.max(numerator, 0), denominator);
  return Math.floor((2 * maximum * bounded + denominator) / (2 * denominator));
}

const FRACTIONS: Record<number, string> = { 0: '', 25: '¼', 50: '½', 75: '¾' };

/** Marks as people read them: `3`, `½`, `12½`, `4.33`. Rounds half up to hundredths only here. */
export function showMarks(marks: Hundredths): string {
  const sign = marks < 0 ? '−' : '';
  const size = Math.abs(Math.round(marks));
  const whole = Math.floor(size / 100);
  const fraction = FRACTIONS[size % 100];
  if (fraction === undefined) return `${sign}${(size / 100).toFixed(2)}`;
  return fraction && whole === 0 ? sign + fraction : `${sign}${whole}${fraction}`;
}

/**
 * Marks in a column of figures: decimals, padded by spaces of their widths so that right-aligned points stand below each
 * other (U+2007 as wide as a figure, U+2008 as wide as a point): `30.34`, `29.5`, `30`.
 */
export function alignMarks(marks: Hundredths): string {
  const sign = marks < 0 ? '−' : '';
  const size = Math.abs(Math.round(marks));
  const whole = Math.floor(size / 100);
  const [tenths, hundredths] = [Math.floor(size / 10) % 10, size % 10];
  const shown = hundredths > 0 ? `${tenths}${hundredths}` : tenths > 0 ? String(tenths) : '';
  return `${sign}${whole}${shown === '' ? '\u2008' : '.'}${shown}${'\u2007'.repeat(2 - shown.length)}`;
}

/**
 * `total` shared out by whole weights so that the shares add up to it exactly: by largest remainder (the method of
 * A. Hamilton, 1792), ties to the earlier one. Worked out in whole numbers of any size. `total` is 0 or more; throws
 * RangeError where a weight is negative or not a whole number, or where all of them are 0.
 */
export function allot(total: Hundredths, weights: readonly number[]): Hundredths[] {
  if (!weights.every((weight) => Number.isSafeInteger(weight) && weight >= 0))
    throw new RangeError('weights are whole numbers, none negative');
  const whole = weights.map(BigInt);
  const all = whole.reduce((a, b) => a + b, 0n);
  if (all === 0n) throw new RangeError('weights need a sum above 0');
  const parts = whole.map((weight, i) => {
    const product = BigInt(total) * weight;
    return { i, share: product / all, remainder: product % all };
  });
  const left = Number(BigInt(total) - parts.reduce((sum, { share }) => sum + share, 0n));
  const raised = new Set(
    parts
      .toSorted((a, b) => Number(b.remainder > a.remainder) - Number(b.remainder < a.remainder) || a.i - b.i)
      .slice(0, left)
      .map(({ i }) => i),
  );
  return parts.map(({ i, share }) => Number(share) + (raised.has(i) ? 1 : 0));
}
