import { Z_95 } from './distributions';
import { unknown, type Estimate } from './estimate';

/** A share of `n`, 0 to 1, with the Wilson score interval of 95 % (Wilson 1927). */
export function shareOf(count: number, n: number): Estimate {
  if (n === 0) return unknown(0, 'too few');
  const [p, z] = [count / n, Z_95];
  const middle = (p + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n));
  return { n, value: p, interval: [Math.max(0, middle - half), Math.min(1, middle + half)] };
}
