/**
 * Every regular expression of ours is checked for the time it can take (recheck): one that is not linear can be made to stop the
 * whole server by a long text. One that only ever sees bounded text says so by a comment above it, or on its line,
 * `bounded: <by what>`.
 */
import { readFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { checkSync } from 'recheck';
import ts from 'typescript';

const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', 'core', 'server', 'web'], {
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file));

/** @type {Map<string, string[]>} where each expression stands */
const places = new Map();
for (const file of files) {
  let text;
  try {
    text = readFileSync(file, 'utf8');
  } catch {
    continue;
  }
  if (!text.includes('/')) continue;
  const lines = text.split('\n');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, false);
  const visit = (node) => {
    if (ts.isRegularExpressionLiteral(node)) {
      const { line } = source.getLineAndCharacterOfPosition(node.getStart(source));
      const said = [lines[line], lines[line - 1] ?? ''].some((one) => one.includes('bounded: '));
      if (!said) places.set(node.text, [...(places.get(node.text) ?? []), `${file}:${line + 1}`]);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
}

let failed = false;
for (const [literal, where] of places) {
  const end = literal.lastIndexOf('/');
  const result = checkSync(literal.slice(1, end), literal.slice(end + 1), { timeout: 20_000 });
  if (result.status === 'safe') continue;
  failed = true;
  const attack = result.attack ? ` for ${result.attack.pattern}` : '';
  console.error(
    `${literal}: ${result.status}, ${result.complexity?.summary ?? result.error?.kind}${attack}\n  ${where.join('\n  ')}`,
  );
}
if (failed) process.exit(1);
console.log(`${places.size} regular expressions: all are linear, or say what bounds their text.`);
