import type Sqlite from 'better-sqlite3';

/** The process is gone: nothing after this is done, and nothing is put right. */
class Killed extends Error {}

interface Statement {
  readonly readonly: boolean;
  readonly database: Sqlite.Database;
}
type Method = (this: Statement, ...given: unknown[]) => unknown;

/**
 * Does work whose process is killed at its `write`th write to the database (from 0): the connection is closed before it,
 * as the kernel closes the files of a process that ends, and an open transaction is never committed. Gives whether the
 * work came to that write at all.
 */
export async function killedAt(
  database: Sqlite.Database,
  write: number,
  work: () => unknown,
): Promise<boolean> {
  const prototype = Object.getPrototypeOf(database.prepare('select 1')) as Record<string, Method>;
  const methods = ['run', 'get', 'all'] as const;
  const own = Object.fromEntries(methods.map((name) => [name, prototype[name]!]));
  let count = 0;
  let killed = false;
  for (const name of methods)
    prototype[name] = function counted(this: Statement, ...given: unknown[]) {
      if (this.database === database && !this.readonly && !killed && count++ === write) {
        killed = true;
        database.close();
      }
      if (killed && this.database === database) throw new Killed();
      return own[name]!.apply(this, given);
    };
  try {
    await work();
  } catch (error) {
    if (!killed) throw error;
  } finally {
    Object.assign(prototype, own);
  }
  return killed;
}
