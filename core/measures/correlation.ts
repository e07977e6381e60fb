import { Z_95 } from './distributions';
import { unknown, type Estimate } from './estimate';
import { meanOf } from './mean';

export type Paired = readonly [number, number];

/** Pearson's correlation, with the interval of Fisher's z (1921) from four pairs on. */
export function correlation(pairs: readonly Paired[]): Estimate {
  const n = pairs.length;
  if (n < 2) return unknown(n, 'too few');
  const [a, b] = [meanOf(pairs.map(([one]) => one)), meanOf(pairs.map(([, one]) => one))];
  const sum = (of: (pair: Paired) => number) => pairs.reduce((all, pair) => all + of(pair), 0);
  const spread = sum(([x]) => (x - a) ** 2) * sum(([, y]) => (y - b) ** 2);
  if (spread === 0) return unknown(n, 'no variation');
  const value = Math.min(1, Math.max(-1, sum(([x, y]) => (x - a) * (y - b)) / Math.sqrt(spread)));
  if (n < 4) return { n, value, interval: null };
  if (Math.abs(value) === 1) return { n, value, interval: [value, value] };
  const [z, half] = [Math.atanh(value), Z_95 / Math.sqrt(n - 3)];
  return { n, value, interval: [Math.tanh(z - half), Math.tanh(z + half)] };
}

/** Ranks from 1; equal values share the mean of theirs. */
function ranksOf(values: readonly number[]): number[] {
  const sorted = values.toSorted((a, b) => a - b);
  const places = new Map<number, { readonly from: number; readonly to: number }>();
  sorted.forEach((value, i) => places.set(value, { from: places.get(value)?.from ?? i, to: i }));
  return values.map((value) => (places.get(value)!.from + places.get(value)!.to) / 2 + 1);
}

/** Spearman's rank correlation: Pearson's of the ranks, equal marks sharing theirs; its interval as that one's. */
export function rankCorrelation(pairs: readonly Paired[]): Estimate {
  const [first, second] = [ranksOf(pairs.map(([a]) => a)), ranksOf(pairs.map(([, b]) => b))];
  return correlation(first.map((rank, i): Paired => [rank, second[i]!]));
}
