/* Runs one program in Pyodide inside this worker: the same engine and harness as the server's sandbox. */
import { PYTHON_HARNESS } from '../../../core/kinds/code/harness';
import type { WorkerCase } from './tryProgram';

interface Python {
  runPython(code: string): unknown;
  setStdout(options: { write: (bytes: Uint8Array) => number }): void;
  setStderr(options: { write: (bytes: Uint8Array) => number }): void;
  readonly globals: { get(name: string): (...args: string[]) => string };
}

const FOLDER = '/vendor/pyodide/';

async function boot(): Promise<Python> {
  const script = `${FOLDER}pyodide.mjs`;
  const { loadPyodide } = (await import(/* @vite-ignore */ script)) as {
    readonly loadPyodide: (options: object) => Promise<Python>;
  };
  const python = await loadPyodide({ indexURL: FOLDER });
  python.runPython(PYTHON_HARNESS);
  return python;
}

const engine = boot();

async function run({ program, functionName, argumentsJson, outputBytes }: WorkerCase) {
  const python = await engine;
  let printed = '';
  const decoder = new TextDecoder();
  const write = (bytes: Uint8Array) => {
    printed += decoder.decode(bytes);
    if (printed.length > outputBytes) throw new Error('output limit');
    return bytes.length;
  };
  python.setStdout({ write });
  python.setStderr({ write });
  const reply = python.globals.get('__clear_sitting_case')(program, functionName, argumentsJson);
  return { reply, printed };
}

self.onmessage = (event: MessageEvent<WorkerCase>) => {
  const from = performance.now();
  run(event.data).then(
    (result) => self.postMessage({ ...result, milliseconds: performance.now() - from }),
    (error: unknown) =>
      self.postMessage({ reply: JSON.stringify({ error: String(error) }), printed: '', milliseconds: 0 }),
  );
};
engine.then(
  () => self.postMessage({ ready: true }),
  (error: unknown) => self.postMessage({ failed: String(error) }),
);
