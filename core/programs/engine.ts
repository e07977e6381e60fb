/** One case of a program: one call with these arguments. What is expected is never there. */
export interface CaseJob {
  readonly program: string;
  readonly functionName: string;
  /** JSON of the list of arguments. */
  readonly arguments: string;
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
] as const;
export type Fault = (typeof faults)[number];

/** What the harness of a language replies about a case. */
export type HarnessReply =
  | { readonly value: unknown }
  | { readonly memory: true }
  | { readonly fault: Fault; readonly text: string; readonly line: number | null };

/** As much of a text as is kept of what a program printed, or said when it failed; in characters. */
export const PRINTED_KEPT = 2000;
export const TEXT_KEPT = 400;

export const faultReply = (fault: Fault, text = '', line: number | null = null): string =>
  JSON.stringify({ fault, text: text.slice(0, TEXT_KEPT), line } satisfies HarnessReply);
