import { message, type Message } from '../../messages/message';
import { showValue } from '../../programs/value';
import type { Component, Content, Found, ScoringInput } from '../contract';
import type { CaseOutcome, EvidenceFound } from '../evidence';
import { creditOf, share, undecided, weightedComponents } from '../shared/credits';
import { maximumOfRubric, rubricComponents } from '../shared/rubric';
import { conditionReasons, conditionText, isMet } from './conditions';
import { expectedValue, judgeCase, readChecked, type CaseVerdict } from './judgeCase';
import type { CaseGroup, CodeAsked, CodeKey } from './content';
import type { CodeResponse, TestCase } from './response';
import { allCases, CHECK, checkerOf, RUN, TEXT } from './runs';

type CodeContent = Content<CodeAsked, CodeKey>;
type Evidence = Readonly<Record<string, EvidenceFound>>;

/** A component for each group of cases and each condition, of what the rubric leaves, and one for each criterion. */
export function codeComponents({ asked, key: { groups, rubric } }: CodeContent, marks: number): Component[] {
  const forMachine = marks - (rubric ? maximumOfRubric(rubric) : 0);
  const byMachine = weightedComponents(
    [
      ...groups.map(({ key, title, weight }) => ({
        key,
        name: message('author.text', { text: title }),
        weight,
      })),
      ...asked.conditions.map((one) => ({ key: one.key, name: conditionText(one), weight: one.weight })),
    ],
    forMachine,
  );
  return [...byMachine, ...(rubric ? rubricComponents(rubric) : [])];
}

/** What a case came to: its verdict, and the share of it that is earned, in hundredths. */
export interface JudgedCase {
  readonly key: string;
  readonly title: string;
  readonly verdict: CaseVerdict;
  readonly share: number;
  /** The checker's line, or empty. */
  readonly reason: string;
  readonly outcome: CaseOutcome;
}

const outcomesOf = (found: EvidenceFound | undefined) => (found?.sort === 'program' ? found.outcomes : []);

/** A case by what was found of it; null where its checker gave no verdict. Throws where it was not run: trouble never scores. */
export function judgedCase(content: CodeContent, one: TestCase, evidence: Evidence): JudgedCase | null {
  const { key, title, expected } = one;
  const outcome = outcomesOf(evidence[RUN]).find((found) => found.key === key);
  if (!outcome) throw new Error(`case ${key} was not run`);
  const plain = { key, title, outcome, reason: '' };
  if (checkerOf(content) === null || outcome.result !== 'returned') {
    const verdict = judgeCase(content.asked, expected, outcome);
    return { ...plain, verdict, share: verdict === 'accepted' ? 100 : 0 };
  }
  const check = outcomesOf(evidence[CHECK]).find((found) => found.key === key);
  if (!check) throw new Error(`case ${key} was not checked`);
  const checked = readChecked(check);
  if (checked === null) return null;
  return { ...plain, ...checked, verdict: checked.share === 100 ? 'accepted' : 'wrong' };
}

const VERDICTS: readonly CaseVerdict[] = [
  'accepted',
  'wrong',
  'error',
  'tooSlow',
  'tooMuchMemory',
  'tooMuchOutput',
];
const upper = (word: string) => word[0]!.toUpperCase() + word.slice(1);
const SHOWN = 200;
const cut = (text: string) => (text.length > SHOWN ? `${text.slice(0, SHOWN - 1)}…` : text);

/** Hidden cases by name and outcome; samples in full, and hidden ones too where the paper shows them afterwards. */
function reasonsOf(content: CodeContent, judged: readonly JudgedCase[], language: string): Message[] {
  const { asked } = content;
  const byVerdict = VERDICTS.flatMap((verdict) => {
    const titles = judged.filter((one) => one.verdict === verdict).map(({ title }) => title);
    return titles.length === 0 ? [] : [message(`code.cases${upper(verdict)}`, { titles: titles.join(', ') })];
  });
  const said = judged
    .filter(({ reason }) => reason !== '')
    .map(({ title, reason }) => message('code.caseReason', { title, reason }));
  const inFull = judged.flatMap(({ key, title, verdict, outcome }) => {
    const one = allCases(content).find((own) => own.key === key)!;
    const told = asked.showsHidden || asked.cases.includes(one);
    if (!told || verdict !== 'wrong' || outcome.result !== 'returned') return [];
    const expected = expectedValue(asked.way, one.expected);
    const values = {
      title,
      input: cut(JSON.stringify(one.input)),
      expected: cut(expected === undefined ? '' : showValue(expected, language)),
      got: cut(showValue(outcome.value, language)),
    };
    return [message('code.caseInFull', values)];
  });
  return [...byVerdict, ...said, ...inFull];
}

interface Judging {
  readonly content: CodeContent;
  readonly evidence: Evidence;
  readonly language: string;
}

/** Sum of the shares of a group's cases; null where one of them has no verdict. */
function judgedGroup({ content, evidence }: Judging, group: CaseGroup): JudgedCase[] | null {
  const judged = group.cases.map((key) =>
    judgedCase(
      content,
      allCases(content).find((one) => one.key === key)!,
      evidence,
    ),
  );
  return judged.includes(null) ? null : (judged as JudgedCase[]);
}

function creditOfGroup(judging: Judging, group: CaseGroup, component: Component): Found {
  const { groups } = judging.content.key;
  const judged = judgedGroup(judging, group);
  const needed = groups.find(({ key }) => key === group.needs);
  const before = needed ? judgedGroup(judging, needed) : [];
  if (judged === null || before === null) return undecided(component, 'the checker gave no verdict');
  const reasons = [
    message('code.passed', { passed: judged.filter((one) => one.share === 100).length, all: judged.length }),
    ...reasonsOf(judging.content, judged, judging.language),
  ];
  if (needed && before.some((one) => one.share < 100))
    return creditOf(component, share(0, 1), [message('code.needs', { title: needed.title }), ...reasons]);
  const [earned, all] = [judged.reduce((sum, one) => sum + one.share, 0), judged.length * 100];
  return creditOf(component, share(group.counting === 'all' && earned < all ? 0 : earned, all), reasons);
}

export function scoreCode({
  content,
  place,
  response,
  evidence,
}: ScoringInput<CodeAsked, CodeKey, CodeResponse, null>): Found[] {
  const { groups } = content.key;
  const components = codeComponents(content, place.marks);
  if (evidence[RUN]?.sort !== 'program') throw new Error('a program is scored from its runs');
  const judging = { content, evidence, language: response.language };
  const forGroups = groups.map((group, i) => creditOfGroup(judging, group, components[i]!));
  const { conditions } = content.asked;
  const text = evidence[TEXT];
  if (conditions.length > 0 && text?.sort !== 'structure')
    throw new Error('a condition is judged by the structure of a program');
  const structure = text?.sort === 'structure' ? text.structure : null;
  const forConditions = conditions.map((condition, i) => {
    const met = structure !== null && isMet(structure, condition);
    return creditOf(
      components[groups.length + i]!,
      share(met ? 1 : 0, 1),
      conditionReasons(structure, condition),
    );
  });
  return [...forGroups, ...forConditions];
}
