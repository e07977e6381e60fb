import { describe, expect, it } from 'vitest';
import { krippendorffAlpha } from './alpha';

/** Four observers, twelve units, some values missing: the example of Krippendorff, "Computing Krippendorff's Alpha-Reliability" (2011), part C. */
const EXAMPLE = [
  [1, 1, 1],
  [2, 2, 3, 2],
  [3, 3, 3, 3],
  [3, 3, 3, 3],
  [2, 2, 2, 2],
  [1, 2, 3, 4],
  [4, 4, 4, 4],
  [1, 1, 2, 1],
  [2, 2, 2, 2],
  [5, 5, 5],
  [1, 1],
  [3],
];

describe('Krippendorff’s alpha', () => {
  it('is that of the published example, which leaves out the unit with one value', () => {
    // Published: interval 0.849, ordinal 0.815.
    const interval = krippendorffAlpha('interval', EXAMPLE, 0);
    expect(interval).toMatchObject({ n: 11, interval: null });
    expect(interval.value).toBeCloseTo(0.849, 3);
    expect(krippendorffAlpha('ordinal', EXAMPLE, 0).value).toBeCloseTo(0.815, 3);
  });

  it('does not depend on who gave which mark, and has the same interval every time', () => {
    const turned = EXAMPLE.map((one) => one.toReversed());
    const [a, b] = [EXAMPLE, turned].map((one) => krippendorffAlpha('ordinal', one));
    expect(b).toEqual(a);
    if (a?.value == null || !a.interval) throw new Error('there is no interval');
    expect(a.interval[0]).toBeLessThan(a.value);
    expect(a.interval[1]).toBeGreaterThan(a.value);
    expect(a.interval[1]).toBeLessThanOrEqual(1);
  });

  it('is not there for too few responses, or where all marks are the same', () => {
    expect(krippendorffAlpha('interval', [[1, 2], [3]])).toMatchObject({ value: null, reason: 'too few' });
    expect(
      krippendorffAlpha('interval', [
        [1, 1],
        [1, 1],
      ]),
    ).toMatchObject({ value: null, reason: 'no variation' });
  });
});
