import { createReadStream, mkdirSync, rmSync } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import path from 'node:path';
import { and, eq, sql } from 'drizzle-orm';
import type { PagePartReply } from '../../core/files/pages';
import type { Clock } from '../machine/clock';
import type { GroupCommit } from '../db/groupCommit';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { pages, sittings } from '../db/schema';
import type { Files } from '../files/files';
import { ApiError, badRequest } from '../http/errors';
import type { Pictures, ReadPage } from '../pictures/pictures';
import type { Printer } from '../printing/printer';

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
  readonly printer: Pick<Printer, 'documentOfPictures'>;
}

export interface SeenPage {
  readonly path: string;
  readonly type: string;
}

/**
 * The bytes of pages, taken in parts in their order: each part is durable before it is acknowledged, and a part that
 * comes again or too early changes nothing. A whole page is checked by its hash and by its content.
 */
export class Uploads {
  private readonly parts: Parts;
  private readonly folder: string;
  private readonly running = new Map<string, Promise<unknown>>();

  constructor(parts: Parts, folder: string) {
    [this.parts, this.folder] = [parts, folder];
    mkdirSync(folder, { recursive: true });
  }

  /** Takes a part; tells how much is held from the beginning, and whether the page is complete. */
  async take(page: PageOf, part: PagePart): Promise<PagePartReply> {
    return this.inTurn(`${page.sitting}-${page.hash}`, () => this.takeNext(page, part));
  }

  /** Does one piece of work after the other for each key, whether or not those before it went well. */
  private async inTurn<T>(key: string, work: () => Promise<T>): Promise<T> {
    const before = this.running.get(key) ?? Promise.resolve();
    const own = before.catch(() => undefined).then(work);
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

  /** One at a time of each sitting: nobody has many opened at once. */
  private complete(page: PageOf, tries: number): Promise<PagePartReply> {
    return this.inTurn(`${page.sitting}`, () => this.open(page, tries));
  }

  private async open(page: PageOf, tries: number): Promise<PagePartReply> {
    const again = tries + 1 < MOST_TRIES;
    const file = { path: this.draftOf(page), hash: page.hash };
    let read: ReadPage | 'other bytes' | null;
    try {
      read = await this.parts.pictures.page(file, String(page.sitting));
    } catch (error) {
      await this.change(page, { tries: tries + 1 });
      if (again) throw error;
      read = null;
    }
    if (read === 'other bytes' && again) {
      // Something on the way has changed it: all of it once more.
      await this.change(page, { held: 0, tries: tries + 1 });
      return { held: 0, state: 'partly' };
    }
    return read === null || read === 'other bytes' ? this.unreadable(page) : this.keep(page, read);
  }

  private async keep(page: PageOf, { type, view }: ReadPage): Promise<PagePartReply> {
    const { db, files, clock, commits } = this.parts;
    const { invitation: invitationId, attempt, lateAfter } = page;
    const own = await files.store.keepStream(createReadStream(this.draftOf(page)));
    const shown = view && (await files.store.keepStream([view]));
    const completedAt = clock.now();
    const late = lateAfter !== null && completedAt > lateAfter;
    const use = { invitationId, attempt, keepUntil: null, type };
    await commits.run(() => {
      files.addUse({ ...use, purpose: 'page', ...own });
      if (shown) files.addUse({ ...use, purpose: 'page view', ...shown });
      const to = { state: 'here', type, view: shown?.hash ?? null, completedAt, late } as const;
      db.update(pages).set(to).where(ownOf(page)).run();
    });
    rmSync(this.draftOf(page), { force: true });
    return { held: page.bytes, state: 'here' };
  }

  /**
   * What people other than its sender see of a page: always made by this server, so that it tells nothing of its sender. Of a
   * PDF it is a document of pictures, drawn when somebody first looks. Null where there is nothing to see.
   */
  viewOf(sitting: number, hash: string): Promise<SeenPage | null> {
    return this.inTurn(`view ${sitting}-${hash}`, async () => {
      const row = pageOf(this.parts.db, sitting, hash);
      if (row?.state !== 'here') return null;
      const seen = row.view === null ? await this.drawn(row) : row.view;
      const path = seen === null ? null : this.parts.files.store.find(seen);
      return path === null ? null : { path, type: row.type! };
    });
  }

  private async drawn({ sittingId, hash, type }: PageRow): Promise<string | null> {
    const { db, files, printer, commits } = this.parts;
    const original = files.store.find(hash);
    const document = original && (await printer.documentOfPictures(original));
    if (!document) return null;
    const kept = await files.store.keepStream([document]);
    await commits.run(() => {
      const { invitationId, attempt } = db.select().from(sittings).where(eq(sittings.id, sittingId)).get()!;
      const use = { invitationId, attempt, keepUntil: null, type: type!, purpose: 'page view' } as const;
      files.addUse({ ...use, ...kept });
      const own = and(eq(pages.sittingId, sittingId), eq(pages.hash, hash));
      db.update(pages).set({ view: kept.hash }).where(own).run();
    });
    return kept.hash;
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

export interface HasUploads {
  readonly uploads: Uploads;
}
