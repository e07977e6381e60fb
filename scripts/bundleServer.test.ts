import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, it } from 'vitest';

const ROOT = path.resolve(import.meta.dirname, '..');

it('the bundle knows of no place but its own: moved, it finds the files beside it', () => {
  const bundles = path.join(ROOT, 'dist/server');
  const scripts = readdirSync(bundles, { recursive: true, encoding: 'utf8' }).filter((name) =>
    name.endsWith('.mjs'),
  );
  expect(scripts).toContain('main.mjs');
  for (const name of scripts)
    expect(readFileSync(path.join(bundles, name), 'utf8'), name).not.toContain(ROOT);

  const moved = mkdtempSync(path.join(tmpdir(), 'moved-'));
  cpSync(bundles, path.join(moved, 'dist/server'), { recursive: true });
  symlinkSync(path.join(ROOT, 'node_modules'), path.join(moved, 'node_modules'));
  // Without migrations beside it the copy cannot start: it does not find those of the place that it was built at.
  writeFileSync(path.join(moved, 'package.json'), '{"version":"0.0.0-moved"}');
  let said = '';
  try {
    execFileSync(process.execPath, [path.join(moved, 'dist/server/main.mjs')], {
      env: { PATH: process.env.PATH, CLEAR_SITTING_DATA: path.join(moved, 'data'), PORT: '0' },
      stdio: 'pipe',
      timeout: 20_000,
    });
  } catch (error) {
    const { stdout, stderr } = error as { stdout: Buffer; stderr: Buffer };
    said = `${String(stdout)}${String(stderr)}`;
  }
  rmSync(moved, { recursive: true });
  expect(said).toContain("Can't find meta/_journal.json");
});
