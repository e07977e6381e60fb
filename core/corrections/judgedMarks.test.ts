import { describe, expect, it } from 'vitest';
import type { CandidatePaper } from '../papers/candidatePaper';
import type { Ruling } from '../papers/ruling';
import type { ComponentMark } from '../results/componentMark';
import { totalOf } from '../results/totals';
import { judgedMarks, scaledTotal } from './judgedMarks';

const mark = (
  target: string,
  component: string,
  hundredths: number,
  verdict: ComponentMark['verdict'] = 'partly',
) => ({
  target,
  component,
  hundredths,
  verdict,
  reasons: [],
  level: null,
});
const component = (key: string, of: number) => ({ key, by: 'machine' as const, of, name: null });
const components = new Map([
  ['q/A', [component('a', 100), component('b', 50)]],
  ['q/B', [component('whole', 200)]],
]);
const ruled = (target: string, ruling: Ruling) => ({ rulings: new Map([[target, ruling]]), components });
const WHOLE = { scored: true, asked: null };
const script = [mark('q/A', 'a', 40), mark('q/A', 'b', 0, 'unanswered'), mark('q/B', 'whole', 150)];
const given = (marks: readonly ComponentMark[]) =>
  marks.map((one) => [one.target, one.component, one.hundredths]);

describe('what was decided of a part', () => {
  it('stands for whatever was marked, and the marks of others are as they are', () => {
    const all = judgedMarks(script, ruled('q/A', 'marks for who answered'), WHOLE);
    expect(given(all)).toEqual([
      ['q/B', 'whole', 150],
      ['q/A', 'a', 100],
      ['q/A', 'b', 50],
    ]);
    const none = judgedMarks(script, ruled('q/A', 'withdrawn'), WHOLE);
    expect(none.filter((one) => one.verdict === 'withdrawn').map((one) => one.hundredths)).toEqual([0, 0]);
  });

  it('gives nothing to who gave no answer, unless it is for everybody', () => {
    const left = [mark('q/B', 'whole', 0, 'unanswered')];
    expect(judgedMarks(left, ruled('q/B', 'marks for who answered'), WHOLE)).toEqual(left);
    expect(given(judgedMarks(left, ruled('q/B', 'marks for all'), WHOLE))).toEqual([['q/B', 'whole', 200]]);
  });

  it('waits for the score, and is of those alone who were asked', () => {
    expect(judgedMarks([], ruled('q/B', 'marks for all'), { scored: false, asked: null })).toEqual([]);
    const asked = new Set(['q/A']);
    expect(judgedMarks(script, ruled('q/B', 'withdrawn'), { scored: true, asked })).toEqual(script);
  });
});

describe('a total without a withdrawn part', () => {
  const parts = [
    { target: 'q/A', marks: 150 },
    { target: 'q/B', marks: 200 },
  ];
  const copy = {
    sections: [{ key: 'A' }],
    questions: [{ section: 'A', parts }],
  } as unknown as CandidatePaper;
  const marks = judgedMarks(script, ruled('q/A', 'withdrawn'), WHOLE);

  it('is scaled to the same maximum, or out of less', () => {
    // 150 of 200 is three quarters: 262.5 of 350, rounded half up.
    expect(totalOf({ copy, of: 350, withdrawn: 'scaled' }, marks)).toEqual({
      hundredths: 263,
      of: 350,
      scaledFrom: { hundredths: 150, of: 200 },
    });
    expect(totalOf({ copy, of: 350, withdrawn: 'lowered' }, marks)).toEqual({
      hundredths: 150,
      of: 200,
      scaledFrom: null,
    });
  });

  it('is 0 where everything was withdrawn', () => expect(scaledTotal(0, 0, 350)).toBe(0));
});
