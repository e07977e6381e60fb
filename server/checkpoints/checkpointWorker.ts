import { parentPort, workerData } from 'node:worker_threads';
import Sqlite from 'better-sqlite3';

const { file, everyMs } = workerData as { readonly file: string; readonly everyMs: number };

const db = new Sqlite(file);

/** So many in a row that fail are told: a single one may have met a writer. */
const FAILURES = 20;
let failed = 0;

function move(): void {
  try {
    // Passive: it waits for nobody, and nobody waits for it.
    db.pragma('wal_checkpoint(PASSIVE)');
    if (failed >= FAILURES) parentPort!.postMessage(null);
    failed = 0;
  } catch (error) {
    // As on a full disk: what cannot be moved now is moved once there is room again.
    failed += 1;
    if (failed === FAILURES) parentPort!.postMessage(String(error));
  }
}

const timer = setInterval(move, everyMs);
parentPort!.once('message', () => {
  clearInterval(timer);
  db.close();
});
