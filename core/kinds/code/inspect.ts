import { languageNames } from '../../programs/languages';
import { typedValue } from '../../programs/signature';
import { showValue, type Value } from '../../programs/value';
import type { Content, Fact, RunAsked, ScoringInput } from '../contract';
import type { CaseOutcome, EvidenceFound, EvidenceRequest } from '../evidence';
import { inputFor } from './caseInput';
import type { CodeAsked, CodeKey } from './content';
import { expectedValue, type CaseVerdict } from './judgeCase';
import { readOwnInput } from './ownInput';
import { ownProgram } from './program';
import type { CodeResponse, TestCase, Way } from './response';
import { allCases, countedCases, programRun, RUN } from './runs';
import { judgedCase } from './score';

/** A case as those who mark see it: what went in, what was expected, and what the box found. */
export interface SeenCase extends Pick<TestCase, 'key' | 'title' | 'input' | 'files'> {
  readonly hidden: boolean;
  readonly expected: Value;
  readonly outcome: CaseOutcome;
  /** Null where the checker gave none. */
  readonly verdict: CaseVerdict | null;
  readonly share: number;
  readonly reason: string;
}

type CodeContent = Content<CodeAsked, CodeKey>;

/** Every case that counted, from what was found when the script was scored: nothing is run for it. */
export function inspectCode({
  content,
  evidence,
}: Pick<ScoringInput<CodeAsked, CodeKey, CodeResponse, null>, 'content' | 'evidence'>): SeenCase[] | null {
  const found = evidence[RUN];
  if (found?.sort !== 'program') return null;
  const { asked } = content;
  return countedCases(content).map((one) => {
    const { key, title, input, files } = one;
    const judged = judgedCase(content, one, evidence);
    const outcome = found.outcomes.find((own) => own.key === key)!;
    const expected = expectedValue(asked.way, one.expected) ?? typedValue(one.expected, 'any') ?? null;
    const hidden = !asked.cases.some((own) => own.key === key);
    const { verdict = null, share = 0, reason = '' } = judged ?? {};
    return { key, title, input, files, hidden, expected, outcome, verdict, share, reason };
  });
}

/** What a case came to, in one line: a value, an error, or the limit that was met. */
function lineOf(outcome: CaseOutcome, language: string): string {
  if (outcome.result === 'returned') return showValue(outcome.value, language);
  return outcome.result === 'error' ? outcome.text || outcome.fault : outcome.result;
}

const LINE_KEPT = 200;

/** The language, and what every case came to where it was run: for the table of answers. */
export function codeFacts({
  content,
  response,
  evidence = {},
}: Pick<ScoringInput<CodeAsked, CodeKey, CodeResponse, null>, 'content' | 'response'> & {
  readonly evidence?: Readonly<Record<string, EvidenceFound>>;
}): Fact[] {
  const { asked, key } = content;
  if (ownProgram(asked, response) === null) return [];
  const { language } = response;
  const seen = inspectCode({ content, evidence }) ?? [];
  return [
    { component: key.groups[0]!.key, type: 'language', answer: languageNames[language], right: null },
    ...seen.map(({ key: own, title, outcome, share }): Fact => {
      const component = key.groups.find((group) => group.cases.includes(own))!.key;
      const answer = lineOf(outcome, language).slice(0, LINE_KEPT);
      return { component, type: 'outcome', of: title, answer, right: share === 100 };
    }),
  ];
}

/** Runs an answer with one of its cases, or with an input of an assessor's own; null for an input that does not fit. */
export function runCodeAgain(
  content: CodeContent,
  response: CodeResponse,
  asked: RunAsked,
): EvidenceRequest | null {
  const { way } = content.asked;
  const one =
    'case' in asked ? allCases(content).find(({ key }) => key === asked.case) : ownCase(way, asked.input);
  const run = one && fits(content, one) ? programRun(content, response, [one]) : null;
  return run && { key: RUN, sort: 'program', run };
}

type RunCase = Pick<TestCase, 'key' | 'input' | 'files'>;

function ownCase(way: Way, text: string): RunCase | undefined {
  const read = readOwnInput(way, text);
  return 'input' in read ? { key: 'own', input: read.input, files: [] } : undefined;
}

/** A query has no inputs but the databases of the question. */
const fits = ({ asked, key }: CodeContent, { input }: RunCase): boolean =>
  inputFor(asked.way, [...asked.fixtures, ...key.fixtures], input) !== undefined;

/** What running again gives back. */
export const outcomeAgain = (found: EvidenceFound): CaseOutcome | null =>
  found.sort === 'program' ? (found.outcomes[0] ?? null) : null;
