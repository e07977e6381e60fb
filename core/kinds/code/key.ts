import type { KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { checkCode } from './check';
import type { CodeAsked, CodeKey } from './content';
import type { CodeResponse, CodeShown, Condition, Limits } from './response';
import { codeFacts, inspectCode, runCodeAgain } from './inspect';
import { codeEvidence } from './runs';
import { codeComponents, scoreCode } from './score';
import { casesOfToday, shownOfToday, type SecondCase } from './secondVersion';
import { askedSchema, inputsSchema, keySchema, responseSchema, runSchema } from './schemas';
import { issuesOfSolution, solutionResponses } from './solutions';

interface FirstContent {
  readonly asked: unknown;
  readonly key: { readonly groups: readonly { readonly percent: number }[] };
}

/** Version 1 had per cent of the groups, which had to be 100 together; version 2 has whole weights. */
function withWeights(stored: unknown): unknown {
  const { asked, key } = stored as FirstContent;
  const divisor = key.groups.map((group) => group.percent).reduce(commonDivisor, 0);
  // A group of no per cent earned nothing: it goes.
  const groups = key.groups
    .filter(({ percent }) => percent > 0)
    .map(({ percent, ...group }) => ({ ...group, weight: percent / divisor }));
  return { asked: { ...(asked as object), groupCount: groups.length }, key: { ...key, groups } };
}

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b);
}

/** Version 2 knew functions alone, whose arguments are not described. */
function withWays(stored: unknown): unknown {
  const { asked, key } = stored as { asked: unknown; key: { cases: readonly SecondCase[] } };
  return {
    asked: { ...shownOfToday(asked), showsHidden: false },
    key: { ...key, cases: casesOfToday(key.cases), fixtures: [], checker: null, solutions: [] },
  };
}

const upgradeContent = (stored: unknown, from: number): unknown =>
  withWays(from === 1 ? withWeights(stored) : stored);

const limitsCopy = ({ milliseconds, megabytes }: Limits): Limits => ({ milliseconds, megabytes });

/** What a condition is worth is told with the marks of its part, not here. */
function conditionCopy(one: Condition): Condition {
  const { key } = one;
  if (one.is === 'lines') return { key, is: one.is, most: one.most };
  if (one.is === 'name' || one.is === 'import') return { key, is: one.is, must: one.must, name: one.name };
  return { key, is: one.is, must: one.must };
}

/** The candidate's copy, member by member. */
function showCode(asked: CodeAsked): CodeShown {
  const { way, comparison, checker } = asked;
  return {
    way:
      way.is === 'function'
        ? { is: way.is, name: way.name, parameters: way.parameters, returns: way.returns }
        : { is: way.is },
    languages: asked.languages.map(({ language, files, limits }) => ({
      language,
      files: files.map(({ name, text, open, head, tail }) => ({ name, text, open, head, tail })),
      limits: limits && limitsCopy(limits),
    })),
    cases: asked.cases.map(({ key, title, input, files, expected }) => ({
      key,
      title,
      input,
      files: files.map(({ name, text }) => ({ name, text })),
      expected,
    })),
    fixtures: asked.fixtures.map(({ key, title, sql }) => ({ key, title, sql })),
    hiddenCases: asked.hiddenCases,
    groupCount: asked.groupCount,
    limits: limitsCopy(asked.limits),
    comparison: {
      text: comparison.text,
      within: comparison.within,
      anyOrder: comparison.anyOrder,
      columnNames: comparison.columnNames,
      byChecker: comparison.byChecker,
    },
    checker: checker && { language: checker.language, program: checker.program },
    conditions: asked.conditions.map(conditionCopy),
    criteria: asked.criteria.map(({ title, hundredths }) => ({ title, hundredths })),
  };
}

export const codeKey: KeyKind<CodeAsked, CodeKey, CodeShown, CodeResponse, null> = {
  ...plainKey,
  name: 'code',
  contentVersion: 3,
  upgradeContent,
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  events: { inputs: inputsSchema, run: runSchema },
  blank: () => ({
    asked: {
      way: {
        is: 'function',
        name: 'answer',
        parameters: [{ name: 'number', type: 'whole' }],
        returns: 'whole',
      },
      languages: [{ language: 'python', files: [], limits: null }],
      cases: [],
      fixtures: [],
      hiddenCases: 1,
      groupCount: 1,
      limits: { milliseconds: 2000, megabytes: 64 },
      comparison: { text: 'lines', within: 0, anyOrder: false, columnNames: false, byChecker: false },
      checker: null,
      conditions: [],
      showsHidden: false,
      criteria: [],
    },
    key: {
      cases: [{ key: 'a', title: '', input: [1], files: [], expected: 1 }],
      fixtures: [],
      groups: [{ key: 'all', title: '', cases: ['a'], counting: 'proportion' }],
      checker: null,
      solutions: [],
      rubric: null,
    },
  }),
  documents: ['key.rubric.scheme', 'key.rubric.modelAnswer'],
  check: checkCode,
  arrange: () => null,
  show: showCode,
  components: codeComponents,
  markScheme: ({ key }) => key.rubric?.scheme ?? null,
  modelAnswer: ({ key }) => key.rubric?.modelAnswer ?? null,
  runsPrograms: true,
  evidence: ({ content, response }, found) => codeEvidence(content, response, found),
  score: scoreCode,
  rightResponse: () => null,
  solutions: solutionResponses,
  issuesOfSolution,
  inspect: inspectCode,
  runAgain: runCodeAgain,
  facts: codeFacts,
};
