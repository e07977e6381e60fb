import { describe, expect, it } from 'vitest';
import { shareOfMarks, showMarks, sumMarks } from './marks';

describe('marks', () => {
  it('sums in exact hundredths where binary fractions would not', () => {
    expect(sumMarks([10, 20])).toBe(30);
  });

  it.each([
    [200, 1, 3, 67], // 66.67 hundredths, half up
    [100, 1, 8, 13], // 12.5 rounds up
    [300, 2, 3, 200],
    [200, -1, 2, 0], // floored at nothing
    [200, 3, 2, 200], // never above the maximum
  ])('takes a share of %i: %i/%i', (maximum, numerator, denominator, expected) => {
    expect(shareOfMarks(maximum, numerator, denominator)).toBe(expected);
  });

  it.each([
    [0, '0'],
    [50, '½'],
    [1250, '12½'],
    [433, '4.33'],
    [-50, '−½'],
    [600, '6'],
  ])('shows %i as %s', (marks, shown) => expect(showMarks(marks)).toBe(shown));

  it('refuses a share of nothing', () => expect(() => shareOfMarks(100, 1, 0)).toThrow(RangeError));
});
