import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

interface Package {
  readonly hasInstallScript?: boolean;
  readonly dev?: boolean;
}

it('the documentation lists the packages of production that have an install script', () => {
  const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as { packages: Record<string, Package> };
  const installed = Object.entries(lock.packages)
    .filter(([, { hasInstallScript, dev }]) => hasInstallScript && !dev)
    .map(([folder]) => folder.replace(/^.*node_modules\//, ''));
  const docs = readFileSync('docs/operating.md', 'utf8');
  const listed = [...docs.matchAll(/^- `([a-z0-9@/-]+)` – /gm)].map(([, name]) => name);
  expect(listed).toEqual(installed.sort());
});
