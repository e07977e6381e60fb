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
 * `total` shared out by whole weights so that the shares add up to it exactly: by largest remainder, ties to the earlier
 * one. Weights are whole, none is negative, and one at least is above 0.
 */
export function allot(total: Hundredths, weights: readonly number[]): Hundredths[] {
  const all = weights.reduce((a, b) => a + b, 0);
  if (all <= 0) throw new RangeError('weights need a sum above 0');
  const shares = weights.map((weight) => Math.floor((total * weight) / all));
  let left = total - sumMarks(shares);
  const byRemainder = weights
    .map((weight, i) => ({ i, remainder: (total * weight) % all }))
    .sort((a, b) => b.remainder - a.remainder || a.i - b.i);
  for (const { i } of byRemainder) {
    if (left <= 0) break;
    shares[i]!++;
    left--;
  }
  return shares;
}
