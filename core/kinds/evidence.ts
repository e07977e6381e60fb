import type { Form } from '../expressions/forms';
import type { JudgeOptions } from '../expressions/judge';
import type { Comparison } from '../expressions/judgement';
import type { Fault, FaultPlace, ProgramFile } from '../programs/engine';
import type { ProgramLanguage } from '../programs/languages';
import type { Structure } from '../programs/structure';
import type { Value } from '../programs/value';

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** One case of a program in the sandbox. What is expected never goes with it. */
export interface CaseRun {
  readonly key: string;
  /** JSON of the list of arguments, as values; the standard input; or what sets a database up. */
  readonly input: string;
  readonly files: readonly ProgramFile[];
}

export interface ProgramRun {
  readonly language: ProgramLanguage;
  /** The first one is run; it may use the others. */
  readonly files: readonly ProgramFile[];
  /** The function that is called; null where the program reads an input and writes an output, and for a query. */
  readonly functionName: string | null;
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
  /** What the engine's memory held more at the end. */
  readonly memoryBytes: number;
  readonly printed: string;
} & (
  | { readonly result: 'returned'; readonly value: Value }
  | {
      readonly result: 'error';
      readonly fault: Fault;
      /** The program's own words, where it has some. */
      readonly text: string;
      /** Where in the program, the innermost place last; empty where it is not known. */
      readonly at: readonly FaultPlace[];
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

/** A program whose text is looked at, not run. */
export interface StructureRun {
  readonly language: ProgramLanguage;
  readonly files: readonly ProgramFile[];
}

/** Something to be run before a part can be scored, by a worker that knows its sort; the key is unique in the part. */
export type EvidenceRequest =
  | { readonly key: string; readonly sort: 'structure'; readonly run: StructureRun }
  | { readonly key: string; readonly sort: 'program'; readonly run: ProgramRun }
  | { readonly key: string; readonly sort: 'expression'; readonly run: ExpressionRun };

/** What was found: stored with the sitting, so that a rescore or an appeal does not have to run it again. */
export type EvidenceFound =
  | { readonly sort: 'program'; readonly outcomes: readonly CaseOutcome[] }
  /** Null where the text cannot be read as a program. */
  | { readonly sort: 'structure'; readonly structure: Structure | null }
  | ExpressionFound;

export interface ExpressionFound {
  readonly sort: 'expression';
  readonly is: Comparison | 'unreadable';
  /** For people who look into it. */
  readonly why: string;
  /** Null where no form is asked, or where it cannot be told. */
  readonly inForm: boolean | null;
}
