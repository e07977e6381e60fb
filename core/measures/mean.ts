import { quantileT } from './distributions';
import { unknown, type Estimate } from './estimate';

export const meanOf = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** The sample variance (divided by n − 1); 0 of one value. */
export function varianceOf(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const mean = meanOf(values);
  return values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1);
}

/** A mean with its interval of 95 % by Student's t; of one value without an interval. */
export function meanEstimate(values: readonly number[]): Estimate {
  const n = values.length;
  if (n === 0) return unknown(0, 'too few');
  const value = meanOf(values);
  if (n === 1) return { n, value, interval: null };
  const half = quantileT(0.975, n - 1) * Math.sqrt(varianceOf(values) / n);
  return { n, value, interval: [value - half, value + half] };
}
