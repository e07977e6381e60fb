import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, it } from 'vitest';
import { error } from '../../core/messages/errors.en';
import { staffErrors } from '../../core/messages/staffErrors.en';

/* What the server refuses is told in words: an error without any would show people its code. */

const sources = readdirSync('server', { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
  .map((name) => readFileSync(path.join('server', name), 'utf8'));

const words: Readonly<Record<string, string>> = { ...error, ...staffErrors };
const camel = (code: string) => code.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
const named = new Set(
  sources.flatMap((text) =>
    [...text.matchAll(/\b(?:badRequest|notFound|conflict|unreadable|forbidden)\(\s*'([\w-]+)'/g)].map(
      ([, code]) => camel(code!),
    ),
  ),
);

it('finds what is refused in the sources', () => expect(named.size).toBeGreaterThan(60));

it.each([...named].sort())('%s has words', (code) => {
  // Words that count have a form for one and one for several.
  const { [code]: said, [`${code}_one`]: one } = words;
  expect((said ?? one ?? '').length).toBeGreaterThan(10);
});
