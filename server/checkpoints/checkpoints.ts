import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { Troubles } from '../machine/troubles';
import { runnable } from '../helpers/runnable';

/** So often that each has little to do, and the log starts again before it is long. */
const EVERY_MS = 50;

/**
 * Moves what was committed from the write-ahead log into the database, in a thread of its own: on the server's thread
 * each checkpoint would make everybody wait who saves, several times a second on a full exam day. Where the worker is
 * missing or slow, the server's connection does it itself once the log is long (`openDatabase`).
 */
export class Checkpoints {
  private readonly file: string;
  private readonly troubles: Pick<Troubles, 'note' | 'over'>;
  private worker: Worker | null = null;

  constructor(file: string, troubles: Pick<Troubles, 'note' | 'over'>) {
    [this.file, this.troubles] = [file, troubles];
  }

  start(everyMs = EVERY_MS): void {
    const script = new URL('./checkpointWorker.ts', import.meta.url);
    const { file, execArgv } = runnable(script);
    const throughTsx = execArgv.length > 0;
    this.worker = new Worker(throughTsx ? new URL('../jobs/tsWorker.mjs', import.meta.url) : file, {
      workerData: { script: script.href, file: this.file, everyMs },
    });
    this.worker.unref();
    this.worker.on('error', (error) => this.troubles.note('checkpoint-failed', {}, error));
    this.worker.on('message', (trouble: unknown) => {
      if (trouble === null) this.troubles.over('checkpoint-failed');
      else this.troubles.note('checkpoint-failed', {}, trouble);
    });
    this.worker.once('exit', () => (this.worker = null));
  }

  async stop(): Promise<void> {
    if (!this.worker) return;
    const ended = once(this.worker, 'exit');
    this.worker.ref();
    this.worker.postMessage('stop');
    await ended;
  }
}
