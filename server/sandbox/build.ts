import { cpSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { clampWasmMemory } from './clampWasmMemory';

const require = createRequire(import.meta.url);
const here = path.dirname(fileURLToPath(import.meta.url));
const MOST_PAGES = 4096; // 256 MiB

/** Pyodide as one classic script without any `import(`, so that nothing can be loaded from inside the realm. */
async function buildRealmScript(pyodideFolder: string, target: string): Promise<void> {
  const result = await build({
    stdin: {
      contents: `import { loadPyodide } from './pyodide.mjs'; import create from './pyodide.asm.mjs';
        globalThis.__boot = { loadPyodide, create };`,
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

/** Builds everything a sandbox child may read into `target`, and nothing else. */
export async function buildSandbox(target: string): Promise<void> {
  mkdirSync(target, { recursive: true });
  const pyodideFolder = path.dirname(require.resolve('pyodide/package.json'));
  const quickjs = path.dirname(require.resolve('@jitl/quickjs-wasmfile-release-sync'));
  await build({
    entryPoints: ['javascriptChild', 'pythonChild'].map((name) => path.join(here, 'child', `${name}.ts`)),
    outdir: target,
    outExtension: { '.js': '.cjs' },
    bundle: true,
    format: 'cjs',
    platform: 'node',
    target: 'node20',
    define: { 'import.meta.url': '__ownUrl' },
    banner: { js: "const __ownUrl = require('node:url').pathToFileURL(__filename).href;" },
    logLevel: 'error',
  });
  await buildRealmScript(pyodideFolder, path.join(target, 'pyodideRealm.js'));
  cpSync(path.join(here, 'child', 'realmPrelude.js'), path.join(target, 'realmPrelude.js'));
  for (const name of ['python_stdlib.zip', 'pyodide-lock.json'])
    cpSync(path.join(pyodideFolder, name), path.join(target, name));
  const wasm = readFileSync(path.join(pyodideFolder, 'pyodide.asm.wasm'));
  writeFileSync(path.join(target, 'pyodide.asm.wasm'), clampWasmMemory(wasm, MOST_PAGES));
  cpSync(path.join(quickjs, 'emscripten-module.wasm'), path.join(target, 'quickjs.wasm'));
  await buildSnapshot(pyodideFolder, path.join(target, 'python.snapshot'));
}
