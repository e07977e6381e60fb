import type { GenericSchema } from 'valibot';
import type { Hundredths } from '../marks';
import type { Random } from '../random';

/** How far an answer is: what is missing is said in words a candidate can act on ("Choose 1 more"). */
export interface Progress {
  readonly state: 'empty' | 'part' | 'done';
  readonly missing: string | null;
}

/** Who or what decides the marks: this machine at once, people with a rubric, or runs in the code sandbox. */
export type Judge = 'machine' | 'people' | 'cases';

export interface Score {
  readonly hundredths: Hundredths;
  readonly verdict: 'right' | 'partly' | 'wrong' | 'unanswered';
  /** Why, in sentences for the result sheet; never a right answer (`rightAnswer` gives that). */
  readonly reasons: readonly string[];
}

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** One call of a program in the sandbox. What is expected never goes with it. */
export interface CaseRun {
  readonly key: string;
  readonly arguments: readonly Json[];
}

export interface ProgramRun {
  readonly language: 'python' | 'javascript';
  readonly program: string;
  readonly functionName: string;
  readonly cases: readonly CaseRun[];
  /** Limits of each case. */
  readonly limits: {
    readonly milliseconds: number;
    readonly megabytes: number;
    readonly outputBytes: number;
  };
}

export type CaseOutcome = {
  readonly key: string;
  readonly milliseconds: number;
  readonly printed: string;
} & (
  | { readonly result: 'returned'; readonly value: Json }
  | { readonly result: 'error'; readonly message: string }
  | { readonly result: 'too-slow' | 'too-much-memory' | 'too-much-output' }
);

export interface Rubric {
  readonly scheme: string;
  readonly criteria: readonly {
    readonly key: string;
    readonly title: string;
    readonly levels: readonly {
      readonly hundredths: Hundredths;
      readonly label: string;
      readonly says: string;
    }[];
  }[];
}

/** One countable fact about an answer for the measures, as `option:b` or `gap:2:right`. */
export type Statistic = string;

export interface ScoringInput<Content, Response> {
  readonly content: Content;
  readonly response: Response;
  readonly maximum: Hundredths;
  readonly place?: Place;
  /** Given only where `judge` is `cases`. */
  readonly outcomes?: readonly CaseOutcome[];
}

/**
 * The one face of every kind of part. `Content` is the full content with its key; `Shown` is the allow-listed
 * copy that a candidate may see; `Response` is what the candidate answers. All functions are pure.
 */
export interface Kind<Content, Shown, Response> {
  readonly name: string;
  readonly judge: Judge;
  /** Versions of the stored content and response; raised together with a migration beside the schema. */
  readonly version: 1;
  readonly content: GenericSchema<unknown, Content>;
  readonly response: GenericSchema<unknown, Response>;
  /** Builds the candidate's copy by naming what may be seen. Never spreads the content. */
  show(content: Content, place?: Place): Shown;
  /** A fixed arrangement for one form (shuffled options …). The same random gives the same arrangement. */
  arrange(shown: Shown, random: Random): Shown;
  empty(shown: Shown): Response;
  /** A sentence where a well-formed response cannot belong to this content (an option that is not there). */
  misfit(shown: Shown, response: Response): string | null;
  progress(shown: Shown, response: Response): Progress;
  /** How the marks are given, in one sentence a candidate reads; null where it goes without saying. */
  ruleInWords(shown: Shown): string | null;
  score(input: ScoringInput<Content, Response>): Score;
  /** The answer as plain text, for printouts, the PDF and screen readers. */
  asText(shown: Shown, response: Response): string;
  /** How that text is set: as running words, or line by line in a fixed pitch. */
  readonly textForm: 'words' | 'program';
  rightAnswer(content: Content, place?: Place): string | null;
  /** Can a wrong answer cost marks? Said on the cover and at the last look. */
  wrongCosts(shown: Shown): boolean;
  statistics(content: Content, response: Response): Statistic[];
  rubric(content: Content): Rubric | null;
  runs(content: Content, response: Response): ProgramRun | null;
}

/** What each kind's `samples.ts` exports, for the contract test and for authors. */
export interface Sample<Content, Response> {
  readonly title: string;
  readonly content: Content;
  readonly maximum: Hundredths;
  readonly best: Response;
  readonly partly?: Response;
  /** Strings of the key that must never appear in the candidate's copy. */
  readonly secrets: readonly string[];
  readonly outcomes?: readonly CaseOutcome[];
}

/** Where a part stands: what its kind needs to know beyond its content. */
export interface Place {
  /** The round's locale (BCP 47), by which figures are read and shown. */
  readonly locale: string;
}

/** Where a paper is looked at outside a round. */
export const noPlace: Place = { locale: 'en' };

/** What most kinds have nothing to say about. */
export const plainKind = {
  version: 1,
  textForm: 'words',
  arrange: <T>(shown: T) => shown,
  ruleInWords: () => null,
  wrongCosts: () => false,
  rubric: () => null,
  runs: () => null,
} as const;
