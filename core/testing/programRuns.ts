import type { CaseOutcome, Json, ProgramRun } from '../kinds/evidence';
import type { ProgramLanguage } from '../programs/languages';
import { MAIN_FILES, type CaseJob } from '../programs/engine';
import { givenValue } from '../programs/signature';
import { entriesOf, isList, type Value } from '../programs/value';

export const usualLimits = { milliseconds: 2000, megabytes: 64, outputBytes: 20_000 };

/** What an engine is given: arguments as values; for a query the text that sets its database up. */
const inputOf = (language: ProgramLanguage, given: readonly Json[]): string =>
  language === 'sql'
    ? (given[0] as string)
    : JSON.stringify(given.map((one) => givenValue(one, 'any') ?? null));

/** A program in one file, whose function `f` is called with each of the lists of arguments. */
export const runOf = (
  language: ProgramLanguage,
  program: string,
  cases: readonly (readonly Json[])[] = [[1]],
  limits: Partial<ProgramRun['limits']> = {},
): ProgramRun => ({
  language,
  files: [{ name: MAIN_FILES[language], text: program }],
  functionName: language === 'sql' ? null : 'f',
  cases: cases.map((given, i) => ({ key: `c${i}`, input: inputOf(language, given), files: [] })),
  limits: { ...usualLimits, ...limits },
});

/** The first case of a run, as an engine gets it. */
export function jobOf({ language, files, functionName, cases, limits }: ProgramRun): CaseJob {
  const { input, files: inputFiles } = cases[0]!;
  return { language, files, functionName, input, inputFiles, ...limits, seed: 1 };
}

/** A value as JSON of the usual kind: whole numbers and fractions alike, for what a test looks at. */
export function plainOf(value: Value): Json {
  if (!isList(value)) return value;
  const [type, ...items] = value;
  if (type === 'l' || type === 's') return items.map(plainOf);
  if (type === 'm')
    return Object.fromEntries(
      entriesOf(items).map(([key, one]) => [
        JSON.stringify(plainOf(key)).replace(/^"|"$/g, ''),
        plainOf(one),
      ]),
    );
  return type === 'b' ? String(items[0]) : Number(items[0]);
}

/** An outcome with its value as JSON of the usual kind. */
export const plainOutcome = (outcome: CaseOutcome): object =>
  outcome.result === 'returned' ? { ...outcome, value: plainOf(outcome.value) } : outcome;
