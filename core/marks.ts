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
