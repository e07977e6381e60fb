export const PYTHON_FOLDER = '/vendor/pyodide/';
/** What Python is made of: the browser's copy (`scripts/prepareAssets.ts`). */
export const PYTHON_FILES = [
  'pyodide.mjs',
  'pyodide.asm.mjs',
  'pyodide.asm.wasm',
  'python_stdlib.zip',
  'pyodide-lock.json',
].map((name) => PYTHON_FOLDER + name);
