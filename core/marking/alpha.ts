import { unknown, type Estimate } from '../measures/estimate';
import { seededRandom } from '../random';
import type { Hundredths } from '../marks';

/** How far apart two marks are: by their difference, or by how many marks lie between them. */
export type AlphaMetric = 'interval' | 'ordinal';

/** How often responses are drawn anew for an interval, unless told otherwise. */
export const BOOTSTRAPS = 1_000;

/** Responses that were judged alike: which values, how often each, and how many responses. */
interface Pattern {
  readonly counts: readonly number[];
  readonly judged: number;
}

interface Table {
  /** The distinct marks, in rising order. */
  readonly values: readonly number[];
  readonly patterns: readonly Pattern[];
  /** For each response its pattern. */
  readonly of: Uint16Array;
}

/** Responses with fewer than two marks say nothing of agreement. */
function tableOf(judged: readonly (readonly Hundredths[])[]): Table {
  const used = judged.filter((one) => one.length > 1);
  const values = [...new Set(used.flat())].toSorted((a, b) => a - b);
  const at = new Map(values.map((value, i) => [value, i]));
  const known = new Map<string, number>();
  const patterns: Pattern[] = [];
  const of = Uint16Array.from(used, (one) => {
    const counts = values.map(() => 0);
    for (const value of one) counts[at.get(value)!]! += 1;
    const key = counts.join();
    let index = known.get(key);
    if (index === undefined) {
      index = patterns.push({ counts, judged: one.length }) - 1;
      known.set(key, index);
    }
    return index;
  });
  return { values, patterns, of };
}

/** The squared distances of the values, given how often each occurs. */
function distances(metric: AlphaMetric, values: readonly number[], totals: readonly number[]): number[][] {
  if (metric === 'interval') return values.map((c) => values.map((k) => (c - k) ** 2));
  const before = totals.reduce<number[]>((sums, count) => [...sums, sums.at(-1)! + count], [0]);
  // All from one to the other, each end by half.
  const between = (c: number, k: number) => before[k + 1]! - before[c]! - (totals[c]! + totals[k]!) / 2;
  return values.map((_, c) =>
    values.map((__, k) => (c === k ? 0 : between(Math.min(c, k), Math.max(c, k)) ** 2)),
  );
}

/** Alpha, where each pattern occurs so often; null where all marks are the same. */
function alphaOf({ values, patterns }: Table, often: ArrayLike<number>, metric: AlphaMetric): number | null {
  const totals = values.map(() => 0);
  patterns.forEach(({ counts }, p) => counts.forEach((count, v) => (totals[v]! += count * often[p]!)));
  const n = totals.reduce((sum, one) => sum + one, 0);
  const delta = distances(metric, values, totals);
  let [observed, expected] = [0, 0];
  patterns.forEach(({ counts, judged }, p) => {
    if (often[p] === 0) return;
    let own = 0;
    for (let c = 0; c < counts.length; c++) {
      if (counts[c] === 0) continue;
      for (let k = c + 1; k < counts.length; k++) own += counts[c]! * counts[k]! * delta[c]![k]!;
    }
    observed += (often[p]! * own) / (judged - 1);
  });
  for (let c = 0; c < totals.length; c++)
    for (let k = c + 1; k < totals.length; k++) expected += totals[c]! * totals[k]! * delta[c]![k]!;
  return expected === 0 ? null : 1 - ((n - 1) * observed) / expected;
}

/** At a share of a sorted list, between its neighbours. */
function quantileIn(sorted: readonly number[], share: number): number {
  const at = (sorted.length - 1) * share;
  const [low, high] = [sorted[Math.floor(at)]!, sorted[Math.ceil(at)]!];
  return low + (high - low) * (at - Math.floor(at));
}

/**
 * Krippendorff's alpha (2011), −1 to 1: 1 − observed / expected disagreement, for responses with two marks or more each by
 * whatever assessors; who gave which mark plays no part, and responses with one mark are left out. `n` counts responses.
 * The interval of 95 % is that of so many seeded bootstraps over responses; with `bootstraps` 0 there is none.
 */
export function krippendorffAlpha(
  metric: AlphaMetric,
  judged: readonly (readonly Hundredths[])[],
  bootstraps = BOOTSTRAPS,
): Estimate {
  const table = tableOf(judged);
  const n = table.of.length;
  if (n < 2) return unknown(n, 'too few');
  const often = new Float64Array(table.patterns.length);
  for (const pattern of table.of) often[pattern]! += 1;
  const value = alphaOf(table, often, metric);
  if (value === null) return unknown(n, 'no variation');
  if (bootstraps === 0) return { n, value, interval: null };
  const random = seededRandom('krippendorff');
  const found: number[] = [];
  for (let turn = 0; turn < bootstraps; turn++) {
    often.fill(0);
    for (let i = 0; i < n; i++) often[table.of[Math.floor(random() * n)]!]! += 1;
    // Where all that was drawn is the same, nobody disagrees.
    found.push(alphaOf(table, often, metric) ?? 1);
  }
  const sorted = found.toSorted((a, b) => a - b);
  return { n, value, interval: [quantileIn(sorted, 0.025), quantileIn(sorted, 0.975)] };
}
