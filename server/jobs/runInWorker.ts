import { Worker } from 'node:worker_threads';

const LIMIT_MS = 30_000;

/** Runs a script in a worker thread of its own, off the request path; it posts one message, which is the result. */
export function runInWorker<T>(script: URL, input: object): Promise<T> {
  const worker = new Worker(new URL('./tsWorker.mjs', import.meta.url), {
    workerData: { script: script.href, input },
  });
  return new Promise<T>((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error('the worker took too long')), LIMIT_MS);
    worker.once('message', resolve);
    worker.once('error', reject);
    worker.once('exit', (code) => {
      clearTimeout(timer);
      reject(new Error(`the worker ended with ${code} and no result`));
    });
  }).finally(() => void worker.terminate());
}
