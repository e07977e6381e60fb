import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';

interface Chunk {
  readonly name: string;
  /** The files that come with it at once. */
  readonly imports: readonly string[];
  readonly modules: readonly string[];
}

const KEY_HALF =
  /^core\/kinds\/(?:keyKinds|authoring|[^/]+\/(?:key|score|content|schemas))\.ts$|^core\/validation\/|^core\/(?:scoring|forms)\/(?!form\.ts|components\.ts)/;

const OF_STAFF = /^web\/(?:accounts|answers|corrections|marking|papers|review|rounds|staff|watch)\//;

/** Everything that a candidate's device can come to load: by import at once or later, all but the pages of staff. */
function modulesOfCandidates(): string[] {
  const chunks = JSON.parse(readFileSync('dist/modules.json', 'utf8')) as Chunk[];
  const kept = JSON.parse(readFileSync('dist/web/desk-files.json', 'utf8')) as Record<string, string[]>;
  const seen = new Set<string>();
  const add = (name: string): void => {
    if (seen.has(name)) return;
    seen.add(name);
    chunks.find((chunk) => chunk.name === name)?.imports.forEach(add);
  };
  for (const file of Object.values(kept).flat()) add(file.slice(1));
  return chunks.filter((chunk) => seen.has(chunk.name)).flatMap((chunk) => chunk.modules);
}

test('no key half of a kind, no schema and nothing of staff’s is in what a candidate’s device loads', () => {
  const modules = modulesOfCandidates();
  expect(modules).toContain('web/desk/DeskPage.tsx');
  expect(modules).toContain('core/kinds/choice/candidate.ts');
  expect(modules.filter((id) => KEY_HALF.test(id))).toEqual([]);
  expect(modules.filter((id) => OF_STAFF.test(id))).toEqual([]);
});
