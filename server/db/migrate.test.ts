import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import Sqlite from 'better-sqlite3';
import { afterAll, describe, expect, it } from 'vitest';
import { kindNames } from '../../core/kinds/kindNames';
import { allParts } from '../../core/papers/paper';
import { evidenceFor, partsOfScript } from '../../core/scoring/script';
import { formById } from '../forms/forms';
import { paperOfVersion } from '../papers/papers';
import { answersOfReceipt, newestReceipt, receiptHolds } from '../sittings/receipts';
import { migrate, DatabaseRefused, MIGRATIONS, type Migration } from './migrate';
import { openDatabase } from './open';
import { rounds } from './schema';

const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-migrate-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/**
 * A database as the program of the first schema left it, with a paper of every kind and two sittings. It is kept as it is:
 * that program is not there any more.
 */
function firstDatabase(name: string): string {
  const file = path.join(folder, `${name}.sqlite`);
  const packed = readFileSync(path.join(import.meta.dirname, 'stored/first-schema.sqlite.gz'));
  writeFileSync(file, gunzipSync(packed));
  return file;
}

type Row = Readonly<Record<string, unknown>>;
const tablesOf = (db: Sqlite.Database) =>
  db
    .prepare(
      "select name from sqlite_master where type = 'table' and name not like 'sqlite_%' and name not like '\\_\\_%' escape '\\' order by name",
    )
    .pluck()
    .all() as string[];
const rowsOf = (db: Sqlite.Database, table: string) => db.prepare(`select * from ${table}`).all() as Row[];
const withoutRowid = (db: Sqlite.Database) =>
  db.prepare("select name from sqlite_master where sql like '%WITHOUT ROWID' order by name").pluck().all();
const parsedJson = (text: unknown): unknown => JSON.parse(String(text));
/** A row whose settings can be compared: a migration may add some, and one has taken one away. */
const readable = (row: unknown): unknown => {
  const { settings, ...rest } = row as Readonly<Record<string, unknown>>;
  if (settings === undefined) return rest;
  const { assessorsSeeObservations: _, ...kept } = parsedJson(settings) as Record<string, unknown>;
  return { ...rest, settings: kept };
};
const everything = (db: Sqlite.Database) =>
  Object.fromEntries(tablesOf(db).map((table) => [table, rowsOf(db, table)]));

describe('a database of the first schema', () => {
  it('comes to the schema of today with all its rows, and a copy of before is kept', () => {
    const file = firstDatabase('upgraded');
    const old = new Sqlite(file, { readonly: true });
    const [before, handMade] = [everything(old), withoutRowid(old)];
    old.close();
    expect(handMade.length).toBeGreaterThan(0);
    const db = openDatabase(file);
    for (const [table, rows] of Object.entries(before))
      expect([table, rowsOf(db.$client, table).map(readable)]).toMatchObject([table, rows.map(readable)]);
    expect(db.$client.prepare('select settings from rounds').pluck().all().map(parsedJson)).toMatchObject([
      { pauseMinutes: 0, forPractice: false },
    ]);
    expect(withoutRowid(db.$client)).toEqual(handMade);
    expect(db.$client.pragma('foreign_key_check')).toEqual([]);
    db.$client.close();
    const copy = new Sqlite(file.replace('.sqlite', '.before-migration-1.sqlite'), { readonly: true });
    expect(everything(copy)).toEqual(before);
    copy.close();
  });

  it('is read as anything of today: papers of every kind, answers, receipts', () => {
    const db = openDatabase(firstDatabase('read'));
    const round = db.select().from(rounds).get()!;
    const paper = paperOfVersion(db, round.paperVersionId);
    expect(new Set(allParts(paper).map(({ part }) => part.kind))).toEqual(new Set(kindNames));
    const receipt = newestReceipt(db, 1)!;
    expect(receiptHolds(db, receipt)).toBe(true);
    const form = formById(db, 1);
    const script = { paper, form, answers: answersOfReceipt(db, receipt), locale: 'en-GB' };
    const parts = partsOfScript(script);
    expect(parts.every(({ empty }) => !empty)).toBe(true);
    // What candidates were shown then is read as it is shown now.
    const program = parts.find(({ part }) => part.kind === 'code')!;
    expect(program.shown).toMatchObject({ way: { is: 'function', parameters: null }, conditions: [] });
    expect(evidenceFor(program)).toMatchObject([{ run: { files: [{ name: 'program.py' }] } }]);
    db.$client.close();
  });
});

describe('a migration', () => {
  /** As drizzle-kit rebuilds a table that others refer to. */
  const rebuild: Migration = {
    hash: 'a rebuild',
    folderMillis: MIGRATIONS.at(-1)!.folderMillis + 1,
    sql: [
      'PRAGMA foreign_keys=OFF',
      'CREATE TABLE __new_people (id integer PRIMARY KEY AUTOINCREMENT NOT NULL, name text NOT NULL, email text NOT NULL, reference text NOT NULL)',
      'INSERT INTO __new_people (id, name, email, reference) SELECT id, name, email, reference FROM people',
      'DROP TABLE people',
      'ALTER TABLE __new_people RENAME TO people',
      'PRAGMA foreign_keys=ON',
    ],
  };

  it('can rebuild a table that others refer to, and loses nothing of either', () => {
    const db = openDatabase(firstDatabase('rebuilt'));
    const before = everything(db.$client);
    migrate(db.$client, [...MIGRATIONS, rebuild]);
    expect(everything(db.$client)).toEqual(before);
    expect(db.$client.pragma('foreign_key_check')).toEqual([]);
    db.$client.close();
  });

  it('that would break a reference changes nothing, and says so', () => {
    const db = openDatabase(firstDatabase('broken'));
    const before = everything(db.$client);
    const losing = { ...rebuild, sql: rebuild.sql.with(2, 'SELECT 1') };
    expect(() => migrate(db.$client, [...MIGRATIONS, losing])).toThrow(/would break .* references/);
    expect(everything(db.$client)).toEqual(before);
    db.$client.close();
  });

  it('is not tried on a database that is newer than the program', () => {
    const file = firstDatabase('newer');
    openDatabase(file).$client.close();
    const db = new Sqlite(file);
    migrate(db, [...MIGRATIONS, rebuild]);
    db.close();
    expect(() => openDatabase(file)).toThrow(DatabaseRefused);
    expect(() => openDatabase(file)).toThrow(/newer version of Clear Sitting/);
  });

  it('of a new database makes no copy', () => {
    const file = path.join(folder, 'new.sqlite');
    openDatabase(file).$client.close();
    expect(existsSync(path.join(folder, 'new.before-migration-0.sqlite'))).toBe(false);
  });
});
