import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { GroupCommit } from './groupCommit';
import { openDatabase, type Db } from './open';
import { settings } from './schema';

const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-db-'));
const file = path.join(folder, 'test.sqlite');
let db: Db;
afterEach(() => db.$client.close());

const one = (query: string) => db.$client.prepare(query).pluck().get();

describe('the database', () => {
  it('exercises every migration there is, once', () => {
    const migrations = readdirSync(path.join(import.meta.dirname, 'migrations')).filter((f) =>
      f.endsWith('.sql'),
    );
    for (let opening = 0; opening < 2; opening++) {
      db = openDatabase(file);
      expect(one('select count(*) from __drizzle_migrations')).toBe(migrations.length);
      if (opening === 0) db.$client.close();
    }
    expect(one('pragma integrity_check')).toBe('ok');
    // Written by hand, and lost whenever the migration is generated anew: its rows are all key.
    expect(one("select sql from sqlite_master where name = 'heads'")).toMatch(/WITHOUT ROWID$/);
  });

  it('survives a power cut by its settings: WAL, FULL commits, foreign keys', () => {
    db = openDatabase(file);
    // 2 is FULL
    expect([one('pragma journal_mode'), one('pragma synchronous'), one('pragma foreign_keys')]).toEqual([
      'wal',
      2,
      1,
    ]);
    db.$client.close();
    rmSync(folder, { recursive: true, force: true });
    db = openDatabase(':memory:');
  });
});

describe('group commit', () => {
  it('commits the work of one turn together, and what throws takes back only itself', async () => {
    db = openDatabase(':memory:');
    const takenBack = vi.fn();
    const commits = new GroupCommit(db);
    commits.onTakenBack(takenBack);
    const put = (key: string) => db.insert(settings).values({ key, value: key }).run();
    const results = await Promise.allSettled([
      commits.run(() => put('a')),
      commits.run(() => {
        put('b');
        throw new Error('changed my mind');
      }),
      commits.run(() => put('c').changes),
    ]);
    expect(results.map((r) => r.status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
    expect(
      db
        .select()
        .from(settings)
        .all()
        .map((s) => s.key),
    ).toEqual(['a', 'c']);
    expect(takenBack).toHaveBeenCalledOnce();
  });
});
