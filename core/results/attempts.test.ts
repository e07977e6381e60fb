import { describe, expect, it } from 'vitest';
import { sumMarks } from '../marks';
import type { CandidatePaper } from '../papers/candidatePaper';
import { countedAttempts, marksOfCounted, totalOfCounted, type MarkedPaper } from './attempts';
import type { ComponentMark } from './componentMark';

const mark = (target: string, hundredths: number, change: Partial<ComponentMark> = {}): ComponentMark => ({
  target,
  component: 'whole',
  hundredths,
  verdict: 'partly',
  level: null,
  reasons: [{ code: `why.${hundredths}` }],
  ...change,
});
const attemptOf = (n: number, marks: readonly ComponentMark[]) => ({
  attempt: n,
  marks,
  total: sumMarks(marks.map((m) => m.hundredths)),
});
const attempt = (n: number, ...of: number[]) =>
  attemptOf(
    n,
    of.map((hundredths, i) => mark(`q${i + 1}/A`, hundredths)),
  );
const [first, second, third] = [attempt(1, 300, 100), attempt(2, 200, 300), attempt(3, 400, 100)];
/** A paper that asks everybody the same. */
const SAME = { draws: false };
const numbers = (attempts: readonly { attempt: number }[]) => attempts.map((a) => a.attempt);
const hundredths = (counted: Parameters<typeof marksOfCounted>[0]) =>
  marksOfCounted(counted, SAME).marks.map((m) => m.hundredths);

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
    expect(marksOfCounted([], SAME)).toEqual({ marks: [], remarks: {}, meanOf: null });
  });
});

describe('the marks of a result', () => {
  it('are those of the one attempt that counts, untouched', () => {
    expect(marksOfCounted([second], SAME).marks).toBe(second.marks);
  });

  it('are part by part the mean, which adds up, with what it is the mean of', () => {
    const { marks, remarks } = marksOfCounted([first, second, third], SAME);
    // (3 + 2 + 4) / 3 = 3; (1 + 3 + 1) / 3 = 1.666… → 1.67
    expect(marks.map((m) => m.hundredths)).toEqual([300, 167]);
    expect(remarks['q1/A']).toEqual([{ code: 'sheet.meanOf', values: { count: 3, marks: '3, 2, 4' } }]);
    expect(marks[0]!.reasons).toEqual([{ code: 'why.400' }]);
  });

  it('round once a part, however many components it has', () => {
    const parts = (n: number, a: number, b: number) =>
      attemptOf(n, [mark('q1/A', a, { component: 'a' }), mark('q1/A', b, { component: 'b' })]);
    // a: (1 + 2) / 2 = 1.5, b: (1 + 2) / 2 = 1.5; together 3, not 2 + 2.
    expect(hundredths([parts(1, 1, 1), parts(2, 2, 2)])).toEqual([2, 1]);
  });

  it('round half a hundredth up, also below nought, and keep no level', () => {
    const one = attemptOf(1, [mark('q1/A', -25, { level: 2 })]);
    const two = attemptOf(2, [mark('q1/A', 50, { level: 2 })]);
    // (−0.25 + 0.50) / 2 = 0.125 → 0.13
    expect(marksOfCounted([one, two], SAME).marks[0]).toMatchObject({
      hundredths: 13,
      verdict: null,
      level: null,
    });
    // (−0.25 + 0) / 2 = −0.125 → −0.12
    expect(hundredths([one, attemptOf(2, [mark('q1/A', 0)])])).toEqual([-12]);
  });

  it('are the mean of the totals where attempts had different questions: nothing is lost', () => {
    const paper: MarkedPaper = {
      copy: { questions: [], sections: [] } as unknown as CandidatePaper,
      components: new Map(),
      rulings: new Map(),
      rulesDrawn: false,
      withdrawn: 'scaled',
      of: 500,
      draws: true,
    };
    const other = attemptOf(2, [mark('q8/A', 250), mark('q9/A', 100)]);
    const { marks, remarks, meanOf } = marksOfCounted([first, other], paper);
    // The newest attempt's own marks are shown; (4 + 3.5) / 2 = 3.75.
    expect([marks, remarks, meanOf]).toEqual([other.marks, {}, [400, 350]]);
    expect(totalOfCounted([first, other], paper)).toBe(375);
    // One alone is as it is marked: nothing of this copy has a section.
    expect(marksOfCounted([other], paper).meanOf).toBeNull();
  });
});
