import { describe, expect, it } from 'vitest';
import { sumMarks } from '../marks';
import { countedAttempts, marksOfCounted } from './attempts';
import type { PartMark } from './resultSheet';

const mark = (target: string, hundredths: number, change: Partial<PartMark> = {}): PartMark => ({
  ...{ target, hundredths, verdict: 'partly', reasons: [`why ${hundredths}`], levels: null, comment: '' },
  ...change,
});
const attempt = (n: number, ...of: number[]) => ({
  attempt: n,
  marks: of.map((hundredths, i) => mark(`q${i + 1}/A`, hundredths)),
});
const [first, second, third] = [attempt(1, 300, 100), attempt(2, 200, 300), attempt(3, 400, 100)];
const numbers = (attempts: readonly { attempt: number }[]) => attempts.map((a) => a.attempt);

describe('of several attempts', () => {
  it('count the first, the latest, the best, or all, in whatever order they are given', () => {
    const all = [third, first, second];
    expect(numbers(countedAttempts(all, 'first'))).toEqual([1]);
    expect(numbers(countedAttempts(all, 'latest'))).toEqual([3]);
    // 400, 500 and 500: of equally good ones the later
    expect(numbers(countedAttempts(all, 'best'))).toEqual([3]);
    expect(numbers(countedAttempts([first, second], 'best'))).toEqual([2]);
    expect(numbers(countedAttempts(all, 'mean'))).toEqual([1, 2, 3]);
  });

  it('count none where there was none', () => {
    for (const rule of ['first', 'latest', 'best', 'mean'] as const)
      expect(countedAttempts([], rule)).toEqual([]);
    expect(marksOfCounted([])).toEqual([]);
  });
});

describe('the marks of a result', () => {
  it('are those of the one attempt that counts, untouched', () => {
    expect(marksOfCounted([second])).toBe(second.marks);
  });

  it('are part by part the mean, which adds up, with what it is the mean of', () => {
    const marks = marksOfCounted([first, second, third]);
    // (3 + 2 + 4) / 3 = 3; (1 + 3 + 1) / 3 = 1.666… → 1.67
    expect(marks.map((m) => m.hundredths)).toEqual([300, 167]);
    expect(sumMarks(marks.map((m) => m.hundredths))).toBe(467);
    expect(marks[0]!.reasons).toEqual([
      'The mean of your 3 attempts, which were marked 3 and 2 and 4. The answer shown is the latest.',
      'why 400',
    ]);
  });

  it('round half a hundredth up, also below nought, and keep the comment of the latest but no levels', () => {
    const levels = { a: 2 };
    const one = { attempt: 1, marks: [mark('q1/A', -25, { levels, comment: 'short' })] };
    const two = { attempt: 2, marks: [mark('q1/A', 50, { levels, comment: 'better' })] };
    // (−0.25 + 0.50) / 2 = 0.125 → 0.13
    expect(marksOfCounted([one, two])[0]).toMatchObject({
      ...{ hundredths: 13, verdict: null, levels: null, comment: 'better' },
    });
    const three = { attempt: 2, marks: [mark('q1/A', 0)] };
    // (−0.25 + 0) / 2 = −0.125 → −0.12
    expect(marksOfCounted([one, three])[0]!.hundredths).toBe(-12);
  });
});
