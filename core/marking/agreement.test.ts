import { describe, expect, it } from 'vitest';
import { Z_95 } from '../measures/distributions';
import type { Estimate } from '../measures/estimate';
import {
  adjacentAgreement,
  cohenKappa,
  exactAgreement,
  fleissKappa,
  meanAbsoluteDifference,
  meanDifference,
  spreadOfDifferences,
  weightedKappa,
  type Pair,
} from './agreement';
import { correlation, rankCorrelation } from '../measures/correlation';
import { intraclass, intraclassForms, meanSquares } from './intraclass';

const pairs: Pair[] = [
  [100, 100],
  [200, 200],
  [300, 200],
  [200, 300],
];

describe('agreement of two', () => {
  it('is told exactly and within a step, with Wilson’s interval', () => {
    // 2 of 4; Wilson: (0.5 + z²/8 ± z·√(0.25/4 + z²/64)) / (1 + z²/4).
    const z = Z_95;
    const half = z * Math.sqrt(0.0625 + z ** 2 / 64);
    const [low, high] = [-half, half].map((by) => (0.5 + z ** 2 / 8 + by) / (1 + z ** 2 / 4));
    expect(exactAgreement(pairs)).toEqual({
      n: 4,
      value: 0.5,
      interval: [expect.closeTo(low!, 12), expect.closeTo(high!, 12)],
    });
    expect(adjacentAgreement(pairs)).toMatchObject({ value: 1 });
    expect(adjacentAgreement(pairs, 99)).toMatchObject({ value: 0.5 });
  });

  it('tells the mean difference as severity, with Student’s interval', () => {
    // Differences 0, 0, 100, −100: mean 0, variance 20000/3, t(0.975; 3) = 3.1824463.
    const half = 3.182446305284263 * Math.sqrt(20000 / 3 / 4);
    expect(meanDifference(pairs)).toEqual({
      n: 4,
      value: 0,
      interval: [expect.closeTo(-half, 8), expect.closeTo(half, 8)],
    });
    expect(meanDifference([[700, 400]])).toEqual({ n: 1, value: 300, interval: null });
  });

  it('weighs differences of marks by their squares', () => {
    // Observed: 2 · 100² / 4 = 5000; by chance: 5000 + 5000 + 0 = 10000; so 1 − 0.5. The variance of
    // v·E − (v̄ᵢ. + v̄.ⱼ)·O over −1.5e8, −5e7, 0, 0 is 6.25e15 − 2.5e15; over n·E⁴ = 4e16: 0.09375.
    const half = Z_95 * Math.sqrt(0.09375);
    expect(weightedKappa(pairs)).toEqual({
      n: 4,
      value: 0.5,
      interval: [expect.closeTo(0.5 - half, 12), expect.closeTo(0.5 + half, 12)],
    });
  });

  it('weighs by marks and not by ranks: levels 0, 1 and 4 are not steps of one', () => {
    const uneven: Pair[] = [
      [0, 0],
      [100, 400],
      [400, 400],
      [100, 100],
    ];
    // Observed 300²/4 = 22500. First: mean 150, variance 22500; second: mean 225, variance 31875+...: Σ(b−225)²/4 =
    // (50625 + 30625 + 30625 + 15625)/4 = 31875; by chance 22500 + 31875 + 75² = 60000; 1 − 22500/60000 = 0.625.
    expect(weightedKappa(uneven)).toMatchObject({ value: 0.625 });
  });

  it('is not told where it is not defined, and says why', () => {
    expect(exactAgreement([])).toEqual({ n: 0, value: null, reason: 'too few' });
    expect(weightedKappa([[100, 100]])).toEqual({ n: 1, value: null, reason: 'too few' });
    const same: Pair[] = [
      [300, 300],
      [300, 300],
    ];
    expect(weightedKappa(same)).toEqual({ n: 2, value: null, reason: 'no variation' });
    expect(intraclass('2,1', same)).toEqual({ n: 2, value: null, reason: 'no variation' });
    expect(fleissKappa(same)).toEqual({ n: 2, value: null, reason: 'no variation' });
  });
});

describe('intraclass correlation', () => {
  // Shrout and Fleiss 1979, table 2: six targets, four judges.
  const judged = [
    [9, 2, 5, 8],
    [6, 1, 3, 2],
    [8, 4, 6, 8],
    [7, 1, 2, 6],
    [10, 5, 6, 9],
    [6, 2, 4, 7],
  ];

  it('has the mean squares of the published example', () => {
    const m = meanSquares(judged);
    expect([m.between, m.within, m.assessors, m.rest].map((x) => x.toFixed(2))).toEqual([
      '11.24',
      '6.26',
      '32.49',
      '1.02',
    ]);
  });

  // Table 4 there (.17, .29, .71, .44, .62, .91), with intervals as published for the same data (Revelle, psych).
  const published = [
    [0.17, -0.13, 0.72],
    [0.29, 0.02, 0.76],
    [0.71, 0.34, 0.95],
    [0.44, -0.88, 0.91],
    [0.62, 0.07, 0.93],
    [0.91, 0.68, 0.99],
  ];
  it.each(intraclassForms.map((form, i) => [form, published[i]!] as const))(
    '(%s) is as published',
    (form, told) => {
      const found = intraclass(form, judged);
      expect(found).toMatchObject({ n: 6 });
      if (found.value === null) throw new Error('undefined');
      expect([found.value, ...found.interval!].map((x) => Number(x.toFixed(2)))).toEqual(told);
    },
  );

  it('is 1 where all agree and responses differ; one assessor tells nothing', () => {
    expect(
      intraclass('2,1', [
        [1, 1],
        [2, 2],
        [5, 5],
      ]),
    ).toEqual({ n: 3, value: 1, interval: [1, 1] });
    expect(intraclass('1,1', [[1], [2]])).toMatchObject({ value: null, reason: 'too few' });
    expect(() => intraclass('1,1', [[1, 2], [2]])).toThrow(RangeError);
  });
});

describe('agreement of more than two', () => {
  // Fleiss 1971, as it is worked through in textbooks: ten subjects, 14 raters, five categories; κ = 0.210.
  const counts = [
    [0, 0, 0, 0, 14],
    [0, 2, 6, 4, 2],
    [0, 0, 3, 5, 6],
    [0, 3, 9, 2, 0],
    [2, 2, 8, 1, 1],
    [7, 7, 0, 0, 0],
    [3, 2, 6, 3, 0],
    [2, 5, 3, 2, 2],
    [6, 5, 2, 1, 0],
    [0, 2, 2, 3, 7],
  ];
  const judged = counts.map((row) => row.flatMap((count, j) => Array.from({ length: count }, () => j * 100)));

  it('is Fleiss’s kappa, in whatever order the judgements come', () => {
    const found = fleissKappa(judged);
    expect(found.value).toBeCloseTo(0.21, 3);
    expect(fleissKappa(judged.map((row) => [...row].reverse())).value).toBeCloseTo(found.value!, 12);
  });

  it('refuses responses with other numbers of judgements', () => {
    expect(() =>
      fleissKappa([
        [1, 2, 3],
        [1, 2],
      ]),
    ).toThrow(RangeError);
  });
});

const boundsOf = (estimate: Estimate): readonly [number, number] => {
  if (estimate.value === null || estimate.interval === null) throw new Error('there is no interval');
  return estimate.interval;
};

describe('further agreement of two', () => {
  /** So many of each pair. */
  const many = (...counts: readonly (readonly [count: number, a: number, b: number])[]): Pair[] =>
    counts.flatMap(([count, a, b]) => Array.from({ length: count }, (): Pair => [a, b]));

  it('is plain kappa, of categories alone', () => {
    // 20 yes/yes, 5 yes/no, 10 no/yes, 15 no/no: observed 0.7, by chance 0.5·0.6 + 0.5·0.4 = 0.5; (0.7 − 0.5)/0.5.
    const found = cohenKappa(many([20, 1, 1], [5, 1, 0], [10, 0, 1], [15, 0, 0]), 'plain');
    expect(found).toMatchObject({ n: 50, value: expect.closeTo(0.4, 12) as number });
    // Fleiss, Cohen and Everitt: Σ pᵢⱼ (wᵢⱼ − (w̄ᵢ + w̄ⱼ)(1 − κ))² − (κ − pₑ(1 − κ))², with w̄ of yes 0.6 and 0.5, of no 0.4
    // and 0.5, over n (1 − pₑ)²: a standard error of 0.126996.
    const [low, high] = boundsOf(found);
    expect((high - low) / (2 * Z_95)).toBeCloseTo(0.126996, 6);
  });

  it('is kappa with linear weights', () => {
    // Distances 0, 0, 2, 1: in the mean 0.75. By chance, second marks being 1 and 2 alike often: 0.5 from 1, 0.5 from 2,
    // 1.5 from each 3, in the mean 1. Kappa is 1 − 0.75.
    const pairsOf: Pair[] = [
      [1, 1],
      [2, 2],
      [3, 1],
      [3, 2],
    ];
    expect(cohenKappa(pairsOf, 'linear').value).toBeCloseTo(0.25, 12);
    expect(cohenKappa([[1, 1]], 'linear')).toMatchObject({ value: null, reason: 'too few' });
    expect(cohenKappa(many([3, 2, 2]), 'plain')).toMatchObject({ value: null, reason: 'no variation' });
  });

  it('is Pearson’s and Spearman’s correlation', () => {
    // Ten pairs of the usual textbook example of IQ and hours of television: ρ = −29/165.
    const example: Pair[] = [
      [106, 7],
      [100, 27],
      [86, 2],
      [101, 50],
      [99, 28],
      [103, 29],
      [97, 20],
      [113, 12],
      [112, 6],
      [110, 17],
    ];
    expect(rankCorrelation(example).value).toBeCloseTo(-29 / 165, 12);
    // 1,2,3 and 2,4,6 lie on a line; equal marks share their rank: 1½, 1½, 3 and 1, 2, 3 give 1.5/√(1.5·2).
    const line: Pair[] = [
      [1, 2],
      [2, 4],
      [3, 6],
    ];
    expect(correlation(line)).toEqual({ n: 3, value: 1, interval: null });
    expect(
      rankCorrelation([
        [5, 1],
        [5, 2],
        [9, 3],
      ]).value,
    ).toBeCloseTo(1.5 / Math.sqrt(3), 12);
    // Fisher: atanh(r) ± 1.96/√(n − 3).
    const found = correlation(example);
    expect(boundsOf(found)[1]).toBeCloseTo(Math.tanh(Math.atanh(found.value!) + Z_95 / Math.sqrt(7)), 12);
  });

  it('is how far marks lie apart, whoever gave them', () => {
    // Differences 0, 0, 100, −100: absolute mean 50, standard deviation √(20000/3).
    expect(meanAbsoluteDifference(pairs).value).toBe(50);
    expect(spreadOfDifferences(pairs).value).toBeCloseTo(Math.sqrt(20000 / 3), 12);
  });
});
