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
    // Written by hand, and lost whenever the migration is generated again: its rows are all key.
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

  it('does first what is saved, and leaves for the next transaction what has no room in this one', async () => {
    db = openDatabase(':memory:');
    const commits = new GroupCommit(db);
    const order: string[] = [];
    /** Takes longer than a transaction takes up what others write. */
    const slow = (name: string) => () => {
      order.push(name);
      const until = performance.now() + 10;
      while (performance.now() < until);
      db.insert(settings).values({ key: name, value: '' }).run();
    };
    await Promise.all([
      commits.run(slow('one')).then(() => order.push('one told')),
      commits.run(slow('two')).then(() => order.push('two told')),
      commits.save(slow('saved')).then(() => order.push('saved told')),
    ]);
    expect(order).toEqual(['saved', 'one', 'saved told', 'one told', 'two', 'two told']);
  });

  it('fails what was in a transaction that the disk had no room for, and goes on with the rest', async () => {
    db = openDatabase(':memory:');
    const commits = new GroupCommit(db);
    const put = (key: string) => db.insert(settings).values({ key, value: key }).run();
    const full = () => {
      // SQLite itself takes the transaction back where there is no room.
      db.$client.exec('rollback');
      throw new Error('database or disk is full');
    };
    const [lost, refused] = [commits.run(() => put('a')), commits.run(full)];
    await expect(lost).rejects.toThrow('full');
    await expect(refused).rejects.toThrow('full');
    await commits.run(() => put('b'));
    expect(
      db
        .select()
        .from(settings)
        .all()
        .map((s) => s.key),
    ).toEqual(['b']);
  });
});
