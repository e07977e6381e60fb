import type { EngineReply } from '../../../core/programs/engine';
import type { CaseJob } from '../../../core/programs/engine';
import type { Stopped } from '../processes/messages';

/** How a process ended that did not reply about every case. */
export type RunEnd =
  | { readonly is: 'finished' }
  /** By the one that watches it. */
  | { readonly is: 'stopped'; readonly by: Stopped; readonly cpuMs: number }
  /** By a signal of its own, or without a word. */
  | { readonly is: 'crashed'; readonly forbidden: boolean; readonly cpuMs: number }
  /** Nothing that a program could have done. */
  | { readonly is: 'trouble'; readonly why: string };

export interface Run {
  /** About the first cases, in order; what is missing follows from `end`. */
  readonly replies: readonly EngineReply[];
  readonly end: RunEnd;
}

/** A way to run the cases of one program, each in a state in which nothing else has run. */
export interface Lane {
  readonly name: 'fork' | 'portable';
  /** Cases that it takes in one run. */
  readonly atOnce: number;
  /** Starts what is kept warm; throws where it cannot be started. */
  start(): Promise<void>;
  /** Never throws for what a program does. */
  run(cases: readonly CaseJob[]): Promise<Run>;
  close(): void;
}
