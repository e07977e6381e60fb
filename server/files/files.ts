import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { FilePurpose } from '../../core/files/purpose';
import type { Clock } from '../machine/clock';
import type { GroupCommit } from '../db/groupCommit';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { files, fileUses } from '../db/schema';
import type { JobQueue } from '../jobs/jobQueue';
import type { FileStore } from './fileStore';

export interface NewFile {
  readonly bytes: Uint8Array;
  readonly type: string;
  readonly invitationId: number;
  readonly attempt: number;
  readonly purpose: FilePurpose;
  /** Null: as long as the answers themselves. */
  readonly keepUntil: number | null;
}

/** What a file in the store is for; `bytes` is how many there are. */
export interface FileUse extends Omit<NewFile, 'bytes'> {
  readonly hash: string;
  readonly bytes: number;
}

/** What every row of a watch room asks, and every picture brings. */
const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  const own = and(eq(fileUses.invitationId, p('invitation')), eq(fileUses.purpose, p('purpose')));
  const open = and(own, isNull(fileUses.endedAt));
  return {
    open: db.select().from(fileUses).where(open).orderBy(asc(fileUses.id)).prepare(),
    addFile: db
      .insert(files)
      .values({ hash: p('hash'), type: p('type'), bytes: p('bytes'), at: p('at') })
      .onConflictDoNothing()
      .prepare(),
    addUse: db
      .insert(fileUses)
      .values({
        hash: p('hash'),
        invitationId: p('invitationId'),
        attempt: p('attempt'),
        purpose: p('purpose'),
        keepUntil: p('keepUntil'),
        at: p('at'),
      })
      .prepare(),
  };
});

/** Files and what they are used for. Bytes are deleted when their last use has ended. */
export class Files {
  private readonly db: Db;
  /** The bytes themselves, for what is not of one candidate's arrival. */
  readonly store: FileStore;
  private readonly clock: Clock;
  private readonly jobs: JobQueue;
  private readonly commits: GroupCommit;

  constructor(db: Db, commits: GroupCommit, store: FileStore, clock: Clock, jobs: JobQueue) {
    this.db = db;
    [this.commits, this.store, this.clock, this.jobs] = [commits, store, clock, jobs];
    jobs.handle('end-file-use', 'files', (use) => this.endUse(use));
  }

  /**
   * Keeps a file for a purpose, and does in the same commit what goes with it; what was kept for the same purpose before
   * is no longer used.
   */
  async keep({ bytes, ...use }: NewFile, also: () => void): Promise<void> {
    const { invitationId, purpose, attempt } = use;
    const { hash } = await this.store.keepStream([bytes]);
    const before = await this.commits.run(() => {
      // The last use of the same bytes may have ended meanwhile, and they with it.
      if (this.store.find(hash) === null) this.store.keep(bytes);
      const replaced = this.usesOf(invitationId, purpose).filter((one) => one.attempt === attempt);
      this.addUse({ ...use, hash, bytes: bytes.length });
      also();
      return replaced;
    });
    for (const { id } of before) this.endUse(id);
  }

  /** Notes what bytes in the store are for, beside others of the same purpose; part of a commit. */
  addUse({ hash, bytes, type, ...use }: FileUse): void {
    const at = this.clock.now();
    const { addFile, addUse } = queriesOf(this.db);
    addFile.run({ hash, type, bytes, at });
    const { lastInsertRowid } = addUse.run({ ...use, hash, at });
    if (use.keepUntil !== null) this.jobs.add('end-file-use', Number(lastInsertRowid), use.keepUntil);
  }

  /** The file that is used for a purpose now; null for none. */
  find(invitationId: number, purpose: FilePurpose): Buffer | null {
    const use = this.usesOf(invitationId, purpose).at(-1);
    return use ? this.store.read(use.hash) : null;
  }

  has(invitationId: number, purpose: FilePurpose, attempt: number): boolean {
    return this.usesOf(invitationId, purpose).some((use) => use.attempt === attempt);
  }

  /** Ends the use for a purpose, as when somebody goes on without a picture. */
  endUses(invitationId: number, purpose: FilePurpose, attempt: number): void {
    for (const use of this.usesOf(invitationId, purpose)) if (use.attempt === attempt) this.endUse(use.id);
  }

  private usesOf(invitation: number, purpose: FilePurpose) {
    return queriesOf(this.db).open.all({ invitation, purpose });
  }

  private endUse(id: number): void {
    const use = this.db.select().from(fileUses).where(eq(fileUses.id, id)).get();
    if (!use || use.endedAt !== null) return;
    this.db.update(fileUses).set({ endedAt: this.clock.now() }).where(eq(fileUses.id, id)).run();
    const open = and(eq(fileUses.hash, use.hash), isNull(fileUses.endedAt));
    if (!this.db.select().from(fileUses).where(open).limit(1).get()) this.store.remove(use.hash);
  }
}

export interface HasFiles {
  readonly files: Files;
}
