/*
 * Plain Pyodide in Node would hand the program the whole of Node through its `js` module, so it is loaded into a bare
 * realm: a context with no host object in it at all, built by `realmPrelude.js` from intrinsics of its own, which are
 * frozen before a program starts. Only bytes copied inside and primitives cross the border.
 */
import vm from 'node:vm';
import type { PythonCase } from '../../../core/programs/pythonCase';
import { textOfBytes } from '../../../core/programs/pythonCase';
import type { ReadFile } from './engineFiles';
import { WARM_UP_PYTHON } from './warmUpPrograms';
import type { Engine, RunCase } from './engine';

const COPIED = ['pyodide.asm.wasm', 'python_stdlib.zip'];

/* Inside the realm: the files that Pyodide's shell build asks for, which are taken away once it has started. */
const FILES = `(() => { 'use strict'; const files = Object.create(null);
  globalThis.readbuffer = (path) => {
    for (const name in files) if (path.endsWith(name)) return files[name];
    throw new Error('no file');
  };
  return (name, bytes) => { if (bytes === undefined) delete files[name]; else files[name] = bytes } })()`;
const COPY = `(bytes) => { 'use strict'; const own = new Uint8Array(bytes.length); own.set(bytes); return own }`;

/* Inside the realm: compiled code is found again by its bytes, so a second instance costs no second compilation. */
const SYNCHRONOUS = `delete WebAssembly.compileStreaming; delete WebAssembly.instantiateStreaming;
WebAssembly.instantiate = (source, imports) => { 'use strict';
  const module = source instanceof WebAssembly.Module ? source : new WebAssembly.Module(source);
  const instance = new WebAssembly.Instance(module, imports);
  return Promise.resolve({ module, instance }) };`;

/* Inside the realm: loads Python, freezes every intrinsic, and gives three functions that return primitives. */
const BOOT = `(lock, snapshot) => { 'use strict';
  const { loadPyodide, create, preparePython } = __boot;
  delete globalThis.__boot;
  return loadPyodide({ indexURL: '/p/', lockFileContents: JSON.parse(lock), createPyodideModule: create,
    stdLibURL: '/p/python_stdlib.zip', jsglobals: Object.create(null), _loadSnapshot: snapshot }).then((python) => {
    const prepared = preparePython(python);
    __freeze();
    return prepared }) }`;

type Inside = (script: vm.Script) => unknown;

/** By itself, so that a state holds on to nothing of what it was made of. */
function caseOf({ run, printed, limit }: PythonCase, seedBy: (seed: number) => void): RunCase {
  return (job) => {
    seedBy(job.seed);
    const reply: unknown = run(
      job.program,
      job.functionName,
      job.arguments,
      job.seed,
      job.outputBytes,
      job.megabytes,
    );
    const [said, met]: unknown[] = [printed(), limit()];
    return {
      reply: typeof reply === 'string' ? reply : '',
      printed: typeof said === 'string' ? textOfBytes(said.slice(0, job.outputBytes)) : '',
      limit: met === 'output' || met === 'memory' ? met : 'none',
    };
  };
}

export function loadPython(read: ReadFile): Engine {
  const script = (code: string, filename: string) => new vm.Script(code, { filename });
  const prelude = script(read('realmPrelude.js').toString(), 'prelude.js');
  const pyodide = script(read('pyodideRealm.js').toString(), 'pyodide.js');
  const [files, copy, boot] = [FILES, COPY, BOOT].map((code) => script(code, 'realm.js'));
  const seed = script('(() => { const seed = __seed; delete globalThis.__seed; return seed })()', 'realm.js');
  const synchronous = script(SYNCHRONOUS, 'realm.js');
  const bytes = COPIED.map((name) => [name, read(name)] as const);
  const lock = read('pyodide-lock.json').toString();
  const snapshot = read('python.snapshot');
  // Kept, so that the realms' own modules find its code.
  const compiled = new WebAssembly.Module(bytes[0]![1]);

  const bareRealm = (): Inside => {
    const realm = vm.createContext(Object.create(null) as object, {
      codeGeneration: { strings: false, wasm: true },
    });
    return (code): unknown => code.runInContext(realm);
  };

  const fresh = async (): Promise<RunCase> => {
    void compiled;
    const inside = bareRealm();
    for (const one of [prelude, synchronous, pyodide]) inside(one);
    const seedBy = inside(seed) as (seed: number) => void;
    const copyIn = inside(copy!) as (bytes: Uint8Array) => unknown;
    const place = inside(files!) as (name: string, bytes?: unknown) => void;
    for (const [name, content] of bytes) place(name, copyIn(content));
    const start = inside(boot!) as (lock: string, snapshot: unknown) => Promise<PythonCase>;
    const copied = copyIn(snapshot) as Uint8Array<ArrayBuffer>;
    const prepared = await start(lock, copied);
    // 30 MB that nobody needs any more, whoever may still hold them.
    structuredClone(copied.buffer, { transfer: [copied.buffer] });
    for (const [name] of bytes) place(name);
    return caseOf(prepared, seedBy);
  };
  return { fresh, warmUp: WARM_UP_PYTHON };
}
