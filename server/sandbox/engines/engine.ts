import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import type { ProgramLanguage } from '../../../core/programs/languages';

export type EngineName = 'python' | 'javascript' | 'sql';

export const ENGINE_OF: Record<ProgramLanguage, EngineName> = {
  python: 'python',
  javascript: 'javascript',
  typescript: 'javascript',
  sql: 'sql',
};

/** What runs one case and is never used again. Never waits: a fork has no event loop to wait in. */
export type RunCase = (job: CaseJob, spentMs: () => number) => Omit<EngineReply, 'cpuMs'>;

/** Runs inside the processes of the box, never in the server. */
export interface Engine {
  /** A state in which no program has run yet, and which shares nothing with any other. */
  fresh(): Promise<RunCase>;
  /** A program of ours that uses the engine's usual parts, so that they are compiled before somebody needs them. */
  readonly warmUp: CaseJob;
}
