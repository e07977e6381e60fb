import { mkdirSync, rmSync } from 'node:fs';
import { open, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { and, eq, sql } from 'drizzle-orm';
import type { PagePartReply } from '../../core/files/pages';
import type { Clock } from '../machine/clock';
import type { GroupCommit } from '../db/groupCommit';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { pages } from '../db/schema';
import type { Files } from '../files/files';
import { ApiError, badRequest } from '../http/errors';
import type { Pictures, ReadPage } from '../pictures/pictures';
import { sha256 } from '../secrets';

export type PageRow = typeof pages.$inferSelect;

/** Whose page, and how large its file is said to be. */
export interface PageOf {
  readonly sitting: number;
  readonly invitation: number;
  readonly attempt: number;
  readonly hash: string;
  readonly bytes: number;
  /** What is complete only after this is late; null while nothing is. */
  readonly lateAfter: number | null;
}

/** Checked where it comes in: it lies within the file, and is as large as a part can be there. */
export interface PagePart {
  readonly from: number;
  readonly bytes: Uint8Array;
}

/** More than the pages of any paper with all their retakes; whoever sends more sends no answers. */
const MOST_PAGES = 200;
const MOST_BYTES = 300 * 1024 * 1024;
/** A decoder that fails may have met trouble of the machine; at the third time it is the file. */
const MOST_TRIES = 3;

const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  return {
    one: db
      .select()
      .from(pages)
      .where(and(eq(pages.sittingId, p('sitting')), eq(pages.hash, p('hash'))))
      .prepare(),
    all: db
      .select()
      .from(pages)
      .where(eq(pages.sittingId, p('sitting')))
      .prepare(),
  };
});

export const pageOf = (db: Db, sitting: number, hash: string): PageRow | null =>
  queriesOf(db).one.get({ sitting, hash }) ?? null;

export const pagesOf = (db: Db, sitting: number): PageRow[] => queriesOf(db).all.all({ sitting });

const ownOf = ({ sitting, hash }: PageOf) => and(eq(pages.sittingId, sitting), eq(pages.hash, hash));

interface Parts {
  readonly db: Db;
  readonly clock: Clock;
  readonly commits: GroupCommit;
  readonly files: Files;
  readonly pictures: Pictures;
}

/**
 * The bytes of pages, taken in parts in their order: each part is durable before it is acknowledged, and a part that
 * comes again or too early changes nothing. A whole page is checked by its hash and by its content.
 */
export class Uploads {
  private readonly parts: Parts;
  private readonly folder: string;
  /** One after the other for each page. */
  private readonly running = new Map<string, Promise<unknown>>();

  constructor(parts: Parts, folder: string) {
    [this.parts, this.folder] = [parts, folder];
    mkdirSync(folder, { recursive: true });
  }

  /** Takes a part; tells how much is held from the beginning, and whether the page is complete. */
  async take(page: PageOf, part: PagePart): Promise<PagePartReply> {
    const key = `${page.sitting}-${page.hash}`;
    const before = this.running.get(key) ?? Promise.resolve();
    const own = before.catch(() => undefined).then(() => this.takeNext(page, part));
    this.running.set(key, own);
    try {
      return await own;
    } finally {
      if (this.running.get(key) === own) this.running.delete(key);
    }
  }

  private async takeNext(page: PageOf, part: PagePart): Promise<PagePartReply> {
    const row = pageOf(this.parts.db, page.sitting, page.hash) ?? (await this.begin(page));
    if (row.state !== 'partly') return { held: row.held, state: row.state };
    // One of the two sizes is made up.
    if (row.bytes !== page.bytes) throw badRequest('pageBroken');
    // A backup was restored without what had been sent of it, or with less: it begins again.
    if (row.held > (await this.sizeOfDraft(page))) {
      await this.change(page, { held: 0 });
      return { held: 0, state: 'partly' };
    }
    if (row.held < row.bytes) {
      if (part.from !== row.held) return { held: row.held, state: 'partly' };
      const held = row.held + part.bytes.length;
      await this.append(page, part);
      await this.change(page, { held });
      if (held < row.bytes) return { held, state: 'partly' };
    }
    return this.complete(page, row.tries);
  }

  private async begin({ sitting, hash, bytes }: PageOf): Promise<PageRow> {
    const row: PageRow = {
      sittingId: sitting,
      hash,
      bytes,
      held: 0,
      state: 'partly',
      type: null,
      view: null,
      tries: 0,
      completedAt: null,
      late: false,
    };
    const { db, commits } = this.parts;
    return commits.run(() => {
      const known = pagesOf(db, sitting);
      const all = known.reduce((sum, one) => sum + one.bytes, bytes);
      if (known.length >= MOST_PAGES || all > MOST_BYTES) throw new ApiError(429, 'too-many-pages');
      db.insert(pages).values(row).run();
      return row;
    });
  }

  private async append(page: PageOf, { from, bytes }: PagePart): Promise<void> {
    const file = await open(this.draftOf(page), from === 0 ? 'w' : 'r+');
    try {
      await file.write(bytes, 0, bytes.length, from);
      await file.datasync();
    } finally {
      await file.close();
    }
  }

  private change(page: PageOf, to: Partial<PageRow>): Promise<void> {
    const { db, commits } = this.parts;
    return commits.run(() => void db.update(pages).set(to).where(ownOf(page)).run());
  }

  private async complete(page: PageOf, tries: number): Promise<PagePartReply> {
    const whole = await readFile(this.draftOf(page)).catch(() => null);
    const again = tries + 1 < MOST_TRIES;
    if (whole === null || sha256(whole) !== page.hash) {
      // Something on the way has changed it: all of it once more.
      if (!again) return this.unreadable(page);
      await this.change(page, { held: 0, tries: tries + 1 });
      return { held: 0, state: 'partly' };
    }
    let read: ReadPage | null;
    try {
      read = await this.parts.pictures.page(whole);
    } catch (error) {
      await this.change(page, { tries: tries + 1 });
      if (again) throw error;
      read = null;
    }
    return read === null ? this.unreadable(page) : this.keep(page, whole, read);
  }

  private async keep(page: PageOf, whole: Uint8Array, { type, view }: ReadPage): Promise<PagePartReply> {
    const { db, files, clock, commits } = this.parts;
    const { invitation: invitationId, attempt, lateAfter, hash } = page;
    await files.store.keepStream([whole]);
    const shown = view && (await files.store.keepStream([view]));
    const completedAt = clock.now();
    const late = lateAfter !== null && completedAt > lateAfter;
    const use = { invitationId, attempt, keepUntil: null, type };
    await commits.run(() => {
      files.addUse({ ...use, purpose: 'page', hash, bytes: whole.length });
      if (shown) files.addUse({ ...use, purpose: 'page view', ...shown });
      const to = { state: 'here', type, view: shown?.hash ?? null, completedAt, late } as const;
      db.update(pages).set(to).where(ownOf(page)).run();
    });
    rmSync(this.draftOf(page), { force: true });
    return { held: page.bytes, state: 'here' };
  }

  private async unreadable(page: PageOf): Promise<PagePartReply> {
    await this.change(page, { state: 'unreadable', completedAt: this.parts.clock.now() });
    rmSync(this.draftOf(page), { force: true });
    return { held: page.bytes, state: 'unreadable' };
  }

  private async sizeOfDraft(page: PageOf): Promise<number> {
    return (await stat(this.draftOf(page)).catch(() => null))?.size ?? 0;
  }

  private draftOf({ sitting, hash }: PageOf): string {
    return path.join(this.folder, `${sitting}-${hash}`);
  }
}
