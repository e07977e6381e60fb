/* Runs one program in Pyodide inside this worker: the same engine and harness as the server's code box. */
import './useUtc';
import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import { preparePython, textOfBytes, type PythonEngine } from '../../../core/programs/pythonCase';
import { PYTHON_FOLDER } from './pythonFiles';

async function boot() {
  const script = `${PYTHON_FOLDER}pyodide.mjs`;
  const { loadPyodide } = (await import(/* @vite-ignore */ script)) as {
    readonly loadPyodide: (options: object) => Promise<PythonEngine>;
  };
  return preparePython(await loadPyodide({ indexURL: PYTHON_FOLDER }));
}

const engine = boot();

async function run(job: CaseJob): Promise<EngineReply> {
  const python = await engine;
  const from = performance.now();
  const { program, functionName, seed, outputBytes, megabytes } = job;
  const reply = python.run(program, functionName, job.arguments, seed, outputBytes, megabytes);
  return {
    limit: python.limit(),
    cpuMs: performance.now() - from,
    printed: textOfBytes(python.printed()),
    reply,
  };
}

self.onmessage = (event: MessageEvent<CaseJob>) => {
  void run(event.data).then((reply) => self.postMessage(reply));
};
engine.then(
  () => self.postMessage({ ready: true }),
  (error: unknown) => self.postMessage({ failed: String(error) }),
);
