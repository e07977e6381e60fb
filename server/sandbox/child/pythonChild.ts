/*
 * Runs the cases of ONE submission in Pyodide, then is killed. Plain Pyodide in Node would hand the program the whole
 * of Node through its `js` module, so it is loaded into a bare realm: a context with no host object in it at all, built
 * by `realmPrelude.js` from intrinsics of its own. Only strings and bytes copied inside cross the border.
 */
import { existsSync, readFileSync } from 'node:fs';
import vm from 'node:vm';
import { PYTHON_HARNESS } from '../../../core/kinds/code/harness';
import type { CaseMessage } from './protocol';

const folder = process.argv[2]!;
const realm = vm.createContext(Object.create(null) as object, {
  codeGeneration: { strings: false, wasm: true },
});
const inside = (source: string, filename = 'realm.js'): unknown =>
  vm.runInContext(source, realm, { filename });

inside(readFileSync(`${folder}/realmPrelude.js`, 'utf8'), 'realmPrelude.js');
inside('delete WebAssembly.compileStreaming; delete WebAssembly.instantiateStreaming;');
inside(readFileSync(`${folder}/pyodideRealm.js`, 'utf8'), 'pyodideRealm.js');

const copyIn = inside(
  `(bytes) => { 'use strict'; const own = new Uint8Array(bytes.length); own.set(bytes); return own }`,
) as (bytes: Uint8Array) => unknown;
const place = inside(`(() => { const files = Object.create(null);
  globalThis.readbuffer = (path) => { for (const name in files) if (path.endsWith(name)) return files[name]; throw new Error('no file') };
  return (name, bytes) => { files[name] = bytes } })()`) as (name: string, bytes: unknown) => void;
for (const name of ['pyodide.asm.wasm', 'python_stdlib.zip'])
  place(name, copyIn(readFileSync(`${folder}/${name}`)));
const snapshot = `${folder}/python.snapshot`;

/* Inside the realm: loads Python and leaves one function that takes and gives JSON. */
const boot = inside(`(lock, snapshot, harness) => { 'use strict';
  return __boot.loadPyodide({ indexURL: '/p/', lockFileContents: JSON.parse(lock), createPyodideModule: __boot.create,
    stdLibURL: '/p/python_stdlib.zip', jsglobals: Object.create(null), _loadSnapshot: snapshot }).then((python) => {
    const decoder = new TextDecoder();
    let printed = '', bytes = 0, most = 0;
    const take = (chunk) => { bytes += chunk.length; if (bytes > most) throw new Error('output limit');
      printed += decoder.decode(chunk); return chunk.length };
    python.setStdout({ write: take }); python.setStderr({ write: take });
    python.setStdin({ stdin: () => null });
    python.runPython(harness);
    const run = python.globals.get('__clear_sitting_case');
    const heap = () => python._module.HEAPU8.length;
    const base = heap();
    globalThis.__case = (json) => { 'use strict';
      const job = JSON.parse(json); printed = ''; bytes = 0; most = job.outputBytes;
      let reply, limit = 'none';
      try { reply = run(job.program, job.functionName, job.arguments) }
      catch (trouble) { reply = JSON.stringify({ error: String(trouble && trouble.message).slice(-300) }) }
      try { python.runPython('import sys; sys.stdout.flush(); sys.stderr.flush()') } catch (_) { /* counted below */ }
      if (bytes > most) limit = 'output';
      else if (heap() - base > job.megabytes * 1048576) limit = 'memory';
      return JSON.stringify({ reply: String(reply).slice(0, 1048576), limit, printed: printed.slice(0, most) }) };
    delete globalThis.__boot; return true }) }`) as (
  lock: string,
  snap: unknown,
  harness: string,
) => Promise<true>;

function runCase(message: CaseMessage): void {
  const from = performance.now();
  const text = inside(`__case(${JSON.stringify(JSON.stringify(message))})`);
  const result = JSON.parse(typeof text === 'string' ? text : '{}') as object;
  process.send!({ index: message.index, ...result, milliseconds: performance.now() - from });
}

void boot(
  readFileSync(`${folder}/pyodide-lock.json`, 'utf8'),
  existsSync(snapshot) && !process.argv.includes('without-snapshot')
    ? copyIn(readFileSync(snapshot))
    : undefined,
  PYTHON_HARNESS,
).then(
  () => {
    process.on('message', runCase);
    process.send!({ ready: true });
  },
  (trouble: unknown) => {
    console.error(trouble);
    process.exit(1);
  },
);
