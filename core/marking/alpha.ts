import { unknown, type Estimate } from '../measures/estimate';
import { seededRandom } from '../random';
import type { Hundredths } from '../marks';

/** How far apart two marks are: by their difference, or by how many marks lie between them. */
export type AlphaMetric = 'interval' | 'ordinal';

/** How often responses are drawn anew for an interval, unless told otherwise. */
export const BOOTSTRAPS = 1_000;

/** Responses that were judged alike: which marks, by their place among all distinct ones, and how often each. */
interface Pattern {
  readonly marks: readonly { readonly at: number; readonly count: number }[];
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
  const places = new Map(values.map((value, i) => [value, i]));
  const known = new Map<string, number>();
  const patterns: Pattern[] = [];
  const of = Uint16Array.from(used, (one) => {
    const sorted = one.toSorted((a, b) => a - b);
    const key = sorted.join();
    let index = known.get(key);
    if (index === undefined) {
      const marks = [...new Set(sorted)].map((value) => ({
        at: places.get(value)!,
        count: sorted.filter((other) => other === value).length,
      }));
      index = patterns.push({ marks, judged: one.length }) - 1;
      known.set(key, index);
    }
    return index;
  });
  return { values, patterns, of };
}

/**
 * Where each mark lies on the scale of a metric, given how often each occurs. The ordinal distance of two marks is how many
 * lie between them, each end by half: the difference of their middle ranks.
 */
function scaleOf(
  metric: AlphaMetric,
  values: readonly number[],
  totals: ArrayLike<number>,
): readonly number[] {
  if (metric === 'interval') return values;
  let before = 0;
  return values.map((_, i) => {
    const middle = before + totals[i]! / 2;
    before += totals[i]!;
    return middle;
  });
}

/**
 * Alpha, where each pattern occurs so often; null where all marks are the same. Sums of squared distances of all pairs are
 * taken as n Σx² − (Σx)².
 */
function alphaOf({ values, patterns }: Table, often: ArrayLike<number>, metric: AlphaMetric): number | null {
  const totals = new Float64Array(values.length);
  patterns.forEach(({ marks }, p) => {
    for (const { at, count } of marks) totals[at]! += count * often[p]!;
  });
  const scale = scaleOf(metric, values, totals);
  let [n, sum, squares] = [0, 0, 0];
  scale.forEach((x, i) => {
    n += totals[i]!;
    sum += totals[i]! * x;
    squares += totals[i]! * x * x;
  });
  const expected = n * squares - sum * sum;
  let observed = 0;
  patterns.forEach(({ marks, judged }, p) => {
    if (often[p] === 0 || marks.length === 1) return;
    let [own, ownSquares] = [0, 0];
    for (const { at, count } of marks) {
      own += count * scale[at]!;
      ownSquares += count * scale[at]! ** 2;
    }
    observed += (often[p]! * (judged * ownSquares - own * own)) / (judged - 1);
  });
  return expected <= 0 ? null : 1 - ((n - 1) * observed) / expected;
}

/** At a share of a sorted list, between its neighbours. */
function quantileIn(sorted: ArrayLike<number>, share: number): number {
  const at = (sorted.length - 1) * share;
  const [low, high] = [sorted[Math.floor(at)]!, sorted[Math.ceil(at)]!];
  return low + (high - low) * (at - Math.floor(at));
}

/**
 * Krippendorff's alpha (2011), at most 1: 1 − observed / expected disagreement, for responses with two marks or more each by
 * whatever assessors; who gave which mark plays no part, and responses with one mark are left out. `n` counts responses.
 * The interval of 95 % is that of so many seeded bootstraps over responses; with `bootstraps` 0 there is none.
 */
export const krippendorffAlpha = (
  metric: AlphaMetric,
  judged: readonly (readonly Hundredths[])[],
  bootstraps = BOOTSTRAPS,
): Estimate => alphas([metric], judged, bootstraps)[0]!;

/** Both of Krippendorff's alphas, from the same draws. */
export function krippendorffAlphas(judged: readonly (readonly Hundredths[])[]) {
  const [interval, ordinal] = alphas(['interval', 'ordinal'], judged, BOOTSTRAPS);
  return { interval: interval!, ordinal: ordinal! };
}

function alphas(
  metrics: readonly AlphaMetric[],
  judged: readonly (readonly Hundredths[])[],
  bootstraps: number,
): Estimate[] {
  const table = tableOf(judged);
  const n = table.of.length;
  if (n < 2) return metrics.map(() => unknown(n, 'too few'));
  const often = new Float64Array(table.patterns.length);
  for (const pattern of table.of) often[pattern]! += 1;
  const values = metrics.map((metric) => alphaOf(table, often, metric));
  if (values.includes(null)) return metrics.map(() => unknown(n, 'no variation'));
  const random = seededRandom('krippendorff');
  const found = metrics.map(() => new Float64Array(bootstraps));
  for (let turn = 0; turn < bootstraps; turn++) {
    often.fill(0);
    for (let i = 0; i < n; i++) often[table.of[Math.floor(random() * n)]!]! += 1;
    // Where all that was drawn is the same, nobody disagrees.
    metrics.forEach((metric, m) => (found[m]![turn] = alphaOf(table, often, metric) ?? 1));
  }
  return values.map((value, m) => {
    const sorted = found[m]!.toSorted();
    const interval =
      bootstraps > 0 ? ([quantileIn(sorted, 0.025), quantileIn(sorted, 0.975)] as const) : null;
    return { n, value: value!, interval };
  });
}
