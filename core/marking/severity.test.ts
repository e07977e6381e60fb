import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random';
import { severities, type MarkBy } from './severity';

const valueOf = (all: ReturnType<typeof severities>, assessor: number) => {
  const one = all.find((found) => found.assessor === assessor)!;
  return one.severity.value;
};

describe('severity by responses and assessors', () => {
  it('is half the mean difference of two on either side, whoever marked first', () => {
    // Assessor 1 gives 100, 300, 200, 2 gives 200, 400, 600: 2 is 200 above 1 in the mean, 100 on either side of the middle.
    const marks: MarkBy[] = [
      { response: 1, assessor: 1, mark: 100 },
      { response: 1, assessor: 2, mark: 200 },
      { response: 2, assessor: 2, mark: 400 },
      { response: 2, assessor: 1, mark: 300 },
      { response: 3, assessor: 1, mark: 200 },
      { response: 3, assessor: 2, mark: 600 },
      // Marked once, it says nothing.
      { response: 4, assessor: 1, mark: 900 },
    ];
    const found = severities(marks);
    expect([valueOf(found, 1), valueOf(found, 2)]).toEqual([expect.closeTo(-100), expect.closeTo(100)]);
    // Differences −100, −100, −400: variance 30000; of half their mean s²/(4·3) = 2500; t(0.975; 2) = 4.30265.
    const { severity } = found[1]!;
    expect(severity.n).toBe(3);
    expect(severity.value === null ? null : severity.interval).toEqual([
      expect.closeTo(100 - 4.302652729911275 * 50, 6),
      expect.closeTo(100 + 4.302652729911275 * 50, 6),
    ]);
  });

  it('reaches over assessors who never meet, and not from one group to another', () => {
    const marks: MarkBy[] = [];
    // 1 and 2 meet, 2 and 3 meet; 4 and 5 meet nobody else; 6 is alone.
    const pair = (response: number, [a, x]: [number, number], [b, y]: [number, number]) =>
      marks.push({ response, assessor: a, mark: x }, { response, assessor: b, mark: y });
    pair(1, [1, 0], [2, 100]);
    pair(2, [2, 300], [3, 500]);
    pair(3, [4, 100], [5, 300]);
    marks.push({ response: 4, assessor: 6, mark: 100 });
    const found = severities(marks);
    // 0, 100 and 300 above the first: less their mean of 400/3.
    expect([1, 2, 3].map((one) => valueOf(found, one))).toEqual(
      [0, 100, 300].map((one) => expect.closeTo(one - 400 / 3, 8) as number),
    );
    expect([4, 5].map((one) => valueOf(found, one))).toEqual([expect.closeTo(-100), expect.closeTo(100)]);
    expect(found.map(({ group }) => group)).toEqual([0, 0, 0, 1, 1, 2]);
    expect(found[5]!.severity).toMatchObject({ value: null, reason: 'too few' });
  });

  it('is recovered within its interval for each of six simulated assessors, in at least 90 of 100 seeds', () => {
    const truth = [-80, -30, 0, 10, 40, 60];
    const caught = truth.map(() => 0);
    for (let seed = 0; seed < 100; seed++) {
      const random = seededRandom(`severity ${seed}`);
      // Nearly normal: the sum of twelve even draws.
      const normal = () => Array.from({ length: 12 }, random).reduce((sum, one) => sum + one, -6);
      const marks = Array.from({ length: 120 }, (_, response) => {
        const quality = 300 + 80 * normal();
        const first = Math.floor(random() * 6);
        const second = (first + 1 + Math.floor(random() * 5)) % 6;
        return [first, second].map((assessor) => ({
          response,
          assessor,
          mark: quality + truth[assessor]! + 50 * normal(),
        }));
      }).flat();
      severities(marks).forEach(({ assessor, severity }) => {
        if (severity.value === null || !severity.interval) throw new Error('there is no interval');
        const [low, high] = severity.interval;
        if (low <= truth[assessor]! && truth[assessor]! <= high) caught[assessor]! += 1;
      });
    }
    for (const count of caught) expect(count).toBeGreaterThanOrEqual(90);
  });
});
