import initSqlJs from 'sql.js';
import { runSqlCase, SQL_SETTINGS, type SqlDatabase } from '../../../core/programs/sqlCase';
import type { Engine, RunCase } from './engine';
import type { ReadFile } from './engineFiles';
import { WARM_UP_SQL } from './warmUpPrograms';

/** SQLite: a fresh instance and database for each case. */
export function loadSql(read: ReadFile): Engine {
  const module = new WebAssembly.Module(read('sql.wasm'));
  const fresh = async (): Promise<RunCase> => {
    let memory: WebAssembly.Memory | undefined;
    const sql = await initSqlJs({
      ...SQL_SETTINGS,
      instantiateWasm(imports: WebAssembly.Imports, done: (made: WebAssembly.Instance) => void) {
        const instance = new WebAssembly.Instance(module, imports);
        memory = Object.values(instance.exports).find((one) => one instanceof WebAssembly.Memory);
        done(instance);
        return instance.exports;
      },
    } as unknown as Parameters<typeof initSqlJs>[0]);
    const held = () => memory?.buffer.byteLength ?? 0;
    return (job) => {
      const before = held();
      const said = runSqlCase(() => new sql.Database() as unknown as SqlDatabase, job);
      return { ...said, memoryBytes: held() - before };
    };
  };
  return { fresh, warmUp: WARM_UP_SQL };
}
