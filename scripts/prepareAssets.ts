/* Builds what is made from packages: the code sandbox, and the engines and models the browser loads from us. */
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { buildSandbox } from '../server/sandbox/build';
import { PYTHON_NAMES, PYTHON_SNAPSHOT } from '../web/kinds/code/pythonFiles';

const root = path.resolve(import.meta.dirname, '..');
const at = (...parts: string[]) => path.join(root, ...parts);

const sourcesIn = (folder: string): string[] =>
  readdirSync(at(folder))
    .filter((name) => !name.endsWith('.test.ts') && /\.[jt]s$/.test(name))
    .map((name) => `${folder}/${name}`);
const SOURCES = [
  'package-lock.json',
  'scripts/prepareAssets.ts',
  'web/kinds/code/pythonFiles.ts',
  'server/sandbox/build.ts',
  'server/sandbox/clampWasmMemory.ts',
  ...['core/programs', 'server/sandbox/engines', 'server/sandbox/processes'].flatMap(sourcesIn),
];
const stamp = createHash('sha256')
  .update(SOURCES.map((file) => readFileSync(at(file))).join('\0'))
  .digest('hex');

function copyForBrowser(): void {
  const vendor = at('web/public/vendor');
  rmSync(vendor, { recursive: true, force: true });
  const copies: Record<string, string[]> = {
    'node_modules/pyodide': PYTHON_NAMES,
    'node_modules/@tensorflow/tfjs-backend-wasm/dist': [
      'tfjs-backend-wasm.wasm',
      'tfjs-backend-wasm-simd.wasm',
    ],
    'web/models/blazeface': ['blazeface.json', 'blazeface.bin', 'LICENSE'],
  };
  // What documents may need that is not in them: character maps, the standard fonts, decoders of pictures.
  for (const folder of ['cmaps', 'standard_fonts', 'wasm'])
    cpSync(at('node_modules/pdfjs-dist', folder), path.join(vendor, 'pdf', folder), { recursive: true });
  for (const [from, names] of Object.entries(copies)) {
    const target = path.join(
      vendor,
      from.includes('pyodide') ? 'pyodide' : from.includes('tfjs') ? 'tf' : 'blazeface',
    );
    mkdirSync(target, { recursive: true });
    for (const name of names) cpSync(at(from, name), path.join(target, name));
  }
  cpSync(at('dist/sandbox', PYTHON_SNAPSHOT), path.join(vendor, 'pyodide', PYTHON_SNAPSHOT));
}

const stampFile = at('dist/sandbox.stamp');
if (
  existsSync(stampFile) &&
  readFileSync(stampFile, 'utf8') === stamp &&
  existsSync(at('web/public/vendor/pdf'))
) {
  console.log('assets are current');
} else {
  await buildSandbox(at('dist/sandbox'));
  copyForBrowser();
  writeFileSync(stampFile, stamp);
  console.log('assets built');
}
