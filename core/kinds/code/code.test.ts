import { describe, expect, it } from 'vitest';
import { code } from '.';
import type { CaseOutcome, Json } from '../contract';
import { judgeCase, sameValue } from './compareOutcome';
import { samples } from './samples';

const { content, best, outcomes, maximum } = samples[0]!;
const slow: CaseOutcome = { key: 'h2', result: 'too-slow', milliseconds: 2000, printed: '' };

describe('code', () => {
  it('scores a group in proportion, or only when all its cases pass', () => {
    const input = { content, response: best, maximum, outcomes: [outcomes![0]!, slow] };
    expect(code.score(input)).toMatchObject({ hundredths: 150, verdict: 'partly' });
    expect(code.score(input).reasons[0]).toContain('1 of 2 come out as expected (too slow)');
    const strict = { ...content, groups: [{ ...content.groups[0]!, counting: 'all' as const }] };
    expect(code.score({ ...input, content: strict }).hundredths).toBe(0);
  });

  it('sends the counted cases without what is expected', () => {
    const run = code.runs(content, best)!;
    expect(run.cases.map((c) => c.key)).toEqual(['h1', 'h2']);
    expect(JSON.stringify(run)).not.toContain('62674');
  });

  it('runs nothing for a starter', () => {
    const starter = { language: 'python' as const, programs: { python: content.languages[0]!.starter } };
    expect(code.runs(content, starter)).toBeNull();
    expect(code.score({ content, response: starter, maximum }).verdict).toBe('unanswered');
  });

  it.each<[Json, Json, number, boolean]>([
    [0.3, 0.1 + 0.2, 0, false],
    [0.3, 0.1 + 0.2, 1e-9, true],
    [[1, [2]], [1, [2]], 0, true],
    [{ a: 1, b: 2 }, { b: 2, a: 1 }, 0, true],
    [{ a: 1 }, { b: 1 }, 0, false],
    [null, 0, 0, false],
    ['1', 1, 0, false],
  ])('%j and %j within %f: %s', (a, b, tolerance, same) => expect(sameValue(a, b, tolerance)).toBe(same));

  it('an outcome that never came is an error', () => expect(judgeCase(1, undefined, 0)).toBe('error'));
});
