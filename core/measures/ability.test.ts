import { describe, expect, it } from 'vitest';
import { abilityGrid, estimateAbility, posterior, type Scored } from './ability';
import { bundled, estimatedItem, information, scoreProbabilities } from './itemModel';

const standard = { mean: 0, sd: 1 };

describe('models of items', () => {
  it('gives the logistic probability: at the difficulty one half, with a = 1.5 one above it 0.8176', () => {
    const item = { a: 1.5, thresholds: [0.5] };
    expect(scoreProbabilities(item, 0.5)[1]).toBeCloseTo(0.5, 12);
    // 1 / (1 + e^−1.5)
    expect(scoreProbabilities(item, 1.5)[1]).toBeCloseTo(0.8175744762, 9);
    // a² P (1 − P) = 2.25 × 0.25 at the difficulty, 2.25 × 0.1491 a logit above.
    expect(information(item, 0.5)).toBeCloseTo(0.5625, 12);
    expect(information(item, 1.5)).toBeCloseTo(2.25 * 0.8175744762 * 0.1824255238, 9);
  });

  it('gives partial credit as products of steps', () => {
    // a = 1, thresholds −1 and 1 at ability 0: weights e^0, e^1, e^(1 − 1) = 1, e, 1.
    const item = { a: 1, thresholds: [-1, 1] };
    const [none, half, full] = scoreProbabilities(item, 0);
    const sum = 2 + Math.E;
    expect([none, half, full]).toEqual([
      expect.closeTo(1 / sum, 12),
      expect.closeTo(Math.E / sum, 12),
      expect.closeTo(1 / sum, 12),
    ]);
    // The variance of 0, 1, 2 around 1: both ends with a distance of 1.
    expect(information(item, 0)).toBeCloseTo(2 / sum, 12);
    expect(scoreProbabilities({ a: 50, thresholds: [-30, 30] }, 4).reduce((x, y) => x + y)).toBeCloseTo(
      1,
      12,
    );
  });

  it('takes an author’s estimate as logits, and questions of one source as one item', () => {
    expect([1, 3, 5].map((d) => estimatedItem(d).thresholds[0])).toEqual([-2, 0, 2]);
    const whole = bundled([
      { a: 1, thresholds: [0.5] },
      { a: 2, thresholds: [-1] },
    ]);
    expect(whole).toEqual({ a: 1.5, thresholds: [-1, 0.5] });
  });
});

describe('the ability of somebody', () => {
  it('is the prior before any answer, on a grid of 61 points from −4 to 4', () => {
    expect([abilityGrid.length, abilityGrid[0], abilityGrid[30], abilityGrid[60]]).toEqual([61, -4, 0, 4]);
    const { estimate, error } = estimateAbility([], standard);
    expect(estimate).toBeCloseTo(0, 12);
    // A normal distribution cut at four standard deviations: √(1 − 8 φ(4) / (2Φ(4) − 1)) = 0.9995.
    expect(error).toBeCloseTo(0.9995, 3);
  });

  it('equals a quadrature of its own that multiplies, point by point', () => {
    const answers: Scored[] = [
      { item: { a: 1.2, thresholds: [-0.5] }, score: 1 },
      { item: { a: 0.8, thresholds: [0.3] }, score: 0 },
      { item: { a: 1.1, thresholds: [-0.2, 0.9] }, score: 1 },
      { item: { a: 1.7, thresholds: [0.1] }, score: 1 },
    ];
    const logistic = (x: number) => 1 / (1 + Math.exp(-x));
    let [total, first, second] = [0, 0, 0];
    for (let i = 0; i <= 60; i++) {
      const x = -4 + (8 * i) / 60;
      const partial = [1, Math.exp(1.1 * (x + 0.2)), Math.exp(1.1 * (2 * x + 0.2 - 0.9))];
      const weight =
        Math.exp((-x * x) / 2) *
        logistic(1.2 * (x + 0.5)) *
        (1 - logistic(0.8 * (x - 0.3))) *
        (partial[1]! / (partial[0]! + partial[1]! + partial[2]!)) *
        logistic(1.7 * (x - 0.1));
      total += weight;
      first += weight * x;
      second += weight * x * x;
    }
    const mean = first / total;
    const found = estimateAbility(answers, standard);
    expect(found.estimate).toBeCloseTo(mean, 9);
    expect(found.error).toBeCloseTo(Math.sqrt(second / total - mean * mean), 9);
  });

  it('is symmetric, more certain with every answer, and never broken by five hundred', () => {
    const item = { a: 1, thresholds: [0] };
    const up = estimateAbility([{ item, score: 1 }], standard);
    const down = estimateAbility([{ item, score: 0 }], standard);
    expect(up.estimate).toBeCloseTo(-down.estimate, 12);
    const many = Array.from({ length: 500 }, (_, i) => ({ item, score: i % 2 }));
    const certain = estimateAbility(many, standard);
    expect(certain.estimate).toBeCloseTo(0, 6);
    // 1 / √(500 × 0.25 + 1)
    expect(certain.error).toBeCloseTo(1 / Math.sqrt(126), 2);
    const all = estimateAbility(
      Array.from({ length: 500 }, () => ({ item, score: 1 })),
      standard,
    );
    expect(all.estimate).toBeGreaterThan(3.5);
    expect(posterior(many, standard).reduce((x, y) => x + y)).toBeCloseTo(1, 12);
  });

  it.each([-1, 2, 0.5, Number.NaN])('refuses a score that the item does not have: %s', (score) =>
    expect(() => posterior([{ item: { a: 1, thresholds: [0] }, score }], standard)).toThrow(RangeError),
  );
});
