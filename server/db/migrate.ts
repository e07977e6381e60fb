import { renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import type Sqlite from 'better-sqlite3';
import { readMigrationFiles } from 'drizzle-orm/migrator';

/** A database that this program must not open, in words for whoever starts it. */
export class DatabaseRefused extends Error {}

/** One step from a schema to the next, in the order of their times. */
export interface Migration {
  readonly sql: readonly string[];
  readonly hash: string;
  readonly folderMillis: number;
}

export const MIGRATIONS: readonly Migration[] = readMigrationFiles({
  migrationsFolder: path.join(import.meta.dirname, 'migrations'),
});

/** As drizzle-orm keeps them, so that databases of before are known. */
const TABLE = '__drizzle_migrations';

const doneOf = (client: Sqlite.Database): number[] => {
  client.exec(
    `create table if not exists ${TABLE} (id integer primary key, hash text not null, created_at numeric)`,
  );
  return client.prepare(`select created_at from ${TABLE} order by created_at`).pluck().all() as number[];
};

/** A copy of the database as it is, beside it: named by how many migrations it has had; whole, or not there. */
function keepCopy(client: Sqlite.Database, steps: number): void {
  if (client.memory) return;
  const copy = client.name.replace(/(\.sqlite)?$/, `.before-migration-${steps}.sqlite`);
  const unfinished = `${copy}.part`;
  rmSync(unfinished, { force: true });
  client.prepare('vacuum into ?').run(unfinished);
  renameSync(unfinished, copy);
}

/**
 * Brings a database to the schema of this program, all steps in one transaction: with foreign keys off, since a step may
 * rebuild a table that others refer to, and checked before the commit. A copy is made first. Throws DatabaseRefused where
 * the database is newer than the program, or would break a reference; then nothing has changed.
 */
export function migrate(client: Sqlite.Database, migrations: readonly Migration[] = MIGRATIONS): void {
  const done = doneOf(client);
  const newest = migrations.at(-1)?.folderMillis ?? 0;
  if (done.some((at) => at > newest))
    throw new DatabaseRefused(
      `The database ${client.name} was made by a newer version of Clear Sitting. Start that version, or restore a backup from before the upgrade.`,
    );
  const due = migrations.filter(({ folderMillis }) => !done.includes(folderMillis));
  if (due.length === 0) return;
  if (done.length > 0) keepCopy(client, done.length);
  client.pragma('foreign_keys = OFF');
  client
    .transaction(() => {
      for (const { sql, hash, folderMillis } of due) {
        for (const statement of sql) client.exec(statement);
        client.prepare(`insert into ${TABLE} (hash, created_at) values (?, ?)`).run(hash, folderMillis);
      }
      const broken = client.pragma('foreign_key_check') as { readonly table: string }[];
      if (broken.length > 0)
        throw new DatabaseRefused(
          `The upgrade of the database ${client.name} would break ${broken.length} references (first in ${broken[0]!.table}). Nothing was changed; report this, and go on with the version of before.`,
        );
    })
    .immediate();
}
