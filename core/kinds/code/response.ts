import type { ProgramFile } from '../../programs/engine';
import type { Signature, ValueType } from '../../programs/signature';
import type { TextRule } from '../../programs/compareText';
import { type Json } from '../evidence';
import { PROGRAM_LANGUAGES, type ProgramLanguage } from '../../programs/languages';

export const LANGUAGES = PROGRAM_LANGUAGES;
export type Language = ProgramLanguage;

/**
 * How a case is stated: a function is called with arguments; a program reads a standard input and writes an output; or a
 * query is asked of a database. A function whose arguments are not described takes any (questions of before).
 */
export type Way =
  | {
      readonly is: 'function';
      readonly name: string;
      readonly parameters: Signature['parameters'] | null;
      readonly returns: ValueType;
    }
  | { readonly is: 'streams' }
  | { readonly is: 'query' };

/** A file of a program. What stands before and after an open one's text cannot be changed. */
export interface AskedFile extends ProgramFile {
  readonly open: boolean;
  readonly head: string;
  readonly tail: string;
}

export interface Limits {
  readonly milliseconds: number;
  readonly megabytes: number;
}

export interface LanguageAsked {
  readonly language: Language;
  /** The first one is run. None: one open file that follows from the way cases are stated. */
  readonly files: readonly AskedFile[];
  /** Where this language has limits of its own. */
  readonly limits: Limits | null;
}

/** When an output or a value is the expected one. */
export interface Comparison {
  /** Of what a program wrote. */
  readonly text: TextRule;
  /** Decimals may differ by this much. */
  readonly within: number;
  /** Of the lines, of the elements of a list, or of the rows. */
  readonly anyOrder: boolean;
  /** Do the names of columns count? */
  readonly columnNames: boolean;
  /** A program of the author decides instead. */
  readonly byChecker: boolean;
}

/** What the text of a program must have, or must not have. */
export type Condition = TextCondition | NameCondition | LinesCondition;

interface Weighted {
  readonly key: string;
  readonly weight?: number | undefined;
}
interface TextCondition extends Weighted {
  readonly is: 'recursion' | 'loop';
  readonly must: boolean;
}
interface NameCondition extends Weighted {
  readonly is: 'name' | 'import';
  readonly must: boolean;
  readonly name: string;
}
interface LinesCondition extends Weighted {
  readonly is: 'lines';
  readonly most: number;
}

/** A database: what sets it up, in SQL. */
export interface Fixture {
  readonly key: string;
  readonly title: string;
  readonly sql: string;
}

/** A program of the author that says whether an output is right: its function `check(input, expected, got)`. */
export interface Checker {
  readonly language: Exclude<Language, 'sql'>;
  readonly program: string;
}

export interface TestCase {
  readonly key: string;
  readonly title: string;
  /** The list of arguments; the standard input as text; or the key of a fixture. */
  readonly input: Json;
  readonly files: readonly ProgramFile[];
  readonly expected: Json;
}

export interface CodeShown {
  readonly way: Way;
  readonly languages: readonly LanguageAsked[];
  readonly cases: readonly TestCase[];
  readonly fixtures: readonly Fixture[];
  readonly hiddenCases: number;
  readonly groupCount: number;
  readonly limits: Limits;
  readonly comparison: Comparison;
  /** Given where it may be seen: then samples are judged on the device too. */
  readonly checker: Checker | null;
  readonly conditions: readonly Condition[];
  /** By what people judge the program besides, and what each is worth. */
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

/** A run on the candidate's device: with which cases, and what each came to. */
export interface RunEvent {
  readonly language: Language;
  readonly cases: readonly { readonly key: string; readonly verdict: string }[];
}

/** Characters that a file may have, all files of a response together, and an input of the candidate's own. */
export const [FILE_MOST, PROGRAMS_MOST, INPUT_MOST] = [50_000, 120_000, 5_000];

/** Characters of all files in all languages. */
export const lengthOf = ({ programs }: Pick<CodeResponse, 'programs'>): number =>
  Object.values(programs).reduce(
    (sum, files) => sum + Object.values(files ?? {}).reduce((own, text) => own + text.length, 0),
    0,
  );

/** The texts of the open files in the languages that were tried, by name, and the language that counts. */
export interface CodeResponse {
  readonly language: Language;
  readonly programs: { readonly [L in Language]?: Readonly<Record<string, string>> | undefined };
}
