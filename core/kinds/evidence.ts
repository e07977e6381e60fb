import type { Form } from '../expressions/forms';
import type { JudgeOptions } from '../expressions/judge';
import type { Comparison } from '../expressions/judgement';
import type { Fault } from '../programs/engine';

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** One call of a program in the sandbox. What is expected never goes with it. */
export interface CaseRun {
  readonly key: string;
  readonly arguments: readonly Json[];
}

/** What the sandbox can run. A program in SQL is given the text that sets its database up, as its one argument. */
export type ProgramLanguage = 'python' | 'javascript' | 'typescript' | 'sql';

export interface ProgramRun {
  readonly language: ProgramLanguage;
  readonly program: string;
  readonly functionName: string;
  readonly cases: readonly CaseRun[];
  /** Limits of each case; the milliseconds are of processor time. */
  readonly limits: {
    readonly milliseconds: number;
    readonly megabytes: number;
    readonly outputBytes: number;
  };
}

export type CaseOutcome = {
  readonly key: string;
  /** Processor time. */
  readonly milliseconds: number;
  readonly printed: string;
} & (
  | { readonly result: 'returned'; readonly value: Json }
  | {
      readonly result: 'error';
      readonly fault: Fault;
      /** The program's own words, where it has some. */
      readonly text: string;
      /** Of the program, where it is known. */
      readonly line: number | null;
    }
  | { readonly result: 'too-slow' | 'too-much-memory' | 'too-much-output' }
);

/** Two expressions to be compared, and the form that the given one is to have. */
export interface ExpressionRun {
  readonly key: string;
  readonly given: string;
  readonly form: Form | null;
  readonly options: Omit<JudgeOptions, 'isLate' | 'seed'>;
}

/** Something to be run before a part can be scored, by a worker that knows its sort; the key is unique in the part. */
export type EvidenceRequest =
  | { readonly key: string; readonly sort: 'program'; readonly run: ProgramRun }
  | { readonly key: string; readonly sort: 'expression'; readonly run: ExpressionRun };

/** What was found: stored with the sitting, so that a rescore or an appeal does not have to run it again. */
export type EvidenceFound =
  | { readonly sort: 'program'; readonly outcomes: readonly CaseOutcome[] }
  | ExpressionFound;

export interface ExpressionFound {
  readonly sort: 'expression';
  readonly is: Comparison | 'unreadable';
  /** For people who look into it. */
  readonly why: string;
  /** Null where no form is asked, or where it cannot be told. */
  readonly inForm: boolean | null;
}
