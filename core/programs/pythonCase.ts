import type { EngineReply } from './engine';
import { PYTHON_HARNESS, PYTHON_SETTINGS } from './pythonHarness';

/** What a case needs of Pyodide. */
export interface PythonEngine {
  runPython(code: string): unknown;
  setStdin(options: { stdin: () => null }): void;
  setStdout(options: { write: (bytes: Uint8Array) => number }): void;
  setStderr(options: { write: (bytes: Uint8Array) => number }): void;
  readonly globals: { get(name: string): (program: string, name: string, args: string) => unknown };
  readonly _module: { readonly HEAPU8: Uint8Array };
}

/** Two strings and a word: nothing but primitives crosses the border of the realm that Python lives in. */
export interface PythonCase {
  /** Runs the case; the harness's reply. */
  readonly run: (
    program: string,
    functionName: string,
    args: string,
    seed: number,
    outputBytes: number,
    megabytes: number,
  ) => string;
  /** What was printed, a character for each byte of UTF-8. */
  readonly printed: () => string;
  readonly limit: () => EngineReply['limit'];
}

const MEGABYTE = 1 << 20;
const PIECE = 4096;

/**
 * Makes the one function that runs a case. Everything it needs is looked up here, before a program has run. Runs inside
 * the realm of the server's sandbox, and in the browser's worker.
 */
export function preparePython(python: PythonEngine): PythonCase {
  let [printed, bytes, most] = ['', 0, 0];
  let limit: EngineReply['limit'] = 'none';
  const write = (chunk: Uint8Array): number => {
    const length = chunk.length;
    if (!(length >= 0)) throw new Error('malformed output');
    bytes += length;
    if (bytes > most) throw new Error('output limit');
    for (let from = 0; from < length; from += PIECE)
      printed += String.fromCharCode(...chunk.subarray(from, from + PIECE));
    return length;
  };
  python.setStdout({ write });
  python.setStderr({ write });
  python.setStdin({ stdin: () => null });
  python.runPython(PYTHON_SETTINGS);
  python.runPython(PYTHON_HARNESS);
  const harness = python.globals.get('__clear_sitting_case');
  const heap = () => python._module.HEAPU8.length;
  return {
    run(program, functionName, args, seed, outputBytes, megabytes) {
      [printed, bytes, most, limit] = ['', 0, outputBytes, 'none'];
      const base = heap();
      let reply: unknown;
      try {
        python.runPython(`import random; random.seed(${seed >>> 0})`);
        reply = harness(program, functionName, args);
      } catch (trouble) {
        // Only a fatal error of the engine gets here: the harness catches what Python throws.
        const text = String((trouble as { message?: unknown } | null)?.message).slice(0, 200);
        const fault = /stack|recursion/i.test(text)
          ? 'tooDeep'
          : /exit/i.test(text)
            ? 'endedItself'
            : 'ended';
        reply = JSON.stringify({ fault, text: '', line: null });
      }
      try {
        python.runPython('import sys; sys.stdout.flush(); sys.stderr.flush()');
      } catch {
        // Past the limit, which is noticed below.
      }
      if (bytes > most) limit = 'output';
      else if (heap() - base > megabytes * MEGABYTE) limit = 'memory';
      return typeof reply === 'string' ? reply : '';
    },
    printed: () => printed,
    limit: () => limit,
  };
}

/** Text of bytes that came as characters; what is not UTF-8 becomes U+FFFD. */
export const textOfBytes = (binary: string): string =>
  new TextDecoder().decode(Uint8Array.from(binary, (sign) => sign.charCodeAt(0)));
