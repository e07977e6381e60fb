import { chmodSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from './migrate';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Sqlite.Database };

/** A connection that cannot write, for a process beside the server's. */
export function openForReading(file: string): Db {
  const client = new Sqlite(file, { readonly: true });
  client.pragma('busy_timeout = 3000');
  return drizzle(client, { schema });
}

/** What a round of 5,000 essays touches again and again fits in it; taken as it is needed. */
const CACHE_KB = 256 * 1024;

/**
 * Opens (and migrates) the database. FULL commits: an acknowledged answer survives a power cut; better-sqlite3's own
 * default in WAL is NORMAL, which does not promise that.
 */
export function openDatabase(file: string): Db {
  if (file !== ':memory:') mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
  const client = new Sqlite(file);
  // Answers and secrets: for the account that runs the server alone. SQLite makes its other files alike.
  if (file !== ':memory:') chmodSync(file, 0o600);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  // 64 MB: until then the server has the log moved by a worker (`Checkpoints`); then the next commit does the rest of it.
  client.pragma('wal_autocheckpoint = 16384');
  client.pragma(`cache_size = ${-CACHE_KB}`);
  migrate(client);
  client.pragma('foreign_keys = ON');
  // It waits on the thread that serves everybody: what another program has locked is tried again later.
  client.pragma('busy_timeout = 100');
  return drizzle(client, { schema });
}

export interface HasDb {
  readonly db: Db;
}
