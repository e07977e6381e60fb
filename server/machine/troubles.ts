import type { Logger } from 'pino';
import type { Trouble, TroubleCode } from '../../core/health/api';
import type { Clock } from './clock';

/** What each is called in the log, for whoever runs the server. */
const SENTENCES: Readonly<Record<TroubleCode, string>> = {
  'disk-full': 'The disk is full: nothing can be saved. Free some space; what waits is then saved.',
  'disk-low': 'The disk is nearly full. Free some space.',
  'database-locked':
    'Another program has locked the database: nothing can be saved until it lets it go. Do not open the database with other programs while the server runs.',
  'read-only':
    'The data folder cannot be written to. Check its owner and whether its disk is mounted for writing.',
  'database-broken':
    'The database cannot be written or read. Look at the error above; restore a backup if it is damaged.',
  'checkpoint-failed': 'The write-ahead log cannot be moved into the database; it grows until it can.',
  'jobs-failed': 'Background work was given up after five tries. Coordinators can run it again.',
  clock:
    'The clock of this machine has jumped. The server goes on with its own time; a coordinator can say that the new time is right.',
};

/** What an error of the database or of a file says of the machine; null where it says something else. */
export function troubleOf(error: unknown): TroubleCode | null {
  const { code = '' } = (error ?? {}) as { readonly code?: string };
  if (code === 'SQLITE_FULL' || code === 'ENOSPC' || code === 'EDQUOT') return 'disk-full';
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED')) return 'database-locked';
  if (code.startsWith('SQLITE_READONLY') || ['EROFS', 'EACCES', 'EPERM'].includes(code)) return 'read-only';
  return /^SQLITE_(IOERR|CORRUPT|NOTADB|CANTOPEN)/.test(code) ? 'database-broken' : null;
}

/** What a commit or a write that went well shows to be over. */
const OF_WRITING: readonly TroubleCode[] = ['disk-full', 'database-locked', 'read-only', 'database-broken'];

/** What is wrong with the machine or the service, while it is: told by health, in the log, and to coordinators. */
export class Troubles {
  private readonly clock: Clock;
  private readonly log: Logger;
  private readonly known = new Map<TroubleCode, Trouble>();

  constructor(clock: Clock, log: Logger) {
    [this.clock, this.log] = [clock, log];
  }

  list(): Trouble[] {
    return [...this.known.values()];
  }

  /** Notes one, with what is to be known of it; logged when it begins. */
  note(code: TroubleCode, facts: Pick<Trouble, 'count' | 'aheadMs'> = {}, error?: unknown): void {
    const before = this.known.get(code);
    this.known.set(code, { code, since: before?.since ?? this.clock.now(), ...facts });
    if (!before) this.log.error({ err: error, trouble: code, ...facts }, SENTENCES[code]);
  }

  over(code: TroubleCode): void {
    if (this.known.delete(code)) this.log.info({ trouble: code }, 'This is over.');
  }

  /** Takes note of an error where it says something of the machine. */
  take(error: unknown): void {
    const code = troubleOf(error);
    if (code) this.note(code, {}, error);
  }

  /** Something was written: nothing keeps it from that any more. */
  wrote(): void {
    if (this.known.size === 0) return;
    for (const code of OF_WRITING) this.over(code);
  }
}

export interface HasTroubles {
  readonly troubles: Troubles;
}
