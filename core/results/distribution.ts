import type { Hundredths } from '../marks';

/** About so many bars, and never more than so many. */
const USUAL = 20;
const MOST = 80;

const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

/**
 * Where the bars of a distribution begin, from 0: each of the same number of whole marks, and none with two bands in it.
 * Where bands begin at such marks that this takes too many bars, those that a band divides are cut there.
 */
export function barsOf(of: Hundredths, bandsFrom: readonly Hundredths[]): Hundredths[] {
  const usual = Math.max(100, Math.ceil(of / USUAL / 100) * 100);
  const regular = (step: number) => Array.from({ length: Math.floor(of / step) + 1 }, (_, i) => i * step);
  const inside = bandsFrom.filter((from) => from > 0 && from <= of);
  const common = inside.reduce(commonDivisor, 0);
  if (common === 0) return regular(usual);
  // The divisor of what the bands have in common that comes nearest to the usual step.
  const most = Math.min(common, usual);
  const step = Array.from({ length: most }, (_, i) => most - i).find((one) => common % one === 0)!;
  if (of / step <= MOST) return regular(step);
  return [...new Set([...regular(usual), ...inside])].sort((a, b) => a - b);
}
