import { parentPort, workerData } from 'node:worker_threads';
import Sqlite from 'better-sqlite3';

const { file, everyMs } = workerData as { readonly file: string; readonly everyMs: number };

const db = new Sqlite(file);
// Passive: it waits for nobody, and nobody waits for it.
const timer = setInterval(() => db.pragma('wal_checkpoint(PASSIVE)'), everyMs);
parentPort!.once('message', () => {
  clearInterval(timer);
  db.close();
});
