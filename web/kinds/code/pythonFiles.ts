export const PYTHON_FOLDER = '/vendor/pyodide/';
/** What Python is made of in a browser; `scripts/prepareAssets.ts` copies it. */
export const PYTHON_NAMES = [
  'pyodide.mjs',
  'pyodide.asm.mjs',
  'pyodide.asm.wasm',
  'python_stdlib.zip',
  'pyodide-lock.json',
];
/** The memory of a Python that has just started, as the sandbox uses it. */
export const PYTHON_SNAPSHOT = 'python.snapshot';
