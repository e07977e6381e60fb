import { Z_95 } from '../measures/distributions';
import { unknown, type Estimate } from '../measures/estimate';
import { meanEstimate, meanOf, varianceOf } from '../measures/mean';
import { shareOf } from '../measures/share';
import type { Hundredths } from '../marks';

/*
 * How far two markings of the same responses agree. All figures are over totals in hundredths of a mark; kappas and
 * correlations have no unit, differences are in hundredths.
 */

/** Two marks of one response: of its part's human components in all. */
export type Pair = readonly [first: Hundredths, second: Hundredths];

/** The share of pairs that are equal, 0 to 1. */
export const exactAgreement = (pairs: readonly Pair[]): Estimate =>
  shareOf(pairs.filter(([a, b]) => a === b).length, pairs.length);

/** The share of pairs no more than `step` apart, equal ones included: one mark unless told otherwise. */
export const adjacentAgreement = (pairs: readonly Pair[], step: Hundredths = 100): Estimate =>
  shareOf(pairs.filter(([a, b]) => Math.abs(a - b) <= step).length, pairs.length);

/** The mean of first minus second, in hundredths: what an assessor's severity is against the others. */
export const meanDifference = (pairs: readonly Pair[]): Estimate =>
  meanEstimate(pairs.map(([a, b]) => a - b));

/** The mean absolute difference of both marks, in hundredths; who gave which plays no part. */
export const meanAbsoluteDifference = (pairs: readonly Pair[]): Estimate =>
  meanEstimate(pairs.map(([a, b]) => Math.abs(a - b)));

/** The standard deviation of first minus second, in hundredths; without an interval. */
export function spreadOfDifferences(pairs: readonly Pair[]): Estimate {
  if (pairs.length < 2) return unknown(pairs.length, 'too few');
  const value = Math.sqrt(varianceOf(pairs.map(([a, b]) => a - b)));
  return { n: pairs.length, value, interval: null };
}

/**
 * Cohen's kappa (1960) of the marks as categories, or with linear weights: 1 − Σ|a−b| observed / expected by chance (Cohen
 * 1968). The interval uses the large-sample standard error of Fleiss, Cohen and Everitt (1969), as for quadratic weights.
 */
export function cohenKappa(pairs: readonly Pair[], weights: 'plain' | 'linear'): Estimate {
  const n = pairs.length;
  if (n < 2) return unknown(n, 'too few');
  const apart =
    weights === 'plain'
      ? (a: number, b: number) => Number(a !== b)
      : (a: number, b: number) => Math.abs(a - b);
  const shares = (of: 0 | 1) => {
    const counts = new Map<number, number>();
    for (const pair of pairs) counts.set(pair[of], (counts.get(pair[of]) ?? 0) + 1 / n);
    return [...counts];
  };
  const [first, second] = [shares(0), shares(1)];
  const meanApart = (own: number, others: readonly (readonly [number, number])[]) =>
    others.reduce((sum, [other, share]) => sum + share * apart(own, other), 0);
  const byFirst = new Map(first.map(([a]) => [a, meanApart(a, second)]));
  const bySecond = new Map(second.map(([b]) => [b, meanApart(b, first)]));
  const expected = first.reduce((sum, [a, share]) => sum + share * byFirst.get(a)!, 0);
  if (expected === 0) return unknown(n, 'no variation');
  const observed = meanOf(pairs.map(([a, b]) => apart(a, b)));
  const value = 1 - observed / expected;
  const squares = meanOf(
    pairs.map(([a, b]) => (apart(a, b) * expected - (byFirst.get(a)! + bySecond.get(b)!) * observed) ** 2),
  );
  const variance = Math.max(0, squares - (observed * expected) ** 2) / (n * expected ** 4);
  const half = Z_95 * Math.sqrt(variance);
  return { n, value, interval: [value - half, value + half] };
}

/**
 * Cohen's kappa with quadratic weights on the marks themselves, not on their ranks: 1 − Σ(a−b)² observed / expected by
 * chance (Cohen 1968). The interval uses the large-sample standard error of Fleiss, Cohen and Everitt (1969).
 */
export function weightedKappa(pairs: readonly Pair[]): Estimate {
  const n = pairs.length;
  if (n < 2) return unknown(n, 'too few');
  const [first, second] = [pairs.map(([a]) => a), pairs.map(([, b]) => b)];
  const [meanFirst, meanSecond] = [meanOf(first), meanOf(second)];
  const spread = (values: readonly number[]) => (varianceOf(values) * (n - 1)) / n;
  const [spreadFirst, spreadSecond] = [spread(first), spread(second)];
  const expected = spreadFirst + spreadSecond + (meanFirst - meanSecond) ** 2;
  if (expected === 0) return unknown(n, 'no variation');
  const observed = meanOf(pairs.map(([a, b]) => (a - b) ** 2));
  const value = 1 - observed / expected;
  // In disagreements v = (a − b)²: the mean of [v·E − (v̄ᵢ. + v̄.ⱼ)·O]², with the means of v by either margin.
  const byFirst = (a: number) => spreadSecond + (a - meanSecond) ** 2;
  const bySecond = (b: number) => spreadFirst + (b - meanFirst) ** 2;
  const squares = meanOf(
    pairs.map(([a, b]) => ((a - b) ** 2 * expected - (byFirst(a) + bySecond(b)) * observed) ** 2),
  );
  const variance = Math.max(0, squares - (observed * expected) ** 2) / (n * expected ** 4);
  const half = Z_95 * Math.sqrt(variance);
  return { n, value, interval: [value - half, value + half] };
}

/**
 * Fleiss's kappa (1971) of categories, for responses that were each judged by the same number of assessors, two or more;
 * `n` counts responses. The interval uses Gwet's large-sample variance (2021), which holds for any kappa, not for 0 alone.
 * Throws RangeError where the numbers of judgements differ.
 */
export function fleissKappa(judged: readonly (readonly Hundredths[])[]): Estimate {
  const n = judged.length;
  const each = judged[0]?.length ?? 0;
  if (judged.some((one) => one.length !== each))
    throw new RangeError('every response needs as many judgements as the others');
  if (n < 2 || each < 2) return unknown(n, 'too few');
  const counts = judged.map((one) => {
    const own = new Map<number, number>();
    for (const category of one) own.set(category, (own.get(category) ?? 0) + 1);
    return own;
  });
  const shares = new Map<number, number>();
  for (const own of counts)
    for (const [category, count] of own)
      shares.set(category, (shares.get(category) ?? 0) + count / (n * each));
  const expected = [...shares.values()].reduce((sum, p) => sum + p * p, 0);
  if (shares.size < 2) return unknown(n, 'no variation');
  const observed = counts.map(
    (own) => ([...own.values()].reduce((sum, c) => sum + c * c, 0) - each) / (each * (each - 1)),
  );
  const value = (meanOf(observed) - expected) / (1 - expected);
  const single = counts.map((own, i) => {
    const byChance = [...own].reduce((sum, [category, c]) => sum + (shares.get(category)! * c) / each, 0);
    const kappa = (observed[i]! - expected) / (1 - expected);
    return kappa - (2 * (1 - value) * (byChance - expected)) / (1 - expected);
  });
  const variance = single.reduce((sum, one) => sum + (one - value) ** 2, 0) / (n * (n - 1));
  const half = Z_95 * Math.sqrt(variance);
  return { n, value, interval: [value - half, value + half] };
}
