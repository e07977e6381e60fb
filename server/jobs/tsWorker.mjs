/* The first script of a worker thread: Node 20 gives a worker none of the main thread's loaders, so it loads tsx itself. */
import { workerData } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

await tsImport(workerData.script, import.meta.url);
