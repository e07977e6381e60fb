import { message } from '../../messages/message';
import type { Content, Issue, KeyKind, Place } from '../contract';
import { plainKey } from '../plainKey';
import { severe } from '../shared/issues';
import { criteriaMatch, maximumOfRubric } from '../shared/rubric';
import type { CodeAsked, CodeKey } from './content';
import { ownProgram } from './ownProgram';
import type { CodeResponse, CodeShown } from './response';
import { codeComponents, programRuns, scoreCode } from './score';
import { askedSchema, keySchema, responseSchema } from './schemas';

/** All cases of a program together. */
const MOST_MS = 10 * 60_000;

function check({ asked, key }: Content<CodeAsked, CodeKey>, { marks }: Place): Issue[] {
  const cases = [...asked.cases, ...key.cases].map((one) => one.key);
  const { groups, rubric } = key;
  const issues: Issue[] = [];
  if (new Set(cases).size !== cases.length) issues.push(severe(['key', 'cases'], message('code.sameKey')));
  if (!groups.every((group) => group.cases.every((one) => cases.includes(one))))
    issues.push(severe(['key', 'groups'], message('code.caseMissing')));
  if (asked.hiddenCases !== key.cases.length || asked.groupCount !== groups.length)
    issues.push(severe(['asked', 'hiddenCases'], message('code.countsDiffer')));
  if (rubric ? !criteriaMatch(asked.criteria, rubric) : asked.criteria.length > 0)
    issues.push(severe(['asked', 'criteria'], message('author.criteriaDiffer')));
  // What a program takes at most, should every case go up to its limit: others wait for it.
  if ((asked.cases.length + key.cases.length) * asked.limits.milliseconds > MOST_MS)
    issues.push(severe(['asked', 'limits'], message('code.limitsTooLong')));
  if (rubric && maximumOfRubric(rubric) >= marks)
    issues.push(severe(['key', 'rubric'], message('code.rubricTooMuch')));
  return issues;
}

interface FirstContent {
  readonly asked: unknown;
  readonly key: { readonly groups: readonly { readonly percent: number }[] };
}

/** Version 1 had per cent of the groups, which had to be 100 together; version 2 has whole weights. */
function upgradeContent(stored: unknown): unknown {
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

export const codeKey: KeyKind<CodeAsked, CodeKey, CodeShown, CodeResponse, null> = {
  ...plainKey,
  name: 'code',
  contentVersion: 2,
  upgradeContent,
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  blank: () => ({
    asked: {
      functionName: 'answer',
      languages: [{ language: 'python', starter: 'def answer():\n    pass\n' }],
      cases: [],
      hiddenCases: 1,
      groupCount: 1,
      limits: { milliseconds: 2000, megabytes: 64 },
      numberTolerance: 0,
      criteria: [],
    },
    key: {
      cases: [{ key: 'a', title: '', arguments: [], expected: null }],
      groups: [{ key: 'all', title: '', cases: ['a'], counting: 'proportion' }],
      rubric: null,
    },
  }),
  documents: ['key.rubric.scheme', 'key.rubric.modelAnswer'],
  check,
  arrange: () => null,
  show: (asked) => ({
    functionName: asked.functionName,
    languages: asked.languages.map(({ language, starter }) => ({ language, starter })),
    cases: asked.cases.map(({ key, title, arguments: given, expected }) => ({
      key,
      title,
      arguments: given,
      expected,
    })),
    hiddenCases: asked.hiddenCases,
    groupCount: asked.groupCount,
    limits: { milliseconds: asked.limits.milliseconds, megabytes: asked.limits.megabytes },
    numberTolerance: asked.numberTolerance,
    criteria: asked.criteria.map(({ title, hundredths }) => ({ title, hundredths })),
  }),
  components: codeComponents,
  markScheme: ({ key }) => key.rubric?.scheme ?? null,
  modelAnswer: ({ key }) => key.rubric?.modelAnswer ?? null,
  runsPrograms: true,
  evidence: ({ content, response }) => programRuns(content, response),
  score: scoreCode,
  rightResponse: () => null,
  facts: ({ content: { asked, key }, response }) =>
    ownProgram(asked.languages, response) === null
      ? []
      : [{ component: key.groups[0]!.key, type: 'language', answer: response.language, right: null }],
};
