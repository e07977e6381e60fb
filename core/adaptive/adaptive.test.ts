import { describe, expect, it } from 'vitest';
import { estimateAbility, posterior } from '../measures/ability';
import { seededRandom } from '../random';
import { chooseUnit, isComplete, type Choosing } from './choose';
import { levelOf, likelyRange } from './level';
import type { AdaptiveRules, Unit } from './rules';
import { Exposure, simulateOne, simulateSection } from './simulate';

const rules: AdaptiveRules = {
  prior: { mean: 0, sd: 1 },
  targetError: 0.35,
  leastLength: 8,
  greatestLength: 30,
  topics: [
    { topic: 'kale', share: 0.5 },
    { topic: 'store', share: 0.5 },
  ],
  best: 5,
  exposureLimit: 0.3,
};
const unit = (key: string, b: number, topics: readonly string[] = ['kale'], a = 1): Unit => ({
  key,
  parameters: { a, thresholds: topics.map(() => b) },
  topics,
});
const choosing = (more: Partial<Choosing>): Choosing => ({
  pool: [unit('easy', -2), unit('middle', 0), unit('hard', 2), unit('stored', 0.1, ['store'])],
  rules,
  asked: [],
  met: new Set(),
  estimate: 0,
  exposureOf: () => 0,
  draw: 0,
  ...more,
});
/** 120 units around the clock of difficulty, half of each topic. */
const pool = Array.from({ length: 120 }, (_, i) =>
  unit(`u${i}`, -2.5 + (5 * i) / 119, [i % 2 ? 'kale' : 'store'], 1.2 + (0.6 * ((i * 7) % 5)) / 4),
);

describe('the next question', () => {
  it('is one of the best by information at the estimate, by the draw', () => {
    const at = (draw: number, best = 2) => chooseUnit(choosing({ draw, rules: { ...rules, best } }));
    expect(at(0)).toMatchObject({ unit: 'middle', relaxed: 'nothing', draw: 0 });
    expect(at(0)!.candidates.map((one) => one.unit)).toEqual(['middle', 'stored']);
    // a² P (1 − P) at the difficulty itself
    expect(at(0)!.candidates[0]!.information).toBeCloseTo(0.25, 12);
    expect([at(0.49), at(0.5), at(0.999)].map((one) => one!.unit)).toEqual(['middle', 'stored', 'stored']);
    expect(chooseUnit(choosing({ estimate: 2, rules: { ...rules, best: 1 } }))!.unit).toBe('hard');
  });

  it('is never asked twice, nor to somebody who has met it, nor beyond the greatest length', () => {
    const { pool: all } = choosing({});
    expect(chooseUnit(choosing({ asked: [all[1]!], rules: { ...rules, best: 1 } }))!.unit).toBe('stored');
    expect(chooseUnit(choosing({ met: new Set(['middle']), rules: { ...rules, best: 1 } }))!.unit).toBe(
      'stored',
    );
    const bundle = unit('bundle', 0, ['kale', 'kale', 'store']);
    const full = { ...rules, greatestLength: 3, best: 1 };
    expect(chooseUnit(choosing({ pool: [bundle], asked: [all[0]!], rules: full }))).toBeNull();
    expect(chooseUnit(choosing({ pool: [bundle], rules: full }))!.unit).toBe('bundle');
  });

  it('keeps topics within one question of their share, and the exposure limit; both are given up in this order', () => {
    const four = [0, 1, 2, 3, 4].map((n) => unit(`k${n}`, 0));
    // Of eight questions half is four, and one more: a sixth of the topic is too many.
    const sixth = choosing({ asked: four, pool: [unit('k5', 0), unit('s0', 3, ['store'])] });
    expect(chooseUnit(sixth)).toMatchObject({ unit: 's0', relaxed: 'nothing' });
    const shown = (often: readonly string[]) => (key: string) => (often.includes(key) ? 0.3 : 0);
    expect(chooseUnit({ ...sixth, exposureOf: shown(['s0']) })).toMatchObject({
      unit: 's0',
      relaxed: 'exposure',
    });
    expect(chooseUnit({ ...sixth, pool: [unit('k5', 0)] })).toMatchObject({ unit: 'k5', relaxed: 'topics' });
    expect(chooseUnit({ ...sixth, pool: four })).toBeNull();
  });

  it('is not needed any more once the error is small enough, not before the least length, nor after the greatest', () => {
    expect(isComplete(rules, { length: 7, error: 0.1 })).toBe(false);
    expect(isComplete(rules, { length: 8, error: 0.35 })).toBe(true);
    expect(isComplete(rules, { length: 8, error: 0.3500001 })).toBe(false);
    expect(isComplete(rules, { length: 30, error: 0.9 })).toBe(true);
  });
});

describe('a level', () => {
  const scale = { mean: 500, step: 100 };
  const bands = [
    { title: 'A', from: 0 },
    { title: 'B', from: 400 },
    { title: 'C', from: 500 },
    { title: 'D', from: 600 },
  ];
  it('has the posterior weight between its cuts; a point on a cut belongs to the upper one', () => {
    const weights = posterior([], rules.prior);
    const found = levelOf(weights, { estimate: 0, scale, bands });
    expect(found).toMatchObject({ value: 500, level: 'C' });
    expect(found.chances.reduce((sum, one) => sum + one.chance, 0)).toBeCloseTo(1, 12);
    // Without the points on the cuts, which count upwards, A would be as likely as D, and B as C.
    const [a, b, c, d] = found.chances.map((one) => one.chance);
    expect([a! < d!, b! < c!]).toEqual([true, true]);
    expect(likelyRange(found)).toEqual(['A', 'D']);
  });
  it('is told as one where nearly all of the chance is there', () => {
    const answers = Array.from({ length: 200 }, (_, i) => ({
      item: { a: 2, thresholds: [0.55] },
      score: i % 2,
    }));
    const { estimate } = estimateAbility(answers, rules.prior);
    const found = levelOf(posterior(answers, rules.prior), { estimate, scale, bands });
    expect([found.level, likelyRange(found)]).toEqual(['C', ['C', 'C']]);
  });
});

describe('a simulated section', () => {
  it('finds abilities within its target, in balance, with no unit asked too often, and is the same for the same seed', () => {
    const run = () =>
      simulateSection({ pool, rules }, { count: 400, from: -2, to: 2, random: seededRandom('section') });
    const { figures, all } = run();
    expect(Math.abs(figures.bias)).toBeLessThanOrEqual(0.05);
    expect(figures.rmse).toBeLessThanOrEqual(rules.targetError * 1.1);
    expect(figures.longest).toBeLessThanOrEqual(30);
    expect(figures.mostExposed).toBeLessThanOrEqual(rules.exposureLimit + 0.01);
    for (const one of all) {
      const kale = one.asked.filter((key) => Number(key.slice(1)) % 2 === 1).length;
      expect(Math.abs(kale - one.length / 2)).toBeLessThanOrEqual(2.5);
      expect(new Set(one.asked).size).toBe(one.asked.length);
    }
    expect(run().figures).toEqual(figures);
  });

  it('asks people of different ability different questions', () => {
    const sit = (ability: number) =>
      simulateOne({ pool, rules }, { ability, exposure: new Exposure(), random: seededRandom('one') });
    const [low, high] = [sit(-2), sit(2)];
    expect(low.asked.filter((key) => high.asked.includes(key)).length).toBeLessThan(low.asked.length / 2);
    expect(low.estimate).toBeLessThan(high.estimate);
  });
});
