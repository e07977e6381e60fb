import { parentPort, workerData } from 'node:worker_threads';
import Sqlite from 'better-sqlite3';

const { file, everyMs } = workerData as { readonly file: string; readonly everyMs: number };

const db = new Sqlite(file);

function move(): void {
  try {
    // Passive: it waits for nobody, and nobody waits for it.
    db.pragma('wal_checkpoint(PASSIVE)');
  } catch {
    // As on a full disk: what cannot be moved now is moved once there is room again.
  }
}

const timer = setInterval(move, everyMs);
parentPort!.once('message', () => {
  clearInterval(timer);
  db.close();
});
