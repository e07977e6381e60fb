import { message } from '../../messages/message';
import type { Content, Issue, SolutionTried } from '../contract';
import type { EvidenceFound } from '../evidence';
import { languageNames } from '../../programs/languages';
import { advice, severe } from '../shared/issues';
import type { CodeAsked, CodeKey } from './content';
import { isMet } from './conditions';
import { limitsOf } from './program';
import type { CodeResponse } from './response';
import { countedCases, RUN, TEXT } from './runs';
import { judgedCase } from './score';

type CodeContent = Content<CodeAsked, CodeKey>;

export const solutionResponses = ({ key }: CodeContent): SolutionTried<CodeResponse>[] =>
  key.solutions.map(({ language, files, right }) => ({
    response: { language, programs: { [language]: files } },
    right,
  }));

/** A proposed limit: four times the longest run of the author's own solution, at least a second, in steps of 100 ms. */
export const proposedLimit = (longestMs: number): number =>
  Math.max(1000, Math.ceil((4 * longestMs) / 100) * 100);

/** What running a solution of the author showed: a right one has to pass everything, a wrong one has to be found. */
export function issuesOfSolution(
  content: CodeContent,
  { response, right }: SolutionTried<CodeResponse>,
  evidence: Readonly<Record<string, EvidenceFound>>,
): Issue[] {
  const language = languageNames[response.language];
  const path = ['key', 'solutions'];
  const judged = countedCases(content).map((one) => ({ one, found: judgedCase(content, one, evidence) }));
  const failed = judged.find(({ found }) => found === null || found.share < 100);
  if (!right) return failed ? [] : [advice(path, message('code.wrongNotFound', { language }))];
  const issues: Issue[] = [];
  if (failed) {
    const verdict = failed.found?.verdict ?? 'checker';
    const values = { language, title: failed.one.title };
    issues.push(severe(path, message(`code.solution-${verdict}`, values)));
  }
  const text = evidence[TEXT];
  const structure = text?.sort === 'structure' ? text.structure : null;
  if (content.asked.conditions.some((one) => structure === null || !isMet(structure, one)))
    issues.push(severe(path, message('code.solutionFailsCondition', { language })));
  const run = evidence[RUN];
  const took = Math.max(0, ...(run?.sort === 'program' ? run.outcomes.map((one) => one.milliseconds) : []));
  const limit = proposedLimit(took);
  if (!failed && limit > limitsOf(content.asked, response.language).milliseconds)
    issues.push(advice(path, message('code.solutionSlow', { language, took: Math.round(took), limit })));
  return issues;
}
