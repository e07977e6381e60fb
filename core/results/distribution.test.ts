import { describe, expect, it } from 'vitest';
import { barsOf } from './distribution';

describe('the bars of a distribution', () => {
  it('are of three whole marks each where 53 marks have no bands', () => {
    // 53 / 20 is 2.65: three marks each, from 0 to 51.
    expect(barsOf(5300, [])).toEqual(Array.from({ length: 18 }, (_, i) => i * 300));
  });

  it('begin where bands begin', () => {
    // 22, 35 and 45 have one mark in common.
    expect(barsOf(5300, [0, 2200, 3500, 4500])).toEqual(Array.from({ length: 54 }, (_, i) => i * 100));
    // 20 and 30 have ten in common; two and a half divide them, not three: the largest of at most three is two and a half.
    expect(barsOf(5300, [2000, 3000])[1]).toBe(250);
  });

  it('are cut where a band would divide one and equal bars would be too many', () => {
    const bars = barsOf(5300, [3333, 4001]);
    expect(bars.length).toBe(20);
    expect(bars).toEqual(expect.arrayContaining([3300, 3333, 3600, 3900, 4001, 4200]));
  });

  it.each([
    [5300, [0, 2200, 3500, 4500]],
    [4800, [1650, 2850]],
    [100, [33]],
    [10_000, [4999, 5000]],
  ])('of %i marks never hold two bands', (of, bands) => {
    const bars = barsOf(of, bands);
    const inside = bands.filter((from) => !bars.includes(from));
    expect([inside, bars[0], bars.length <= 90]).toEqual([[], 0, true]);
  });
});
