/*
 * Feature folders form no circles: dependency-cruiser looks at modules, this looks at the folders of `server` and
 * `web`. A file that lies in no folder counts as a folder of its own.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';

const folderOf = (file) => file.split('/')[1];

/** Which folders each folder of a root imports from; tests and what is for tests alone left out. */
function importsOf(root) {
  const listed = execFileSync(
    'git',
    ['ls-files', `${root}/*.ts`, `${root}/*.tsx`, `${root}/**/*.ts`, `${root}/**/*.tsx`],
    {
      encoding: 'utf8',
    },
  );
  const files = listed.split('\n').filter((file) => file && !/\.test\.|\/testing\//.test(file));
  const imports = new Map();
  for (const file of files) {
    const from = folderOf(file);
    if (!imports.has(from)) imports.set(from, new Set());
    for (const [, named] of readFileSync(file, 'utf8').matchAll(/from '(\.[^']+)'/g)) {
      const target = path.normalize(path.join(path.dirname(file), named));
      if (!target.startsWith(`${root}/`)) continue;
      const found = [`${target}.ts`, `${target}.tsx`].find((one) => files.includes(one));
      const to = folderOf(found ?? `${target}.ts`);
      if (to !== from) imports.get(from).add(to);
    }
  }
  return imports;
}

/** Everything that can be reached from a folder. */
function reachedFrom(imports, folder) {
  const seen = new Set();
  const open = [folder];
  while (open.length > 0)
    for (const next of imports.get(open.pop()) ?? [])
      if (!seen.has(next)) {
        seen.add(next);
        open.push(next);
      }
  return seen;
}

const circles = ['server', 'web'].flatMap((root) => {
  const imports = importsOf(root);
  return [...imports.keys()]
    .filter((folder) => reachedFrom(imports, folder).has(folder))
    .map((folder) => `${root}/${folder} → ${[...imports.get(folder)].join(', ')}`);
});
if (circles.length > 0) {
  console.error(`These folders stand in a circle:\n${circles.join('\n')}`);
  process.exit(1);
}
console.log('✔ no circles between feature folders');
