import type { Fault } from '../programs/engine';

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** One call of a program in the sandbox. What is expected never goes with it. */
export interface CaseRun {
  readonly key: string;
  readonly arguments: readonly Json[];
}

/** What the code box can run. A program in SQL is given the text that sets its database up, as its one argument. */
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

/** Something to be run before a part can be scored, by a worker that knows its sort. Later: queries, expressions. */
export interface EvidenceRequest {
  /** Unique within the part. */
  readonly key: string;
  readonly sort: 'program';
  readonly run: ProgramRun;
}

/** What was found: stored with the sitting, so that a rescore or an appeal does not have to run it again. */
export interface EvidenceFound {
  readonly sort: 'program';
  readonly outcomes: readonly CaseOutcome[];
}
