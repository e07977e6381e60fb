import { describe, expect, it } from 'vitest';
import { LEAST_BAR, railHeights } from './railHeights';

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);

describe('the rail’s bars', () => {
  it('grow with the marks, and can always be hit', () => {
    // 13 px a mark, at least 28, at most 110
    expect(railHeights([100, 400, 1200], 1000)).toEqual([LEAST_BAR, 52, 110]);
  });

  it('shrink alike towards the least height where they would overflow', () => {
    const marks = [100, 200, 600, 1200];
    const heights = railHeights(marks, 180);
    expect(sum(heights)).toBeCloseTo(180);
    expect(Math.min(...heights)).toBeGreaterThanOrEqual(LEAST_BAR);
    expect(heights[3]).toBeGreaterThan(heights[2]!);
  });

  it('stay at the least height where even that overflows: then the rail scrolls', () => {
    expect(railHeights(Array<number>(40).fill(300), 200)).toEqual(Array<number>(40).fill(LEAST_BAR));
  });
});
