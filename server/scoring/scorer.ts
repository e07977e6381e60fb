import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { PartToScore } from '../../core/scoring/scorePart';
import type { ScoreFound } from './serveScoring';

/** How long a part may take; no rule of scoring takes more than some milliseconds. */
const PART_MS = 5000;
const START_MS = 30_000;
const MEGABYTES = 256;

const failed = (failure: 'threw' | 'took too long', trouble: string): ScoreFound => ({ failure, trouble });

/**
 * Scores parts in a worker thread that is kept warm. A part that hangs, or takes the worker with it, costs its own score
 * only: a fresh worker goes on with the next.
 */
export class Scorer {
  private readonly script: URL;
  private worker: Promise<Worker> | null = null;
  private last: Promise<unknown> = Promise.resolve();
  /** Of the part that is being scored. */
  private settle: (found: ScoreFound) => void = () => undefined;

  constructor(script = new URL('./scoringWorker.ts', import.meta.url)) {
    this.script = script;
  }

  /** The scores by target. Scripts are done one after the other. */
  score(parts: readonly PartToScore[]): Promise<ReadonlyMap<string, ScoreFound>> {
    const work = async () => {
      const found = new Map<string, ScoreFound>();
      for (const part of parts) found.set(part.target, await this.scoreOne(part));
      return found;
    };
    const done = this.last.then(work);
    this.last = done.catch(() => undefined);
    return done;
  }

  async close(): Promise<void> {
    await this.last;
    this.discard();
  }

  private discard(): void {
    void this.worker?.then((worker) => worker.terminate()).catch(() => undefined);
    this.worker = null;
  }

  private async start(): Promise<Worker> {
    const worker = new Worker(new URL('../jobs/tsWorker.mjs', import.meta.url), {
      workerData: { script: this.script.href },
      resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
    });
    worker.unref();
    await once(worker, 'message', { signal: AbortSignal.timeout(START_MS) });
    worker.on('message', (found: ScoreFound) => this.settle(found));
    let trouble: string | null = null;
    worker.on('error', (error) => (trouble = String(error)));
    // Only now is it gone: told at the error, the next part would be given to a worker that is about to end. One that
    // ends while nothing is asked of it costs no part its score.
    worker.on('exit', (code) => {
      this.worker = null;
      this.settle(failed('threw', trouble ?? `the worker ended with ${code}`));
    });
    return worker;
  }

  private async scoreOne(part: PartToScore): Promise<ScoreFound> {
    this.worker ??= this.start();
    const worker = await this.worker.catch((error: unknown) => {
      this.worker = null;
      throw error;
    });
    const found = await new Promise<ScoreFound>((resolve) => {
      const timer = setTimeout(() => resolve(failed('took too long', `more than ${PART_MS} ms`)), PART_MS);
      this.settle = (result) => {
        clearTimeout(timer);
        resolve(result);
      };
      worker.postMessage(part);
    });
    this.settle = () => undefined;
    if ('failure' in found && found.failure === 'took too long') {
      this.worker = null;
      await worker.terminate();
    }
    return found;
  }
}
