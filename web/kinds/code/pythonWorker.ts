/* Runs one program in Pyodide inside this worker: the same engine and harness as the server's sandbox. */
import './useUtc';
import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import { jobText, preparePython, replyOfPython, type PythonEngine } from '../../../core/programs/pythonCase';
import { serveCases } from './runCase';
import { PYTHON_FOLDER, PYTHON_SNAPSHOT } from './pythonFiles';

/** About as long as starting without a snapshot takes: a slower line is not waited for. */
const PATIENCE_MS = 5000;

async function fetchSnapshot(): Promise<ArrayBuffer> {
  const answer = await fetch(PYTHON_FOLDER + PYTHON_SNAPSHOT, { signal: AbortSignal.timeout(PATIENCE_MS) });
  if (!answer.ok) throw new Error(`the snapshot was answered with ${answer.status}`);
  return answer.arrayBuffer();
}

async function boot() {
  const script = `${PYTHON_FOLDER}pyodide.mjs`;
  const { loadPyodide } = (await import(/* @vite-ignore */ script)) as {
    readonly loadPyodide: (options: object) => Promise<PythonEngine>;
  };
  const options = { indexURL: PYTHON_FOLDER };
  const fromSnapshot = loadPyodide({ ...options, _loadSnapshot: fetchSnapshot() });
  return preparePython(await fromSnapshot.catch(() => loadPyodide(options)));
}

const engine = boot();

async function run(job: CaseJob): Promise<EngineReply> {
  const python = await engine;
  const from = performance.now();
  const reply = python.run(jobText(job), job.seed, job.outputBytes, job.megabytes);
  return {
    ...replyOfPython(job, reply, python.printed),
    limit: python.limit(),
    cpuMs: performance.now() - from,
    memoryBytes: python.grown(),
  };
}

serveCases(engine, run);
