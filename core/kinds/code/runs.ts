import type { Content } from '../contract';
import type { EvidenceFound, EvidenceRequest, ProgramRun } from '../evidence';
import { caseRun } from './caseInput';
import { checkerRun, OUTPUT_LIMIT_BYTES } from './checkerRun';
import type { CodeAsked, CodeKey } from './content';
import { limitsOf, ownProgram } from './program';
import type { Checker, CodeResponse, TestCase } from './response';

/** Of the requests. */
export const RUN = 'run';
export const TEXT = 'text';
export const CHECK = 'check';
type CodeContent = Content<CodeAsked, CodeKey>;

export const allCases = ({ asked, key }: CodeContent): readonly TestCase[] => [...asked.cases, ...key.cases];
export const checkerOf = ({ asked, key }: CodeContent): Checker | null => asked.checker ?? key.checker;
const fixturesOf = ({ asked, key }: CodeContent) => [...asked.fixtures, ...key.fixtures];

/** The cases of which the marks depend. */
export function countedCases(content: CodeContent): TestCase[] {
  const counted = new Set(content.key.groups.flatMap((group) => group.cases));
  return allCases(content).filter((one) => counted.has(one.key));
}

/** A response as the sandbox runs it with some cases; null where nothing was written. */
export function programRun(
  content: CodeContent,
  response: CodeResponse,
  cases: readonly Pick<TestCase, 'key' | 'input' | 'files'>[],
): ProgramRun | null {
  const { asked } = content;
  const files = ownProgram(asked, response);
  if (files === null) return null;
  return {
    language: response.language,
    files,
    functionName: asked.way.is === 'function' ? asked.way.name : null,
    cases: cases.map((one) => caseRun({ way: asked.way, fixtures: fixturesOf(content) }, one)),
    limits: { ...limitsOf(asked, response.language), outputBytes: OUTPUT_LIMIT_BYTES },
  };
}

/** What has to be run for a response, given what has been found so far: the checker comes after the program. */
export function codeEvidence(
  content: CodeContent,
  response: CodeResponse,
  found: Readonly<Record<string, EvidenceFound>>,
): EvidenceRequest[] {
  const cases = countedCases(content);
  const run = programRun(content, response, cases);
  if (run === null) return [];
  const requests: EvidenceRequest[] = [{ key: RUN, sort: 'program', run }];
  const { asked } = content;
  if (asked.conditions.length > 0) {
    const { language, files } = run;
    requests.push({ key: TEXT, sort: 'structure', run: { language, files } });
  }
  const [checker, outcomes] = [checkerOf(content), found[RUN]];
  if (checker && outcomes?.sort === 'program') {
    const check = checkerRun(asked.way, checker, cases, outcomes.outcomes);
    if (check) requests.push({ key: CHECK, sort: 'program', run: check });
  }
  return requests;
}
