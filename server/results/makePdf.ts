import type { ResultSheet } from '../../core/results/resultSheet';
import { runInWorker } from '../jobs/runInWorker';

/** The result sheet as a PDF, made in a worker thread of its own. */
export const makePdf = (sheet: ResultSheet, organisation: string): Promise<Uint8Array> =>
  runInWorker(new URL('./pdfWorker.ts', import.meta.url), { sheet, organisation });
