import { MAIN_FILES } from '../../programs/engine';
import { givenValue } from '../../programs/signature';
import type { Value } from '../../programs/value';
import type { CaseOutcome, Json, ProgramRun } from '../evidence';
import { argumentsOf } from './caseInput';
import type { Checker, TestCase, Way } from './response';

export const OUTPUT_LIMIT_BYTES = 64 * 1024;
/** What a checker may take: it is the author's, and its time is nobody's mark. */
const CHECKER_LIMITS = { milliseconds: 5000, megabytes: 128, outputBytes: OUTPUT_LIMIT_BYTES };

const anyValue = (json: Json): Value => givenValue(json, 'any') ?? null;

/** The input of a case as a checker is given it. */
const inputValue = (way: Way, input: Json): Value =>
  way.is === 'function' ? ['l', ...(argumentsOf(way, input) ?? [])] : anyValue(input);

/** The checker with what a program came to, case by case; null where there is nothing to check. */
export function checkerRun(
  way: Way,
  { language, program }: Checker,
  cases: readonly TestCase[],
  outcomes: readonly CaseOutcome[],
): ProgramRun | null {
  const runs = cases.flatMap(({ key, input, expected }) => {
    const outcome = outcomes.find((one) => one.key === key);
    if (outcome?.result !== 'returned') return [];
    const given = [inputValue(way, input), anyValue(expected), outcome.value];
    return [{ key, input: JSON.stringify(given), files: [] }];
  });
  if (runs.length === 0) return null;
  const files = [{ name: MAIN_FILES[language], text: program }];
  return { language, files, functionName: 'check', cases: runs, limits: CHECKER_LIMITS };
}
