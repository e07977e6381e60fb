import { describe, expect, it } from 'vitest';
import { driftOf } from './drift';

const dayOf = (at: number) => `day ${Math.floor(at / 10)}`;

describe('severity over time', () => {
  it('is by tenth of all that was marked, whatever order the marks come in', () => {
    // Twenty marks, two a tenth; every other one is compared: 0 in the first half, 100 in the second.
    const marks = Array.from({ length: 20 }, (_, at) => ({
      at,
      above: at % 2 === 1 ? null : at < 10 ? 0 : 100,
    }));
    const { byTenth } = driftOf(marks.toReversed(), dayOf);
    expect(byTenth.map(({ value }) => value)).toEqual([0, 0, 0, 0, 0, 100, 100, 100, 100, 100]);
    expect(byTenth.every(({ n }) => n === 1)).toBe(true);
  });

  it('is by day, with an interval once there are two marks to compare', () => {
    const marks = [3, 5, 7, 14].map((at) => ({ at, above: at * 10 }));
    const { byDay } = driftOf(marks, dayOf);
    // 30, 50 and 70 have the mean 50 and the deviation 20: 50 ± 4.3027 · 20 / √3 = 49.68….
    expect(byDay.map(({ day, severity }) => [day, severity.n, severity.value])).toEqual([
      ['day 0', 3, 50],
      ['day 1', 1, 140],
    ]);
    const [first] = byDay;
    if (first!.severity.value === null) throw new Error('three marks have a mean');
    expect(first!.severity.interval![1] - 50).toBeCloseTo((4.302652729911275 * 20) / Math.sqrt(3), 6);
  });

  it('is not told of a tenth or a person without anything to compare', () => {
    const { byTenth, byDay } = driftOf([{ at: 1, above: null }], dayOf);
    expect(byTenth.map(({ value }) => value)).toEqual(Array.from({ length: 10 }, () => null));
    expect(byDay).toMatchObject([{ day: 'day 0', severity: { value: null } }]);
    expect(driftOf([], dayOf).byDay).toEqual([]);
  });
});
