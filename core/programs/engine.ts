import type { ProgramLanguage } from './languages';

export interface ProgramFile {
  readonly name: string;
  readonly text: string;
}

/** One case of a program: one call of its function, one run with an input, or one query. What is expected is never there. */
export interface CaseJob {
  readonly language: ProgramLanguage;
  /** The first one is run; it may use the others. */
  readonly files: readonly ProgramFile[];
  /** The function that is called; null where the program reads an input and writes an output. */
  readonly functionName: string | null;
  /** JSON of the list of arguments, as values; the standard input; or what sets a database up. */
  readonly input: string;
  /** Files that the program can read. */
  readonly inputFiles: readonly ProgramFile[];
  /** Of processor time. */
  readonly milliseconds: number;
  readonly megabytes: number;
  /** Bytes that may be printed, as UTF-8. */
  readonly outputBytes: number;
  /** For what is drawn by chance in the case: another one in every run. */
  readonly seed: number;
}

/** What an engine says of a case. On the server nothing of it is believed: see `outcomeOf`. */
export interface EngineReply {
  readonly limit: 'none' | 'time' | 'memory' | 'output';
  /** Processor time in milliseconds. */
  readonly cpuMs: number;
  /** What the engine's memory held more at the end, in bytes, as far as the engine can tell. */
  readonly memoryBytes: number;
  readonly printed: string;
  /** JSON of a `HarnessReply`. */
  readonly reply: string;
}

/** What can go wrong with a program, as a code; `text` says more where the engine or the program does. */
export const faults = [
  'thrown',
  'noFunction',
  'notComparable',
  'endedItself',
  'waits',
  'tooDeep',
  'ended',
  'forbidden',
  'disturbed',
  'nulCharacter',
] as const;
export type Fault = (typeof faults)[number];

/** A place in the program's own files; the innermost comes last. */
export interface FaultPlace {
  readonly file: string;
  readonly line: number;
  /** The function, where it has a name. */
  readonly in: string;
}

/** What the harness of a language replies about a case. */
export type HarnessReply =
  | { readonly value: unknown }
  | { readonly memory: true }
  | { readonly fault: Fault; readonly text: string; readonly at: readonly FaultPlace[] };

/** As much of a text as is kept of what a program printed, or said when it failed; in characters. */
export const PRINTED_KEPT = 2000;
export const TEXT_KEPT = 400;
export const NAME_KEPT = 60;
/** Places of a traceback: the outermost and the innermost ones. */
export const PLACES_KEPT = 10;

export const faultReply = (fault: Fault, text = '', at: readonly FaultPlace[] = []): string =>
  JSON.stringify({ fault, text: text.slice(0, TEXT_KEPT), at } satisfies HarnessReply);

/** The file of a program that is run, in each language. */
export const MAIN_FILES: Record<ProgramLanguage, string> = {
  python: 'program.py',
  javascript: 'program.js',
  typescript: 'program.ts',
  sql: 'query.sql',
};
