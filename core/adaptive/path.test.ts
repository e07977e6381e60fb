import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random';
import { nextStep, resultOf, unexplained, drawOf, type PathSection, type Step } from './path';
import { drawScore } from './simulate';
import type { Unit } from './rules';

const pool: Unit[] = Array.from({ length: 30 }, (_, i) => ({
  key: `u${i}`,
  parameters: { a: 1.3, thresholds: [-2.2 + 0.15 * i] },
  topics: [i % 2 ? 'kale' : 'store'],
}));
const section: PathSection = {
  pool,
  rules: {
    prior: { mean: 0, sd: 1 },
    targetError: 0.45,
    leastLength: 4,
    greatestLength: 12,
    topics: [
      { topic: 'kale', share: 0.5 },
      { topic: 'store', share: 0.5 },
    ],
    best: 3,
    exposureLimit: 0.9,
  },
  seed: 'form 7/B',
};
const open = { met: new Set<string>(), exposureOf: () => 0 };
const levels = [
  { title: 'A', from: 0 },
  { title: 'B', from: 450 },
  { title: 'C', from: 550 },
];
const terms = { scale: { mean: 500, step: 100 }, levels };

/** Sits the section to its end, or for so many steps; each answer as somebody of an ability gives it. */
function sit(
  ability: number,
  { of = section, most = Infinity } = {},
): { steps: Step[]; ended: string | null } {
  const random = seededRandom(`answers ${ability}`);
  const steps: Step[] = [];
  while (steps.length < most) {
    const next = nextStep(of, steps, open);
    if ('ended' in next) return { steps, ended: next.ended };
    const unit = of.pool.find(({ key }) => key === next.step.unit)!;
    steps.push({ ...next.step, score: drawScore(unit, ability, random) });
  }
  return { steps, ended: null };
}

describe('the path through an adaptive section', () => {
  it('goes by the answers, ends by the rules, and can be made again from its rows', () => {
    const [weak, strong] = [sit(-1.5), sit(1.5)];
    expect(weak.steps.map(({ unit }) => unit)).not.toEqual(strong.steps.map(({ unit }) => unit));
    // The first is chosen before anything is known: the same for the same form.
    expect(weak.steps[0]!.unit).toBe(strong.steps[0]!.unit);
    for (const { steps, ended } of [weak, strong]) {
      expect(['error', 'length']).toContain(ended);
      expect(new Set(steps.map(({ unit }) => unit)).size).toBe(steps.length);
      expect(unexplained(section, steps)).toEqual([]);
      expect(unexplained(section, JSON.parse(JSON.stringify(steps)) as Step[])).toEqual([]);
    }
    expect(sit(-1.5).steps).toEqual(weak.steps);
    const other = { ...section, seed: 'form 8/B' };
    expect(drawOf(other, 1)).not.toBe(drawOf(section, 1));
  });

  it('chooses nothing before what is open counts', () => {
    const { steps } = sit(0, { most: 2 });
    const waiting = [...steps.slice(0, -1), { ...steps.at(-1)!, score: null }];
    expect(() => nextStep(section, waiting, open)).toThrow(RangeError);
    expect(() => nextStep(section, [{ ...steps[0]!, unit: 'nothing' }], open)).toThrow('no unit nothing');
  });

  it('ends where nothing is left', () => {
    const small = { ...section, pool: pool.slice(0, 3) };
    expect(sit(0, { of: small }).ended).toBe('pool');
    const met = new Set(pool.map(({ key }) => key));
    expect(nextStep(section, [], { ...open, met })).toEqual({ ended: 'pool' });
  });

  it.each<[string, (step: Step, steps: readonly Step[]) => Partial<Step>]>([
    ['another unit', ({ candidates, unit }) => ({ unit: candidates.find((one) => one.unit !== unit)!.unit })],
    ['a unit for the second time', (_, steps) => ({ unit: steps[0]!.unit })],
    ['another draw', ({ draw }) => ({ draw: (draw + 0.5) % 1 })],
    ['another ability', ({ before }) => ({ before: { ...before, estimate: before.estimate + 0.01 } })],
    ['another error', ({ before }) => ({ before: { ...before, error: Number.NaN } })],
    ['another number', ({ number }) => ({ number: number + 1 })],
    [
      'other information',
      ({ candidates }) => ({
        candidates: candidates.map((one) => ({ ...one, information: one.information + 0.01 })),
      }),
    ],
    [
      'a candidate from elsewhere',
      ({ candidates }) => ({ candidates: candidates.map((one) => ({ ...one, unit: `x${one.unit}` })) }),
    ],
  ])('finds a row that was changed: %s', (_, change) => {
    const { steps } = sit(0.3, { most: 4 });
    const changed = steps.map((step, i) => (i === 2 ? { ...step, ...change(step, steps) } : step));
    expect(unexplained(section, changed).length).toBeGreaterThan(0);
  });

  it('finds a score that was changed by what followed from it', () => {
    const { steps } = sit(0.3, { most: 4 });
    const changed = steps.map((step, i) => (i === 1 ? { ...step, score: 1 - step.score! } : step));
    expect(unexplained(section, changed)).toEqual([3, 4]);
  });
});

describe('the result of an adaptive section', () => {
  it('is complete by the rules, or broken off with a larger error', () => {
    const { steps } = sit(0.8);
    const whole = resultOf(section, steps, terms);
    expect(whole).toMatchObject({ complete: true, length: steps.length });
    const broken = resultOf(section, steps.slice(0, 3), terms);
    expect(broken.complete).toBe(false);
    expect(broken.error).toBeGreaterThan(whole.error);
    expect(whole.found.chances.map(({ title }) => title)).toEqual(['A', 'B', 'C']);
    // With nothing answered: the middle of the prior, 500 of the scale.
    expect(resultOf(section, [], terms)).toMatchObject({ length: 0, complete: false, found: { value: 500 } });
  });

  it('does not count what was open when time ended', () => {
    const { steps } = sit(0.8);
    const late = steps.map((step, i) => (i === steps.length - 1 ? { ...step, score: null } : step));
    const { length, estimate } = resultOf(section, late, terms);
    expect(length).toBe(steps.length - 1);
    expect(estimate).toBeCloseTo(resultOf(section, steps.slice(0, -1), terms).estimate, 12);
  });

  it('leaves a withdrawn question out of the estimate, and the path as it was', () => {
    const { steps } = sit(0.8);
    const withdrawn = new Set([steps[1]!.unit]);
    const without = resultOf(section, steps, { ...terms, withdrawn });
    expect(without.complete).toBe(true);
    expect(without.length).toBe(steps.length - 1);
    expect(without.error).toBeGreaterThan(resultOf(section, steps, terms).error);
    expect(unexplained(section, steps)).toEqual([]);
  });
});
