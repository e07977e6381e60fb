import { shareOfMarks, sumMarks } from '../../marks';
import { plainKind, type Kind, type ProgramRun, type Score, type ScoringInput } from '../contract';
import { unanswered } from '../shared/scores';
import { judgeCase } from './compareOutcome';
import {
  contentSchema,
  responseSchema,
  type CodeContent,
  type CodeResponse,
  type CodeShown,
} from './content';

export const OUTPUT_LIMIT_BYTES = 64 * 1024;

/** The program in the chosen language, or null where it is still the starter or empty. */
function ownProgram(languages: CodeShown['languages'], response: CodeResponse): string | null {
  const program = response.programs[response.language] ?? '';
  const starter = languages.find((l) => l.language === response.language)?.starter ?? '';
  return program.trim() === '' || program.trim() === starter.trim() ? null : program;
}

function score({ content, response, maximum, outcomes }: ScoringInput<CodeContent, CodeResponse>): Score {
  if (ownProgram(content.languages, response) === null) return unanswered;
  if (!outcomes) throw new Error('a program is scored from its runs');
  const results = content.groups.map((group) => {
    const verdicts = group.cases.map((key) => {
      const expected = content.cases.find((c) => c.key === key)!.expected;
      const outcome = outcomes.find((o) => o.key === key);
      return judgeCase(expected, outcome, content.numberTolerance);
    });
    const passed = verdicts.filter((verdict) => verdict === 'accepted').length;
    const worth = shareOfMarks(maximum, group.percent, 100);
    const share = group.counting === 'all' ? Math.floor(passed / verdicts.length) : passed / verdicts.length;
    const troubles = [...new Set(verdicts.filter((verdict) => verdict !== 'accepted'))];
    const why = troubles.length ? ` (${troubles.join(', ')})` : '';
    return {
      hundredths: shareOfMarks(worth, Math.round(share * verdicts.length), verdicts.length),
      reason: `${group.title}: ${passed} of ${verdicts.length} come out as expected${why}.`,
    };
  });
  const hundredths = sumMarks(results.map((r) => r.hundredths));
  const verdict = hundredths >= maximum ? 'right' : hundredths > 0 ? 'partly' : 'wrong';
  return { hundredths, verdict, reasons: results.map((r) => r.reason) };
}

function runs(content: CodeContent, response: CodeResponse): ProgramRun | null {
  const program = ownProgram(content.languages, response);
  if (program === null) return null;
  const counted = new Set(content.groups.flatMap((group) => group.cases));
  return {
    language: response.language,
    program,
    functionName: content.functionName,
    cases: content.cases
      .filter((c) => counted.has(c.key))
      .map((c) => ({ key: c.key, arguments: c.arguments })),
    limits: { ...content.limits, outputBytes: OUTPUT_LIMIT_BYTES },
  };
}

export const code: Kind<CodeContent, CodeShown, CodeResponse> = {
  ...plainKind,
  name: 'code',
  judge: 'cases',
  content: contentSchema,
  response: responseSchema,
  show: (c) => ({
    functionName: c.functionName,
    languages: c.languages.map(({ language, starter }) => ({ language, starter })),
    cases: c.cases
      .filter((test) => test.shown)
      .map((test) => ({
        key: test.key,
        title: test.title,
        arguments: test.arguments,
        expected: test.expected,
      })),
    hiddenCases: c.cases.filter((test) => !test.shown).length,
    groupCount: c.groups.length,
    limits: { milliseconds: c.limits.milliseconds, megabytes: c.limits.megabytes },
    numberTolerance: c.numberTolerance,
  }),
  empty: (shown) => ({ language: shown.languages[0]!.language, programs: {} }),
  misfit: (shown, response) =>
    shown.languages.some((l) => l.language === response.language) ? null : 'no such language here',
  progress: (shown, response) =>
    ownProgram(shown.languages, response) === null
      ? { state: 'empty', missing: 'No program is written yet' }
      : { state: 'done', missing: null },
  ruleInWords: (shown) =>
    shown.numberTolerance > 0
      ? `Figures may differ by ${shown.numberTolerance}.`
      : 'Values are compared exactly.',
  score,
  asText: (shown, response) => ownProgram(shown.languages, response) ?? '',
  textForm: 'program',
  rightAnswer: () => null,
  statistics: (_, response) => [`language:${response.language}`],
  runs,
};
