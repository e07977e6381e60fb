import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random';
import { calibrate, type RightOrWrong } from './calibrate';
import type { ItemParameters } from './itemModel';

const standard = { mean: 0, sd: 1 };
const logistic = (x: number) => 1 / (1 + Math.exp(-x));

/** Normal by the sum of twelve uniform draws, less six: mean 0, variance 12 × 1/12. */
const simulated = (items: readonly ItemParameters[], count: number, seed: string): RightOrWrong[] => {
  const random = seededRandom(seed);
  return Array.from({ length: count }, () => {
    const ability = Array.from({ length: 12 }, random).reduce((x, y) => x + y) - 6;
    return items.map(({ a, thresholds: [b] }) => (random() < logistic(a * (ability - b!)) ? 1 : 0));
  });
};

describe('calibrating items', () => {
  it('finds the parameters that answers were drawn with', () => {
    const items = [-2, -1, -0.5, 0, 0, 0.5, 1, 2].flatMap((b, i) => [
      { a: 0.8 + 0.15 * i, thresholds: [b] },
      { a: 1.6 - 0.1 * i, thresholds: [-b] },
    ]);
    const found = calibrate(simulated(items, 4000, 'calibrate'), standard);
    const wrongBy = (of: (item: ItemParameters) => number) =>
      Math.sqrt(items.reduce((sum, item, i) => sum + (of(item) - of(found[i]!)) ** 2, 0) / items.length);
    // The standard error of b near its middle is about √(1 / (4000 · a² · 0.2)) = 0.035 for a = 1, and more at the ends.
    expect(wrongBy(({ thresholds }) => thresholds[0]!)).toBeLessThan(0.1);
    expect(wrongBy(({ a }) => a)).toBeLessThan(0.12);
  });

  it('is at the maximum: with one answer pattern only, shares of right answers are reproduced', () => {
    // 700 of 1,000 right, whatever else: the marginal share of the model is 0.7 again.
    const rows = Array.from({ length: 1000 }, (_, i): RightOrWrong => [i % 10 < 7 ? 1 : 0]);
    const [item] = calibrate(rows, standard);
    let [share, sum] = [0, 0];
    for (let x = -6; x <= 6; x += 0.01) {
      const weight = Math.exp((-x * x) / 2);
      share += weight * logistic(item!.a * (x - item!.thresholds[0]!));
      sum += weight;
    }
    expect(share / sum).toBeCloseTo(0.7, 3);
  });

  it('leaves out what was not asked, and stays in bounds where everybody is right', () => {
    const items = [{ a: 1, thresholds: [0.4] }];
    const asked = simulated(items, 2000, 'asked');
    const more = [...asked.map(([one]): RightOrWrong => [one!, 1]), [null, 1] as const];
    const [first, second] = calibrate(more, standard);
    expect(first!.thresholds[0]).toBeCloseTo(calibrate(asked, standard)[0]!.thresholds[0]!, 1);
    expect(second!.thresholds[0]).toBeGreaterThanOrEqual(-5);
    expect(second!.thresholds[0]).toBeLessThan(-3);
  });

  it.each([[[]], [[[]]], [[[1, 0], [1]]]] as RightOrWrong[][][])('refuses %j', (rows) =>
    expect(() => calibrate(rows, standard)).toThrow(RangeError),
  );
});
