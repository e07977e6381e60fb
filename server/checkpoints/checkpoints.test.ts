import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pino } from 'pino';
import { systemClock } from '../machine/clock';
import { Troubles } from '../machine/troubles';
import { expect, it, vi } from 'vitest';
import { Checkpoints } from './checkpoints';
import { openDatabase } from '../db/open';
import { settings } from '../db/schema';

it('moves what was committed into the database, which the server’s own connection does not', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-checkpoints-'));
  const file = path.join(folder, 'test.sqlite');
  const db = openDatabase(file);
  const before = statSync(file).size;
  // 2,000 pages of 4 kB: twice as much as SQLite moves at a commit unless it is told otherwise.
  const long = 'x'.repeat(8_000_000);
  db.insert(settings).values({ key: 'long', value: long }).run();
  expect(statSync(file).size).toBe(before);
  const checkpoints = new Checkpoints(file, new Troubles(systemClock, pino({ level: 'silent' })));
  checkpoints.start(10);
  await vi.waitFor(() => expect(statSync(file).size).toBeGreaterThan(long.length), { timeout: 20_000 });
  await checkpoints.stop();
  // Whoever stopped it may stop it again.
  await checkpoints.stop();
  expect(db.select().from(settings).all()).toHaveLength(1);
  db.$client.close();
  rmSync(folder, { recursive: true });
});
