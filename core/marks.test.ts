import { describe, expect, it } from 'vitest';
import { alignMarks, allot, shareOfMarks, showMarks, sumMarks } from './marks';
import { seededRandom } from './random';

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

describe('marks shared out by weights', () => {
  it.each([
    // 1 : 2 of 3 marks; by per cent it would be 99 and 201
    [300, [1, 2], [100, 200]],
    [150, [1, 1, 1], [50, 50, 50]],
    // 33⅓ each: the hundredth left to the earlier one
    [100, [1, 1, 1], [34, 33, 33]],
    // 14.28…, 28.57…, 57.14…: the largest remainder is the second's
    [100, [1, 2, 4], [14, 29, 57]],
    [100, [0, 1], [0, 100]],
    [0, [5, 7], [0, 0]],
    [1, [1, 1000], [0, 1]],
    // Weights whose products binary fractions do not hold: 3 · 2⁵² and its neighbour
    [3, [2 ** 52, 2 ** 52 - 1, 2 ** 52 - 1], [1, 1, 1]],
  ])('%i by %j', (total, weights, expected) => expect(allot(total, weights)).toEqual(expected));

  it('add up exactly, each within a hundredth of its share, for any weights', () => {
    const random = seededRandom('weights');
    for (let n = 0; n < 2000; n++) {
      const weights = Array.from(
        { length: 1 + Math.floor(random() * 30) },
        () => Math.floor(random() * 1000) + 1,
      );
      const total = Math.floor(random() * 100_000);
      const shares = allot(total, weights);
      expect(sumMarks(shares)).toBe(total);
      const all = sumMarks(weights);
      shares.forEach((share, i) => expect(Math.abs(share * all - total * weights[i]!)).toBeLessThan(all));
    }
  });

  it.each([[[]], [[0, 0]], [[1, -1]], [[0.5, 1]], [[NaN]]])('are not shared by %j', (weights) =>
    expect(() => allot(100, weights)).toThrow(RangeError),
  );
});

describe('marks in a column', () => {
  it('are as wide as each other behind the point, so that the points stand below each other', () => {
    // A figure space (U+2007) is as wide as a figure, a punctuation space (U+2008) as wide as a point.
    expect([3034, 2950, 3000, -25, 5].map(alignMarks)).toEqual([
      '30.34',
      '29.5\u2007',
      '30\u2008\u2007\u2007',
      '−0.25',
      '0.05',
    ]);
  });
});
