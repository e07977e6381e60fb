import type { CaseJob, EngineReply } from './engine';
import { PYTHON_HARNESS, PYTHON_SETTINGS } from './pythonHarness';

/** What a case needs of Pyodide. */
export interface PythonEngine {
  runPython(code: string): unknown;
  setStdin(options: { stdin: () => string | null }): void;
  setStdout(options: { write: (bytes: Uint8Array) => number }): void;
  setStderr(options: { write: (bytes: Uint8Array) => number }): void;
  readonly globals: { get(name: string): (job: string) => unknown };
  readonly _module: { readonly HEAPU8: Uint8Array };
}

/** Nothing but primitives crosses the border of the realm that Python lives in. */
export interface PythonCase {
  /** Runs the case; the harness's reply. */
  readonly run: (job: string, seed: number, outputBytes: number, megabytes: number) => string;
  /** What was written, a character for each byte of UTF-8: all in order, to the standard output, to the standard error. */
  readonly printed: (to: 'all' | 'out' | 'err') => string;
  readonly limit: () => EngineReply['limit'];
  /** By how much the engine's memory has grown. */
  readonly grown: () => number;
}

/** What a harness needs of a job. */
export const jobText = ({ files, functionName, input, inputFiles }: CaseJob): string =>
  JSON.stringify({ files, functionName, input, inputFiles });

const MEGABYTE = 1 << 20;
const PIECE = 4096;

/**
 * Makes the one function that runs a case. Everything it needs is looked up here, before a program has run. Runs inside
 * the realm of the server's sandbox, and in the browser's worker.
 */
export function preparePython(python: PythonEngine): PythonCase {
  let [all, out, err] = ['', '', ''];
  let [bytes, most, base] = [0, 0, 0];
  let given: string | null = null;
  let limit: EngineReply['limit'] = 'none';
  const taken = (chunk: Uint8Array): string => {
    const length = chunk.length;
    if (!(length >= 0)) throw new Error('malformed output');
    bytes += length;
    if (bytes > most) throw new Error('output limit');
    let text = '';
    for (let from = 0; from < length; from += PIECE)
      text += String.fromCharCode(...chunk.subarray(from, from + PIECE));
    return text;
  };
  python.setStdout({
    write(chunk) {
      const text = taken(chunk);
      [all, out] = [all + text, out + text];
      return chunk.length;
    },
  });
  python.setStderr({
    write(chunk) {
      const text = taken(chunk);
      [all, err] = [all + text, err + text];
      return chunk.length;
    },
  });
  python.setStdin({
    stdin() {
      const text = given;
      given = null;
      return text;
    },
  });
  python.runPython(PYTHON_SETTINGS);
  python.runPython(PYTHON_HARNESS);
  const harness = python.globals.get('__clear_sitting_case');
  const heap = () => python._module.HEAPU8.length;
  return {
    run(job, seed, outputBytes, megabytes) {
      [all, out, err, limit] = ['', '', '', 'none'];
      [bytes, most, base] = [0, outputBytes, heap()];
      const { functionName, input } = JSON.parse(job) as Pick<CaseJob, 'functionName' | 'input'>;
      given = functionName === null ? input : null;
      let reply: unknown;
      try {
        python.runPython(`import random; random.seed(${seed >>> 0})`);
        reply = harness(job);
      } catch (trouble) {
        // Only a fatal error of the engine gets here: the harness catches what Python throws.
        const text = String((trouble as { message?: unknown } | null)?.message).slice(0, 200);
        const fault = /stack|recursion/i.test(text)
          ? 'tooDeep'
          : /exit/i.test(text)
            ? 'endedItself'
            : 'ended';
        reply = JSON.stringify({ fault, text: '', at: [] });
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
    printed: (to) => (to === 'all' ? all : to === 'out' ? out : err),
    limit: () => limit,
    grown: () => heap() - base,
  };
}

const NOTHING_RETURNED = '{"value": null}';

/**
 * What Python said about a case, with what it wrote: the value of a program that reads an input is what it wrote to its
 * standard output; what it wrote to the other stands beside it.
 */
export function replyOfPython(
  { functionName }: Pick<CaseJob, 'functionName'>,
  reply: string,
  printed: (to: 'all' | 'out' | 'err') => string,
): Pick<EngineReply, 'printed' | 'reply'> {
  const written = (to: 'all' | 'out' | 'err') => textOfBytes(printed(to));
  if (functionName !== null || reply !== NOTHING_RETURNED) return { printed: written('all'), reply };
  return { printed: written('err'), reply: JSON.stringify({ value: written('out') }) };
}

/** Text of bytes that came as characters; what is not UTF-8 becomes U+FFFD. */
export const textOfBytes = (binary: string): string =>
  new TextDecoder().decode(Uint8Array.from(binary, (sign) => sign.charCodeAt(0)));
