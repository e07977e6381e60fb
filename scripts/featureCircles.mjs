/* Feature folders form no circles: dependency-cruiser looks at modules, this looks at the folders of `server` and `web`. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';

const folderOf = (file) => (file.split('/').length > 2 ? file.split('/')[1] : null);

/** Which folders each folder of a root imports from; tests and what is for tests alone left out. */
function importsOf(root) {
  const listed = execFileSync('git', ['ls-files', `${root}/**/*.ts`, `${root}/**/*.tsx`], {
    encoding: 'utf8',
  });
  const files = listed.split('\n').filter((file) => file && !/\.test\.|\/testing\//.test(file));
  const imports = new Map();
  for (const file of files) {
    const from = folderOf(file);
    if (from === null) continue;
    if (!imports.has(from)) imports.set(from, new Set());
    for (const [, named] of readFileSync(file, 'utf8').matchAll(/from '(\.[^']+)'/g)) {
      const target = path.normalize(path.join(path.dirname(file), named));
      const to = target.startsWith(`${root}/`) ? folderOf(`${target}.ts`) : null;
      if (to !== null && to !== from) imports.get(from).add(to);
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
