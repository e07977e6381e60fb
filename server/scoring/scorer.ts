import type { PartToScore } from '../../core/scoring/scorePart';
import type { ScoreFound } from './scoreOne';
import { WarmWorker } from './warmWorker';

/** How long a part may take; no rule of scoring takes more than some milliseconds. */
const LIMITS = { taskMs: 5000, megabytes: 256 };

/** Scores parts in a worker thread. A part that hangs, or takes the worker with it, costs its own score only. */
export class Scorer {
  private readonly worker: WarmWorker<PartToScore, ScoreFound>;

  constructor(script = new URL('./scoringWorker.ts', import.meta.url)) {
    this.worker = new WarmWorker(script, LIMITS);
  }

  /** The scores by target. Scripts are done one after the other. */
  async score(parts: readonly PartToScore[]): Promise<ReadonlyMap<string, ScoreFound>> {
    const worked = await this.worker.work(parts);
    return new Map(
      parts.map((part, i) => {
        const one = worked[i]!;
        return [part.target, 'result' in one ? one.result : { failure: one.ended, trouble: one.trouble }];
      }),
    );
  }

  close(): Promise<void> {
    return this.worker.close();
  }
}

export interface HasScorer {
  readonly scorer: Scorer;
}
