/* Runs one query in SQLite inside this worker: the same engine as the server's sandbox. */
import './useUtc';
import initSqlJs from 'sql.js';
import wasmUrl from 'sql.js/dist/sql-wasm-browser.wasm?url';
import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import { runSqlCase, SQL_SETTINGS, type SqlDatabase } from '../../../core/programs/sqlCase';
import { serveCases } from './runCase';

const compiled = WebAssembly.compileStreaming(fetch(wasmUrl));

/** An engine of its own for every case. */
const engine = async () => {
  const module = await compiled;
  return initSqlJs({
    ...SQL_SETTINGS,
    instantiateWasm(imports: WebAssembly.Imports, done: (made: WebAssembly.Instance) => void) {
      void WebAssembly.instantiate(module, imports).then(done);
      return {};
    },
  } as unknown as Parameters<typeof initSqlJs>[0]);
};
let next = engine();

async function run(job: CaseJob): Promise<EngineReply> {
  const sql = await next;
  next = engine();
  const from = performance.now();
  const said = runSqlCase(() => new sql.Database() as unknown as SqlDatabase, job);
  return { ...said, cpuMs: performance.now() - from, memoryBytes: 0 };
}

serveCases(next, run);
