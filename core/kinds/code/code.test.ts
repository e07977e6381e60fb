import { describe, expect, it } from 'vitest';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import type { Structure } from '../../programs/structure';
import type { Value } from '../../programs/value';
import type { CaseOutcome, EvidenceFound, ProgramRun } from '../evidence';
import { readContent } from '../authoring';
import { keyKindOf } from '../keyKinds';
import { code } from './candidate';
import type { CodeAsked, CodeKey } from './content';
import { readChecked, judgeCase } from './judgeCase';
import { codeKey } from './key';
import type { CodeResponse, Condition } from './response';
import { samples } from './samples';
import { issuesOfSolution, proposedLimit } from './solutions';

const { content, best, evidence, marks } = samples[0]!;
const ran = evidence!.run!;
if (ran.sort !== 'program') throw new Error('the sample of programs has run one');
const right = ran.outcomes[0]!;
const returned = (key: string, value: Value): CaseOutcome => ({
  key,
  result: 'returned',
  value,
  milliseconds: 1,
  memoryBytes: 0,
  printed: '',
});
const slow: CaseOutcome = { key: 'h2', result: 'too-slow', milliseconds: 2000, memoryBytes: 0, printed: '' };
const found = (...outcomes: CaseOutcome[]): Record<string, EvidenceFound> => ({
  run: { sort: 'program', outcomes },
});
const withKey = (key: Partial<CodeKey>, asked: Partial<CodeAsked> = {}) => ({
  asked: { ...content.asked, ...asked },
  key: { ...content.key, ...key },
});
const grouped = (groups: typeof content.key.groups) => withKey({ groups }, { groupCount: groups.length });
const [main] = content.key.groups;
const codesOf = (credit: { reasons: readonly { code: string }[] }) => credit.reasons.map((r) => r.code);

/** What is run of a response, once something was found. */
const runsOf = (response: CodeResponse, of = content, before: Record<string, EvidenceFound> = {}) =>
  codeKey.evidence({ content: of, response, arrangement: null, place: placeFor(300) }, before);

describe('code', () => {
  it('scores a group in proportion, or only when all its cases pass, and names its cases by outcome', () => {
    const half = creditsOf(codeKey, { content, response: best, marks, evidence: found(right, slow) });
    expect(half).toMatchObject([{ component: 'main', hundredths: 150, of: 300, verdict: 'partly' }]);
    expect(half[0]!.reasons).toEqual([
      { code: 'code.passed', values: { passed: 1, all: 2 } },
      { code: 'code.casesAccepted', values: { titles: 'hidden one' } },
      { code: 'code.casesTooSlow', values: { titles: 'hidden two' } },
    ]);
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

  it('a group that needs an earlier one earns nothing before that is complete', () => {
    const groups = [
      { ...main!, key: 'first', title: 'Usual', cases: ['h2'] },
      { ...main!, key: 'then', cases: ['h1'], needs: 'first' },
    ];
    const scored = (outcomes: Record<string, EvidenceFound>) =>
      creditsOf(codeKey, { content: grouped(groups), response: best, marks: 200, evidence: outcomes });
    expect(scored(evidence!).map((credit) => credit.hundredths)).toEqual([100, 100]);
    const [, after] = scored(found(right, slow));
    expect(after).toMatchObject({
      hundredths: 0,
      reasons: [{ code: 'code.needs', values: { title: 'Usual' } }, {}, {}],
    });
    const backwards = grouped([groups[1]!, groups[0]!]);
    expect(codeKey.check(backwards, placeFor(300)).map((issue) => issue.message.code)).toEqual([
      'code.needsMissing',
    ]);
  });

  it('tells samples in full where they differ, and hidden cases where the question shows them', () => {
    const groups = [{ ...main!, cases: ['seen', 'h1'] }];
    const outcomes = found(returned('seen', ['i', '5']), returned('h1', ['i', '0']));
    const reasons = (showsHidden: boolean) =>
      creditsOf(codeKey, {
        content: withKey({ groups }, { showsHidden }),
        response: best,
        marks,
        evidence: outcomes,
      })[0]!.reasons.slice(2);
    const sample = {
      code: 'code.caseInFull',
      values: { title: 'two', input: '[2]', expected: '4', got: '5' },
    };
    expect(reasons(false)).toEqual([sample]);
    expect(reasons(true)).toMatchObject([sample, { values: { title: 'hidden one', expected: '62674' } }]);
  });

  it('lets the author’s checker decide, in shares with a reason; one that breaks is left to people', () => {
    const checker = { language: 'python', program: 'def check(i, e, g): return True' } as const;
    const own = withKey({ checker }, { comparison: { ...content.asked.comparison, byChecker: true } });
    const outcomes = found(right, returned('h2', ['i', '7']));
    // Asked for once the program has run, of what it came to.
    expect(runsOf(best, own).map(({ key }) => key)).toEqual(['run']);
    const [, request] = runsOf(best, own, outcomes);
    expect(request).toMatchObject({
      key: 'check',
      run: { functionName: 'check', cases: [{}, { key: 'h2' }] },
    });
    expect(JSON.parse((request!.run as ProgramRun).cases[1]!.input)).toEqual([
      ['l', ['i', '-4242']],
      ['i', '-8484'],
      ['i', '7'],
    ]);
    const share: Value = ['m', 'share', ['f', '0.5'], 'reason', 'half way'];
    const checked = (value: Value) => ({
      ...outcomes,
      check: { sort: 'program', outcomes: [returned('h1', true), returned('h2', value)] } as const,
    });
    const [credit] = creditsOf(codeKey, { content: own, response: best, marks, evidence: checked(share) });
    // 100 and 50 of 200 hundredths: 225 of 300.
    expect(credit).toMatchObject({ hundredths: 225, verdict: 'partly' });
    expect(credit!.reasons.at(-1)).toEqual({
      code: 'code.caseReason',
      values: { title: 'hidden two', reason: 'half way' },
    });
    const scored = { content: own, response: best, arrangement: null, place: placeFor(marks), siblings: {} };
    const [broken] = codeKey.score({ ...scored, evidence: checked('yes') });
    expect(broken).toMatchObject({ component: 'main', undecided: 'the checker gave no verdict' });
    for (const value of [['m', 'share', ['i', '2']], ['m', 'share', ['f', 'nan']], 'x', ['m']] as Value[])
      expect(readChecked(returned('h1', value))).toBeNull();
  });

  it('judges conditions by the structure of the text, each a component', () => {
    const conditions: Condition[] = [
      { key: 'no-loop', is: 'loop', must: false },
      { key: 'calls', is: 'recursion', must: true },
      { key: 'sorted', is: 'name', must: false, name: 'sorted' },
      { key: 'math', is: 'import', must: true, name: 'os' },
      { key: 'short', is: 'lines', most: 5, weight: 2 },
    ];
    const own = withKey({}, { conditions });
    const structure: Structure = {
      recursion: true,
      loop: true,
      names: ['f'],
      imports: ['os.path'],
      lines: 6,
    };
    const scored = (found: Structure | null) =>
      creditsOf(codeKey, {
        content: own,
        response: best,
        marks: 700,
        evidence: { ...evidence, text: { sort: 'structure', structure: found } },
      });
    expect(runsOf(best, own).map(({ sort }) => sort)).toEqual(['program', 'structure']);
    expect(scored(structure).map((credit) => credit.hundredths)).toEqual([100, 0, 100, 100, 100, 0]);
    expect(codesOf(scored(structure)[5]!)).toEqual(['code.conditionNotMet', 'code.conditionLines']);
    expect(scored(null).map((credit) => credit.hundredths)).toEqual([100, 0, 0, 0, 0, 0]);
  });

  it('reads content of the first version, which had per cent, and of the second, which knew functions alone', () => {
    const old = {
      asked: {
        functionName: 'double',
        languages: [{ language: 'python', starter: 'def double(n):\n    pass\n' }],
        cases: [{ key: 'seen', title: 'two', arguments: [2], expected: 4 }],
        hiddenCases: 1,
        groupCount: 2,
        limits: { milliseconds: 2000, megabytes: 64 },
        numberTolerance: 0.5,
        criteria: [],
      },
      key: {
        cases: [{ key: 'h1', title: 'hidden', arguments: [3], expected: 6 }],
        groups: [50, 0, 50].map((percent, i) => ({
          key: `g${i}`,
          title: '',
          cases: ['h1'],
          counting: 'all',
          percent,
        })),
        rubric: null,
      },
    };
    const { asked, key } = readContent(keyKindOf('code'), old, 1) as typeof content;
    expect(key.groups.map((group) => [group.key, group.weight])).toEqual([
      ['g0', 1],
      ['g2', 1],
    ]);
    expect(asked).toMatchObject({
      groupCount: 2,
      way: { is: 'function', name: 'double', parameters: null, returns: 'any' },
      comparison: { within: 0.5 },
      languages: [
        { language: 'python', files: [{ name: 'program.py', text: 'def double(n):\n    pass\n' }] },
      ],
    });
    // As before a whole figure counts by its value, whatever the program calls it.
    expect(judgeCase(asked, 6, returned('h1', ['f', '6.0']))).toBe('accepted');
    expect(() => readContent(keyKindOf('code'), content, 4)).toThrow(/newer/);
    const first = { language: 'python', programs: { python: 'x = 1' } };
    const today = { language: 'python', programs: { python: { 'program.py': 'x = 1' } } } as const;
    expect(code.upgradeResponse(first, 1)).toEqual(today);
    // What was marked then is still what was marked.
    expect(code.markedAs!(today)).toEqual(first);
    const more = { ...today, programs: { python: { 'program.py': 'x = 1', 'more.py': '' } } };
    expect(code.markedAs!(more)).toEqual(more);
  });

  it('compares outputs, and rows with or without the names of their columns', () => {
    const streams = { way: { is: 'streams' }, comparison: content.asked.comparison } as const;
    expect(judgeCase(streams, '3\n', returned('a', '3'))).toBe('accepted');
    const rows = (name: string, ...all: Value[]): Value => [
      'm',
      'columns',
      ['l', name],
      'rows',
      ['l', ...all],
    ];
    const query = (more: Partial<CodeAsked['comparison']>) => ({
      way: { is: 'query' } as const,
      comparison: { ...content.asked.comparison, ...more },
    });
    const expected = { columns: ['n'], rows: [[1], [2]] };
    const got = returned('a', rows('m', ['l', ['i', '2']], ['l', ['i', '1']]));
    expect(judgeCase(query({}), expected, got)).toBe('wrong');
    expect(judgeCase(query({ anyOrder: true }), expected, got)).toBe('accepted');
    expect(judgeCase(query({ anyOrder: true, columnNames: true }), expected, got)).toBe('wrong');
    expect(judgeCase(query({}), null, returned('a', null))).toBe('accepted');
  });

  it('tells what of a question does not fit together', () => {
    const codes = (key: Partial<CodeKey>, asked: Partial<CodeAsked>) =>
      codeKey.check(withKey(key, asked), placeFor(300)).map((issue) => issue.message.code);
    const { asked } = content;
    const [seen] = asked.cases;
    expect(codes({}, {})).toEqual([]);
    expect(codes({}, { cases: [{ ...seen!, input: ['x'] }] })).toEqual(['code.inputMisfit']);
    expect(codes({}, { cases: [{ ...seen!, expected: 1.5 }] })).toEqual(['code.expectedMisfit']);
    expect(codes({}, { languages: [{ language: 'sql', files: [], limits: null }] })).toContain(
      'code.sqlAlone',
    );
    expect(codes({}, { comparison: { ...asked.comparison, byChecker: true } })).toEqual([
      'code.checkerMissing',
    ]);
    const locked = { name: 'program.py', text: '', open: false, head: '', tail: '' };
    expect(codes({}, { languages: [{ language: 'python', files: [locked], limits: null }] })).toEqual([
      'code.noOpenFile',
    ]);
    const solution = { language: 'python', files: { 'other.py': '' }, right: true } as const;
    expect(codes({ solutions: [solution] }, {})).toEqual(['code.solutionLanguage']);
  });

  it('a solution has to pass, a wrong one to be found, and a limit is proposed from its time', () => {
    const solution = { response: best, right: true };
    expect(issuesOfSolution(content, solution, evidence!)).toEqual([]);
    expect(issuesOfSolution(content, solution, found(right, slow))).toMatchObject([
      { severity: 'severe', message: { code: 'code.solution-tooSlow', values: { title: 'hidden two' } } },
    ]);
    expect(issuesOfSolution(content, { ...solution, right: false }, evidence!)).toMatchObject([
      { severity: 'advice', message: { code: 'code.wrongNotFound' } },
    ]);
    // 4 × 610 ms is 2,440: above the 2,000 of the question.
    const long = found(...ran.outcomes.map((one) => ({ ...one, milliseconds: 610 })));
    expect(issuesOfSolution(content, solution, long)).toMatchObject([
      { severity: 'advice', message: { code: 'code.solutionSlow', values: { took: 610, limit: 2500 } } },
    ]);
    expect([proposedLimit(10), proposedLimit(300)]).toEqual([1000, 1200]);
  });

  it('takes no more text than can be saved, and no file that has a name of its own kind of trouble', () => {
    const valid = (programs: unknown) => !codeKey.response.validate({ language: 'python', programs }).error;
    const text = 'x'.repeat(50_000);
    expect(valid({ python: { 'program.py': text }, sql: { 'query.sql': text } })).toBe(true);
    expect(valid({ python: { 'program.py': `${text}x` } })).toBe(false);
    expect(valid({ python: { 'program.py': text, 'a.py': text, 'b.py': text } })).toBe(false);
    for (const name of ['../a.py', '.env', 'a/b.py', ''])
      expect(valid({ python: { [name]: '' } }), name).toBe(false);
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

  it('sends the counted cases without what is expected, whole files, and runs nothing for a starter', () => {
    const [request] = runsOf(best);
    expect(request).toMatchObject({
      run: { cases: [{ key: 'h1', input: '[["i","31337"]]' }, { key: 'h2' }] },
    });
    expect(JSON.stringify(request)).not.toContain('62674');
    const framed = withKey(
      {},
      {
        languages: [
          {
            language: 'python',
            limits: null,
            files: [
              { name: 'program.py', text: 'body', open: true, head: 'head\n', tail: '\ntail' },
              { name: 'tools.py', text: 'tools', open: false, head: '', tail: '' },
            ],
          },
        ],
      },
    );
    const written = {
      language: 'python',
      programs: { python: { 'program.py': 'mine', 'tools.py': 'x' } },
    } as const;
    const [run] = runsOf(written, framed);
    expect(run).toMatchObject({
      run: {
        files: [
          { name: 'program.py', text: 'head\nmine\ntail' },
          { name: 'tools.py', text: 'tools' },
        ],
      },
    });
    const starter = { language: 'python', programs: { python: { 'program.py': 'body' } } } as const;
    expect(runsOf(starter, framed)).toEqual([]);
  });
});
