import initSqlJs, { type Database, type SqlValue } from 'sql.js';
import { faultReply } from '../../../core/programs/engine';
import type { Engine, RunCase } from './engine';
import type { ReadFile } from './engineFiles';
import { WARM_UP_SQL } from './warmUpPrograms';

type Cell = string | number | null;

class NotComparable extends Error {}

function cellOf(value: SqlValue | bigint): Cell {
  if (value instanceof Uint8Array) throw new NotComparable('blob');
  if (typeof value === 'bigint') {
    const number = Number(value);
    if (!Number.isSafeInteger(number)) throw new NotComparable(String(value));
    return number;
  }
  if (typeof value === 'number' && !Number.isFinite(value)) throw new NotComparable(String(value));
  return value;
}

/** The published types know nothing of the second argument: whole figures come as they are, not rounded. */
interface ExactStatement {
  get(values: null, options: { readonly useBigInt: true }): (SqlValue | bigint)[];
}

class TooMuch extends Error {}

/** The rows of the last statement that gives some, as `{columns, rows}`; null where none does. */
function rowsOf(database: Database, program: string, mostBytes: number): object | null {
  let last: { columns: string[]; rows: Cell[][] } | null = null;
  for (const statement of database.iterateStatements(program)) {
    const columns = statement.getColumnNames();
    const rows: Cell[][] = [];
    let bytes = 0;
    while (statement.step()) {
      const row = (statement as unknown as ExactStatement).get(null, { useBigInt: true }).map(cellOf);
      bytes += JSON.stringify(row).length;
      if (bytes > mostBytes) throw new TooMuch();
      rows.push(row);
    }
    if (columns.length > 0) last = { columns, rows };
  }
  return last;
}

/** SQLite: a fresh instance and database for each case. The one argument is the SQL that sets the database up. */
export function loadSql(read: ReadFile): Engine {
  const module = new WebAssembly.Module(read('sql.wasm'));
  const fresh = async (): Promise<RunCase> => {
    const sql = await initSqlJs({
      instantiateWasm(imports: WebAssembly.Imports, done: (made: WebAssembly.Instance) => void) {
        const instance = new WebAssembly.Instance(module, imports);
        done(instance);
        return instance.exports;
      },
    } as unknown as Parameters<typeof initSqlJs>[0]);
    return ({ program, arguments: given, outputBytes }) => {
      const settle = (reply: string, limit: 'none' | 'memory' | 'output' = 'none') => ({
        limit,
        printed: '',
        reply,
      });
      try {
        const [setUp] = JSON.parse(given) as [unknown];
        const database = new sql.Database();
        if (typeof setUp === 'string') database.run(setUp);
        return settle(JSON.stringify({ value: rowsOf(database, program, outputBytes) }));
      } catch (error) {
        if (error instanceof TooMuch) return settle('', 'output');
        if (error instanceof NotComparable) return settle(faultReply('notComparable', error.message));
        const text = (error as Error).message;
        if (/out of memory|OOM|too big|memory access/i.test(text)) return settle('', 'memory');
        return settle(faultReply('thrown', text));
      }
    };
  };
  return { fresh, warmUp: WARM_UP_SQL };
}
