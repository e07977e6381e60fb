import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { runnable } from '../helpers/runnable';

export interface WorkerLimits {
  /** For one task. */
  readonly taskMs: number;
  readonly megabytes: number;
}

/** What became of a task: its result, or how the worker came to an end over it. */
export type Worked<Result> =
  | { readonly result: Result }
  | { readonly ended: 'threw' | 'took too long'; readonly trouble: string };

const START_MS = 30_000;

const ended = (how: 'threw' | 'took too long', trouble: string) => ({ ended: how, trouble });

/**
 * A worker thread that is kept warm and does one task after the other. A task that hangs, or takes the worker with it,
 * costs its own result only: a fresh worker goes on with the next.
 */
export class WarmWorker<Task, Result> {
  private readonly script: URL;
  private readonly limits: WorkerLimits;
  private worker: Promise<Worker> | null = null;
  private last: Promise<unknown> = Promise.resolve();
  /** Of the task that is being done. */
  private settle: (worked: Worked<Result>) => void = () => undefined;

  constructor(script: URL, limits: WorkerLimits) {
    this.script = script;
    this.limits = limits;
  }

  /** Does tasks in their order, after all that came before. */
  work(tasks: readonly Task[]): Promise<Worked<Result>[]> {
    const all = async () => {
      const worked: Worked<Result>[] = [];
      for (const task of tasks) worked.push(await this.doOne(task));
      return worked;
    };
    const done = this.last.then(all);
    this.last = done.catch(() => undefined);
    return done;
  }

  async close(): Promise<void> {
    await this.last;
    void this.worker?.then((worker) => worker.terminate()).catch(() => undefined);
    this.worker = null;
  }

  private async start(): Promise<Worker> {
    const { file, execArgv } = runnable(this.script);
    // A worker gets none of the loaders of the main thread: a source is loaded by a script that brings tsx along.
    const throughTsx = execArgv.length > 0;
    const worker = new Worker(throughTsx ? new URL('../jobs/tsWorker.mjs', import.meta.url) : file, {
      workerData: { script: this.script.href },
      resourceLimits: { maxOldGenerationSizeMb: this.limits.megabytes },
    });
    worker.unref();
    await once(worker, 'message', { signal: AbortSignal.timeout(START_MS) });
    worker.on('message', (result: Result) => this.settle({ result }));
    let trouble: string | null = null;
    worker.on('error', (error) => (trouble = String(error)));
    // Only now is it gone: told at the error, the next task would be given to a worker that is about to end. One that
    // ends while nothing is asked of it costs no task its result.
    worker.on('exit', (code) => {
      this.worker = null;
      this.settle(ended('threw', trouble ?? `the worker ended with ${code}`));
    });
    return worker;
  }

  private async doOne(task: Task): Promise<Worked<Result>> {
    const { taskMs } = this.limits;
    this.worker ??= this.start();
    const worker = await this.worker.catch((error: unknown) => {
      this.worker = null;
      throw error;
    });
    const worked = await new Promise<Worked<Result>>((resolve) => {
      const timer = setTimeout(() => resolve(ended('took too long', `more than ${taskMs} ms`)), taskMs);
      this.settle = (result) => {
        clearTimeout(timer);
        resolve(result);
      };
      worker.postMessage(task);
    });
    this.settle = () => undefined;
    if ('ended' in worked && worked.ended === 'took too long') {
      this.worker = null;
      await worker.terminate();
    }
    return worked;
  }
}
