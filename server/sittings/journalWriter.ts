import { sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { journal } from '../db/schema';

export type NewEntry = Omit<typeof journal.$inferInsert, 'arrival'>;

interface Waiting {
  readonly rows: readonly NewEntry[];
  readonly kept: () => void;
  readonly failed: (error: unknown) => void;
}

/**
 * Group commit: the entries of all requests of one turn of the event loop are written in one transaction with one
 * FULL commit, and only then is any of them acknowledged. An entry that came before is passed over (same device, same
 * seq), so that a batch may be sent as often as the network wants.
 */
export class JournalWriter {
  private readonly db: Db;
  private waiting: Waiting[] = [];
  private readonly insert;

  constructor(db: Db) {
    this.db = db;
    const p = sql.placeholder;
    this.insert = db
      .insert(journal)
      .values({
        sittingId: p('sittingId'),
        device: p('device'),
        seq: p('seq'),
        about: p('about'),
        target: p('target'),
        value: p('value'),
        clientAt: p('clientAt'),
        serverAt: p('serverAt'),
        standing: p('standing'),
      })
      .onConflictDoNothing()
      .prepare();
  }

  /** Resolves once all rows are durable. */
  keep(rows: readonly NewEntry[]): Promise<void> {
    return new Promise((kept, failed) => {
      if (this.waiting.length === 0) setImmediate(() => this.commit());
      this.waiting.push({ rows, kept, failed });
    });
  }

  private commit(): void {
    const group = this.waiting;
    this.waiting = [];
    try {
      this.db.$client.transaction(() => {
        for (const { rows } of group) for (const row of rows) this.insert.run(row);
      })();
    } catch (error) {
      for (const { failed } of group) failed(error);
      return;
    }
    for (const { kept } of group) kept();
  }
}
