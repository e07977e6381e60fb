import { faultReply, type CaseJob, type EngineReply } from './engine';
import type { Value } from './value';

type Cell = string | number | bigint | null | Uint8Array;

/** What a query needs of a statement of sql.js; whole figures come as they are, not rounded. */
interface Statement {
  getColumnNames(): string[];
  step(): boolean;
  get(values: null, options: { readonly useBigInt: true }): Cell[];
  /** The bytes of a cell, of a text too: behind a NUL as well. */
  getBlob(column: number): Uint8Array;
}

export interface SqlDatabase {
  run(program: string): unknown;
  iterateStatements(program: string): Iterable<Statement>;
}

/** SQLite's own functions of mathematics, not those that sql.js had before; and nothing is written to a console. */
export const SQL_SETTINGS = {
  useOldExtensionFunctions: false,
  print: () => undefined,
  printErr: () => undefined,
};

class TooMuch extends Error {}

const hexOf = (bytes: Uint8Array): string =>
  Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');

function floatOf(value: number): string {
  if (Number.isFinite(value)) return String(value);
  return value > 0 ? 'inf' : value < 0 ? '-inf' : 'nan';
}

function cellOf(statement: Statement, cell: Cell, column: number): Value {
  if (cell === null) return null;
  if (typeof cell === 'bigint') return ['i', String(cell)];
  if (typeof cell === 'number') return ['f', floatOf(cell)];
  if (typeof cell === 'string') return new TextDecoder().decode(statement.getBlob(column));
  return ['b', hexOf(cell)];
}

/** The rows of the last statement that gives some, with the names of their columns; null where none does. */
function rowsOf(database: SqlDatabase, program: string, mostBytes: number): Value {
  let last: Value = null;
  for (const statement of database.iterateStatements(program)) {
    const columns = statement.getColumnNames();
    const rows: Value[] = [];
    let bytes = 0;
    while (statement.step()) {
      const cells = statement.get(null, { useBigInt: true });
      const row: Value = ['l', ...cells.map((cell, i) => cellOf(statement, cell, i))];
      bytes += JSON.stringify(row).length;
      if (bytes > mostBytes) throw new TooMuch();
      rows.push(row);
    }
    if (columns.length > 0) last = ['m', 'columns', ['l', ...columns], 'rows', ['l', ...rows]];
  }
  return last;
}

/** Sets a new database up and runs a query on it. The same on the server and in the browser. */
export function runSqlCase(
  newDatabase: () => SqlDatabase,
  { files, input, outputBytes }: Pick<CaseJob, 'files' | 'input' | 'outputBytes'>,
): Pick<EngineReply, 'limit' | 'printed' | 'reply'> {
  const settle = (reply: string, limit: EngineReply['limit'] = 'none') => ({ limit, printed: '', reply });
  const program = files[0]!.text;
  // The engine reads a text as far as its first NUL: what is behind it would be left out without a word.
  if (program.includes('\0')) return settle(faultReply('nulCharacter'));
  try {
    const database = newDatabase();
    if (input !== '') database.run(input);
    return settle(JSON.stringify({ value: rowsOf(database, program, outputBytes) }));
  } catch (error) {
    if (error instanceof TooMuch) return settle('', 'output');
    const text = error instanceof Error ? error.message : String(error);
    if (/out of memory|OOM|too big|memory access/i.test(text)) return settle('', 'memory');
    return settle(faultReply('thrown', text));
  }
}
