import { MAIN_FILES } from '../../programs/engine';
import type { Json } from '../evidence';
import type { CodeShown, Language, TestCase } from './response';

/* Version 2 of the content knew one way to state a case. What was asked and what was shown had the same members. */

export interface SecondCase {
  readonly key: string;
  readonly title: string;
  readonly arguments: readonly Json[];
  readonly expected: Json;
}

export const casesOfToday = (cases: readonly SecondCase[]): TestCase[] =>
  cases.map(({ arguments: given, ...one }) => ({ ...one, input: [...given], files: [] }));

interface SecondShown extends Pick<CodeShown, 'hiddenCases' | 'groupCount' | 'limits' | 'criteria'> {
  readonly functionName: string;
  readonly languages: readonly { readonly language: Language; readonly starter: string }[];
  readonly cases: readonly SecondCase[];
  readonly numberTolerance: number;
}

/** Up to version 2 of the content: a function whose arguments are not described, in one file a language. */
export function shownOfToday(stored: unknown): CodeShown {
  if (Object.hasOwn(stored as object, 'way')) return stored as CodeShown;
  const { functionName, languages, cases, numberTolerance, ...rest } = stored as SecondShown;
  return {
    ...rest,
    way: { is: 'function', name: functionName, parameters: null, returns: 'any' },
    languages: languages.map(({ language, starter }) => ({
      language,
      files: [{ name: MAIN_FILES[language], text: starter, open: true, head: '', tail: '' }],
      limits: null,
    })),
    cases: casesOfToday(cases),
    fixtures: [],
    comparison: {
      text: 'exact',
      within: numberTolerance,
      anyOrder: false,
      columnNames: false,
      byChecker: false,
    },
    checker: null,
    conditions: [],
  };
}
