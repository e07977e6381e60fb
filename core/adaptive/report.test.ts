import { describe, expect, it } from 'vitest';
import { informationCurves, shownAbilities, simulationReport } from './report';
import type { AdaptiveRules, Unit } from './rules';

const rules: AdaptiveRules = {
  prior: { mean: 0, sd: 1 },
  targetError: 0.5,
  leastLength: 1,
  greatestLength: 3,
  topics: [{ topic: 'kale', share: 1 }],
  best: 1,
  exposureLimit: 1,
};
const unit = (key: string, ...thresholds: number[]): Unit => ({
  key,
  parameters: { a: 1, thresholds },
  topics: thresholds.map(() => 'kale'),
});

describe('what is looked at before a section is used', () => {
  it('is the information of all questions, of the best that fit in, and what the target needs', () => {
    const pool = [unit('a', 0), unit('b', 0), unit('pair', 3, 3), unit('c', 0)];
    const middle = shownAbilities.findIndex((ability) => Math.abs(ability) < 1e-9);
    const { pool: all, best, needed } = informationCurves({ pool, rules });
    // a²P(1 − P) is 0.25 at the difficulty; the three of them fill the length.
    expect(best[middle]).toBeCloseTo(0.75, 12);
    expect(all[middle]).toBeGreaterThan(0.75);
    // 1/0.5² − 1/1² = 3
    expect(needed).toBe(3);
    const alone = informationCurves({ pool: [unit('pair', 0, 0)], rules: { ...rules, greatestLength: 1 } });
    expect(alone.best[middle]).toBe(0);
  });

  it('is the same simulation for the same section, told by ability too', () => {
    const pool = Array.from({ length: 12 }, (_, i) => unit(`u${i}`, -2.2 + 0.4 * i));
    const of = { pool, rules: { ...rules, greatestLength: 6 } };
    const report = simulationReport(of);
    expect(simulationReport(of)).toEqual(report);
    expect(report.figures.candidates).toBe(2000);
    expect(report.groups).toHaveLength(4);
    // Six questions of this kind leave a normal prior in sight: estimates are nearer to the middle than abilities.
    expect(report.groups[0]!.bias).toBeGreaterThan(0.2);
    expect(report.groups[3]!.bias).toBeLessThan(-0.2);
    const mean = report.groups.reduce((sum, { meanLength }) => sum + meanLength, 0) / 4;
    expect(mean).toBeCloseTo(report.figures.meanLength, 1);
  });
});
