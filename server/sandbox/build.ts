import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { clampWasmMemory } from './clampWasmMemory';
import { hashOf, MANIFEST } from './engines/engineFiles';

const require = createRequire(import.meta.url);
const here = path.dirname(fileURLToPath(import.meta.url));
const MOST_PAGES = 4096; // 256 MiB

/** Pyodide as one classic script without any `import(`, so that nothing can be loaded from inside the realm. */
async function buildRealmScript(pyodideFolder: string, target: string): Promise<void> {
  const result = await build({
    stdin: {
      contents: `import { loadPyodide } from './pyodide.mjs'; import create from './pyodide.asm.mjs';
        import { preparePython } from ${JSON.stringify(path.resolve(here, '../../core/programs/pythonCase.ts'))};
        globalThis.__boot = { loadPyodide, create, preparePython };`,
      resolveDir: pyodideFolder,
    },
    bundle: true,
    write: false,
    format: 'iife',
    platform: 'neutral',
    target: 'es2022',
    define: { 'import.meta.url': '"file:///p/pyodide.asm.mjs"' },
    external: ['node:*', 'ws'],
    supported: { 'dynamic-import': true },
    logLevel: 'error',
  });
  const script = result.outputFiles[0]!.text.replace(/\bimport\(/g, '__noImport(');
  const refuse =
    "'use strict';globalThis.__noImport=()=>{throw new Error('nothing can be imported here')};\n";
  writeFileSync(target, refuse + script.replace(/^"use strict";/, ''));
}

/** Nothing but the standard library can be imported, so that no list of packages has to be read for every state. */
function lockWithoutPackages(pyodideFolder: string): string {
  const lock = JSON.parse(readFileSync(path.join(pyodideFolder, 'pyodide-lock.json'), 'utf8')) as object;
  return JSON.stringify({ ...lock, packages: {} });
}

/** A memory snapshot with the usual modules already imported: a child is warm in a fraction of the time. */
async function buildSnapshot(pyodideFolder: string, target: string): Promise<void> {
  const { loadPyodide } = (await import('pyodide')) as typeof import('pyodide');
  const options = { indexURL: pyodideFolder + '/', _makeSnapshot: true };
  const python = await loadPyodide(options);
  python.runPython(
    'import json,collections,itertools,math,heapq,io,sys,string,re,functools,bisect,random,datetime,typing,traceback,dataclasses',
  );
  writeFileSync(target, (python as unknown as { makeMemorySnapshot(): Uint8Array }).makeMemorySnapshot());
}

const PROCESSES = ['zygote', 'portableChild', 'portableWorker'];

/** A package that is loaded as it is, with the compiled part that it ships for this machine, if it ships one. */
function copyForeignFunctions(target: string): void {
  const koffi = path.dirname(require.resolve('koffi'));
  const compiled = path.join(koffi, '../@koromix', `koffi-${process.platform}-${process.arch}`);
  const modules = path.join(target, 'node_modules');
  for (const name of ['package.json', 'index.cjs', 'src/koffi/index.cjs', 'src/koffi/src/static.cjs'])
    cpSync(path.join(koffi, name), path.join(modules, 'koffi', name), { recursive: true });
  if (existsSync(compiled))
    cpSync(compiled, path.join(modules, '@koromix', path.basename(compiled)), { recursive: true });
}

function writeManifest(target: string): void {
  const names = readdirSync(target, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => path.relative(target, path.join(entry.parentPath, entry.name)))
    .sort();
  const hashes = names.map((name) => [name, hashOf(readFileSync(path.join(target, name)))]);
  writeFileSync(path.join(target, MANIFEST), JSON.stringify(Object.fromEntries(hashes), null, 1));
}

/** Builds everything that a process of the sandbox may read into `target`, and nothing else. */
export async function buildSandbox(target: string): Promise<void> {
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  const pyodideFolder = path.dirname(require.resolve('pyodide/package.json'));
  const quickjs = path.dirname(require.resolve('@jitl/quickjs-wasmfile-release-sync'));
  const sql = path.dirname(require.resolve('sql.js'));
  await build({
    entryPoints: PROCESSES.map((name) => path.join(here, 'processes', `${name}.ts`)),
    outdir: target,
    outExtension: { '.js': '.cjs' },
    bundle: true,
    format: 'cjs',
    platform: 'node',
    target: 'node20',
    external: ['koffi'],
    define: { 'import.meta.url': '__ownUrl' },
    banner: { js: "'use strict'; const __ownUrl = require('node:url').pathToFileURL(__filename).href;" },
    logLevel: 'error',
  });
  copyForeignFunctions(target);
  await buildRealmScript(pyodideFolder, path.join(target, 'pyodideRealm.js'));
  cpSync(path.join(here, 'engines', 'realmPrelude.js'), path.join(target, 'realmPrelude.js'));
  cpSync(path.join(pyodideFolder, 'python_stdlib.zip'), path.join(target, 'python_stdlib.zip'));
  writeFileSync(path.join(target, 'pyodide-lock.json'), lockWithoutPackages(pyodideFolder));
  const clamped = {
    'pyodide.asm.wasm': path.join(pyodideFolder, 'pyodide.asm.wasm'),
    'sql.wasm': path.join(sql, 'sql-wasm.wasm'),
  };
  for (const [name, from] of Object.entries(clamped))
    writeFileSync(path.join(target, name), clampWasmMemory(readFileSync(from), MOST_PAGES));
  cpSync(path.join(quickjs, 'emscripten-module.wasm'), path.join(target, 'quickjs.wasm'));
  await buildSnapshot(pyodideFolder, path.join(target, 'python.snapshot'));
  writeManifest(target);
}
