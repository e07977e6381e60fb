import { message, type Message } from '../../messages/message';
import type { Component, Content, Credit, ScoringInput } from '../contract';
import type { EvidenceRequest } from '../evidence';
import { creditOf, share, weightedComponents } from '../shared/credits';
import { maximumOfRubric, rubricComponents } from '../shared/rubric';
import { judgeCase } from './compareOutcome';
import type { CodeAsked, CodeKey } from './content';
import { ownProgram } from './ownProgram';
import type { CodeResponse } from './response';

export const OUTPUT_LIMIT_BYTES = 64 * 1024;
const RUN = 'run';

type CodeContent = Content<CodeAsked, CodeKey>;

/** A component for each group of cases, of what the rubric leaves, and one for each criterion. */
export function codeComponents({ key: { groups, rubric } }: CodeContent, marks: number): Component[] {
  const forCases = marks - (rubric ? maximumOfRubric(rubric) : 0);
  const byMachine = weightedComponents(
    groups.map(({ key, title, weight }) => ({ key, name: message('author.text', { text: title }), weight })),
    forCases,
  );
  return [...byMachine, ...(rubric ? rubricComponents(rubric) : [])];
}

const allCases = ({ asked, key }: CodeContent) => [...asked.cases, ...key.cases];

export function programRuns(content: CodeContent, response: CodeResponse): EvidenceRequest[] {
  const { asked, key } = content;
  const program = ownProgram(asked.languages, response);
  if (program === null) return [];
  const counted = new Set(key.groups.flatMap((group) => group.cases));
  const cases = allCases(content).filter((one) => counted.has(one.key));
  const run = {
    language: response.language,
    program,
    functionName: asked.functionName,
    cases: cases.map((one) => ({ key: one.key, arguments: one.arguments })),
    limits: { ...asked.limits, outputBytes: OUTPUT_LIMIT_BYTES },
  };
  return [{ key: RUN, sort: 'program', run }];
}

export function scoreCode({
  content,
  place,
  evidence,
}: ScoringInput<CodeAsked, CodeKey, CodeResponse, null>): Credit[] {
  const found = evidence[RUN];
  if (found?.sort !== 'program') throw new Error('a program is scored from its runs');
  const { outcomes } = found;
  const components = codeComponents(content, place.marks);
  return content.key.groups.map((group, i) => {
    const verdicts = group.cases.map((key) => {
      const { expected } = allCases(content).find((one) => one.key === key)!;
      const outcome = outcomes.find((one) => one.key === key);
      // A case that was not run is trouble of the machine, which never scores.
      if (!outcome) throw new Error(`case ${key} was not run`);
      return judgeCase(expected, outcome, content.asked.numberTolerance);
    });
    const [passed, all] = [verdicts.filter((verdict) => verdict === 'accepted').length, verdicts.length];
    const earned = group.counting === 'all' && passed < all ? 0 : passed;
    const troubles = [...new Set(verdicts.filter((verdict) => verdict !== 'accepted'))];
    const reasons: Message[] = [
      message('code.passed', { passed, all }),
      ...troubles.map((trouble) => message(`code.${trouble}`)),
    ];
    return creditOf(components[i]!, share(earned, all), reasons);
  });
}
