import { describe, expect, it } from 'vitest';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import type { CaseOutcome, EvidenceFound, Json } from '../evidence';
import { sameValue } from './compareOutcome';
import { readContent } from '../authoring';
import { keyKindOf } from '../keyKinds';
import { codeKey } from './key';
import type { CodeResponse } from './response';
import { samples } from './samples';

const { content, best, evidence, marks } = samples[0]!;
const ran = evidence!.run!;
if (ran.sort !== 'program') throw new Error('the sample of programs has run one');
const right = ran.outcomes[0]!;
const slow: CaseOutcome = { key: 'h2', result: 'too-slow', milliseconds: 2000, printed: '' };
const found = (...outcomes: CaseOutcome[]): Record<string, EvidenceFound> => ({
  run: { sort: 'program', outcomes },
});
const grouped = (groups: typeof content.key.groups) => ({ ...content, key: { ...content.key, groups } });
const [main] = content.key.groups;

/** What is run of a response. */
const runsOf = (response: CodeResponse) =>
  codeKey.evidence({ content, response, arrangement: null, place: placeFor(300) });

describe('code', () => {
  it('scores a group in proportion, or only when all its cases pass', () => {
    const half = creditsOf(codeKey, { content, response: best, marks, evidence: found(right, slow) });
    expect(half).toMatchObject([{ component: 'main', hundredths: 150, of: 300, verdict: 'partly' }]);
    expect(half[0]!.reasons.map((r) => r.code)).toEqual(['code.passed', 'code.tooSlow']);
    const strict = grouped([{ ...main!, counting: 'all' }]);
    const none = creditsOf(codeKey, { content: strict, response: best, marks, evidence: found(right, slow) });
    expect(none).toMatchObject([{ hundredths: 0, verdict: 'wrong' }]);
  });

  it('gives exactly the maximum for everything right, whatever the weights of the groups', () => {
    // 1.50 by 33, 33 and 34: 49.5, 49.5 and 51; the hundredth left goes to the first.
    const groups = [33, 33, 34].map((weight, i) => ({ ...main!, key: `g${i}`, weight }));
    const all = creditsOf(codeKey, { content: grouped(groups), response: best, marks: 150, evidence });
    expect(all.map((credit) => credit.hundredths)).toEqual([50, 49, 51]);
  });

  it('shares marks as 1 : 2 exactly', () => {
    const groups = [1, 2].map((weight, i) => ({ ...main!, key: `g${i}`, weight }));
    const all = creditsOf(codeKey, { content: grouped(groups), response: best, marks: 300, evidence });
    expect(all.map((credit) => credit.hundredths)).toEqual([100, 200]);
  });

  it('reads content of the first version, which had per cent', () => {
    const groups = [50, 0, 50].map((percent, i) => {
      const { weight: _, ...rest } = main!;
      return { ...rest, key: `g${i}`, percent };
    });
    const stored = { ...content, key: { ...content.key, groups } };
    const { asked, key } = readContent(keyKindOf('code'), stored, 1) as typeof content;
    expect(key.groups.map((group) => [group.key, group.weight])).toEqual([
      ['g0', 1],
      ['g2', 1],
    ]);
    expect(asked.groupCount).toBe(2);
    expect(() => readContent(keyKindOf('code'), content, 3)).toThrow(/newer/);
  });

  it('compares figures as decimals, the limit of the tolerance included', () => {
    // In binary fractions 0.4 − 0.3 is more than 0.1, and 0.3 is not 0.1 + 0.2.
    expect([sameValue(0.3, 0.4, 0.1), sameValue(0.3, 0.4, 0.09), sameValue(1e21, 1e21 + 131072, 0)]).toEqual([
      true,
      false,
      false,
    ]);
    expect(sameValue([{ x: 1e-7 }], [{ x: 2e-7 }], 1e-7)).toBe(true);
    expect(sameValue([{ x: 1e-7 }], [{ x: 2.1e-7 }], 1e-7)).toBe(false);
  });

  it('leaves to people what the rubric says, and the rest to the cases', () => {
    const read = samples[1]!;
    expect(codeKey.components(read.content, read.marks)).toMatchObject([
      { key: 'main', by: 'machine', of: 300 },
      { key: 'r', by: 'people', of: 100 },
    ]);
    expect(codeKey.check(read.content, placeFor(100)).map((i) => i.message.code)).toEqual([
      'code.rubricTooMuch',
    ]);
  });

  it('is not scored where a case was not run: trouble of the machine is no verdict', () => {
    for (const outcomes of [{}, found(right)])
      expect(() => creditsOf(codeKey, { content, response: best, marks, evidence: outcomes })).toThrow();
  });

  it('sends the counted cases without what is expected, and runs nothing for a starter', () => {
    const [request] = runsOf(best);
    expect(request).toMatchObject({ run: { cases: [{ key: 'h1' }, { key: 'h2' }] } });
    expect(JSON.stringify(request)).not.toContain('62674');
    const { language, starter } = content.asked.languages[0]!;
    expect(runsOf({ language, programs: { [language]: starter } })).toEqual([]);
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
});
