import { DatabaseRefused } from './db/migrate';
import { ConfigError } from './config';
import { troubleOf } from './machine/troubles';

/** What keeps the server from starting and what to do, in a sentence or two; null where nobody foresaw it. */
export function startTrouble(error: unknown, dataFolder: string): string | null {
  if (error instanceof ConfigError || error instanceof DatabaseRefused) return error.message;
  const { code = '', message = '' } = (error ?? {}) as { readonly code?: string; readonly message?: string };
  if (code === 'SQLITE_NOTADB' || code.startsWith('SQLITE_CORRUPT'))
    return `The file clear-sitting.sqlite in ${dataFolder} is damaged or is no database. Restore a backup (docs/operating.md).`;
  const known = troubleOf(error);
  if (known === 'disk-full') return `The disk of ${dataFolder} is full. Free some space, then start again.`;
  if (known === 'database-locked')
    return `Another program has opened the database in ${dataFolder}, perhaps a second server. Stop it, then start again.`;
  if (known === 'read-only' || code.startsWith('SQLITE_CANTOPEN') || /unable to open database/.test(message))
    return `The data folder ${dataFolder} cannot be written to. Give it to the account that runs the server, or set CLEAR_SITTING_DATA to another folder.`;
  if (code === 'ENOTDIR' || code === 'EEXIST')
    return `${dataFolder} is not a folder. Set CLEAR_SITTING_DATA to one.`;
  return null;
}
