import { Worker } from 'node:worker_threads';
import type { ResultSheet } from '../../core/results/resultSheet';

const LIMIT_MS = 30_000;

/** The result sheet as a PDF, made in a worker thread of its own. */
export function makePdf(sheet: ResultSheet, organisation: string): Promise<Uint8Array> {
  const worker = new Worker(new URL('./pdfWorker.ts', import.meta.url), {
    workerData: { sheet, organisation },
  });
  return new Promise<Uint8Array>((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error('the PDF took too long')), LIMIT_MS);
    worker.once('message', (bytes: Uint8Array) => {
      clearTimeout(timer);
      resolve(bytes);
    });
    worker.once('error', reject);
  }).finally(() => void worker.terminate());
}
