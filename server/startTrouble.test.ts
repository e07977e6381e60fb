import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { startTrouble } from './startTrouble';

const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-start-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

it.each([
  ['SQLITE_FULL', /disk .* is full/],
  ['ENOSPC', /disk .* is full/],
  ['SQLITE_BUSY', /second server/],
  ['EACCES', /cannot be written to/],
  ['EROFS', /cannot be written to/],
  ['SQLITE_READONLY_DBMOVED', /cannot be written to/],
  ['SQLITE_CANTOPEN', /cannot be written to/],
  ['SQLITE_NOTADB', /Restore a backup/],
  ['ENOTDIR', /is not a folder/],
])('a server that cannot start for %s says what to do', (code, sentence) =>
  expect(startTrouble(Object.assign(new Error(code), { code }), '/srv/data')).toMatch(sentence),
);

it('what nobody foresaw keeps its trace', () => expect(startTrouble(new Error('x'), '/srv/data')).toBeNull());

it('the program itself says it in a line, without a trace', () => {
  writeFileSync(path.join(folder, 'clear-sitting.sqlite'), 'a letter to the archive, and no database at all');
  const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    env: { ...process.env, CLEAR_SITTING_DATA: folder, PORT: '4999' },
    encoding: 'utf8',
  });
  expect(status).toBe(1);
  expect(stderr.trim().split('\n').at(-1)).toMatch(
    /^Clear Sitting cannot start\. .* is damaged or is no database/,
  );
  expect(stderr).not.toMatch(/\n\s+at /);
});
