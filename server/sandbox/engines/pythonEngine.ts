/*
 * Plain Pyodide in Node would hand the program the whole of Node through its `js` module, so it is loaded into a bare
 * realm: a context with no host object in it at all, built by `realmPrelude.js` from intrinsics of its own, which are
 * frozen before a program starts. Only primitives and bytes cross the border, and no bytes of ours can be reached from
 * inside.
 */
import vm from 'node:vm';
import { jobText, replyOfPython, type PythonCase } from '../../../core/programs/pythonCase';
import type { ReadFile } from './engineFiles';
import { WARM_UP_PYTHON } from './warmUpPrograms';
import type { Engine, RunCase } from './engine';

const STANDARD_LIBRARY = 'python_stdlib.zip';
const PAGE = 4096;

/* Inside the realm: the files that Pyodide's shell build asks for, which are taken away once it has started. */
const FILES = `(() => { 'use strict'; const files = Object.create(null);
  globalThis.readbuffer = (path) => {
    for (const name in files) if (path.endsWith(name)) return files[name];
    if (path.endsWith('.wasm')) return new Uint8Array(0);
    throw new Error('no file');
  };
  return (name, bytes) => { if (bytes === undefined) delete files[name]; else files[name] = bytes } })()`;
const MAKE = `(length) => { 'use strict'; return new Uint8Array(length) }`;

/*
 * Inside the realm: compiled code is found again by its bytes, so a second instance costs no second compilation. The
 * engine's own bytes are not copied inside: right after the prelude they are turned into a module of the realm, which keeps
 * no hold on them, and Pyodide, which reads an empty file, gets that module.
 */
const SYNCHRONOUS = `(() => { 'use strict'; let engine;
  delete WebAssembly.compileStreaming; delete WebAssembly.instantiateStreaming;
  const { Module, Instance } = WebAssembly;
  WebAssembly.instantiate = (source, imports) => {
    const module = source instanceof Module ? source : source.byteLength === 0 ? engine : new Module(source);
    return Promise.resolve({ module, instance: new Instance(module, imports) }) };
  return (bytes) => { engine = new Module(bytes) } })()`;

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

/** Where a snapshot holds anything: half of its pages are empty, and need not be copied. */
function filledRuns(bytes: Uint8Array): readonly (readonly [from: number, to: number])[] {
  const empty = new Uint8Array(PAGE);
  const runs: [number, number][] = [];
  for (let from = 0; from < bytes.length; from += PAGE) {
    const to = Math.min(from + PAGE, bytes.length);
    if (Buffer.compare(bytes.subarray(from, to), empty.subarray(0, to - from)) === 0) continue;
    const last = runs.at(-1);
    if (last?.[1] === from) last[1] = to;
    else runs.push([from, to]);
  }
  return runs;
}

/** By itself, so that a state holds on to nothing of what it was made of. */
function caseOf({ run, printed, limit, grown }: PythonCase, seedBy: (seed: number) => void): RunCase {
  return (job) => {
    seedBy(job.seed);
    const reply: unknown = run(jobText(job), job.seed, job.outputBytes, job.megabytes);
    const [met, bytes]: unknown[] = [limit(), grown()];
    const written = (to: 'all' | 'out' | 'err') => {
      const said: unknown = printed(to);
      return typeof said === 'string' ? said.slice(0, job.outputBytes) : '';
    };
    return {
      ...replyOfPython(job, typeof reply === 'string' ? reply : '', written),
      limit: met === 'output' || met === 'memory' ? met : 'none',
      memoryBytes: typeof bytes === 'number' && bytes >= 0 ? bytes : 0,
    };
  };
}

export function loadPython(read: ReadFile): Engine {
  const script = (code: string, filename: string) => new vm.Script(code, { filename });
  const prelude = script(read('realmPrelude.js').toString(), 'prelude.js');
  const pyodide = script(read('pyodideRealm.js').toString(), 'pyodide.js');
  const [files, make, boot] = [FILES, MAKE, BOOT].map((code) => script(code, 'realm.js'));
  const seed = script('(() => { const seed = __seed; delete globalThis.__seed; return seed })()', 'realm.js');
  const synchronous = script(SYNCHRONOUS, 'realm.js');
  const engine = read('pyodide.asm.wasm');
  const library = read(STANDARD_LIBRARY);
  const lock = read('pyodide-lock.json').toString();
  const snapshot = read('python.snapshot');
  // Kept, so that the realms' own modules find its code.
  const compiled = new WebAssembly.Module(engine);
  const filled = filledRuns(snapshot);

  const bareRealm = (): Inside => {
    const realm = vm.createContext(Object.create(null) as object, {
      codeGeneration: { strings: false, wasm: true },
    });
    return (code): unknown => code.runInContext(realm);
  };

  const fresh = async (): Promise<RunCase> => {
    void compiled;
    const inside = bareRealm();
    inside(prelude);
    (inside(synchronous) as (bytes: Uint8Array) => void)(engine);
    inside(pyodide);
    const seedBy = inside(seed) as (seed: number) => void;
    const room = inside(make!) as (length: number) => Uint8Array<ArrayBuffer>;
    const place = inside(files!) as (name: string, bytes?: unknown) => void;
    const ownLibrary = room(library.length);
    ownLibrary.set(library);
    place(STANDARD_LIBRARY, ownLibrary);
    const start = inside(boot!) as (lock: string, snapshot: unknown) => Promise<PythonCase>;
    const copied = room(snapshot.length);
    for (const [from, to] of filled) copied.set(snapshot.subarray(from, to), from);
    const prepared = await start(lock, copied);
    // 30 MB that nobody needs any more, whoever may still hold them.
    structuredClone(copied.buffer, { transfer: [copied.buffer] });
    place(STANDARD_LIBRARY);
    return caseOf(prepared, seedBy);
  };
  return { fresh, warmUp: WARM_UP_PYTHON };
}
