import { createCipheriv, randomBytes, type CipherGCM } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { and, eq, sql } from 'drizzle-orm';
import { filesIn } from '../../core/documents/filesIn';
import { wholeForm } from '../../core/forms/drawForm';
import { splitForSealing } from '../../core/papers/candidatePaper';
import { mediaName } from '../../core/sittings/mediaName';
import type { MediaListing } from '../../core/sittings/api';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { mediaKeys, rounds, sealedMedia } from '../db/schema';
import type { FileStore } from '../files/fileStore';
import { formById } from '../forms/forms';
import { paperOfVersion } from '../papers/papers';
import { sha256 } from '../secrets';

const IV_BYTES = 12;
const LISTINGS_KEPT = 2000;
const NONE: readonly MediaListing[] = [];

const queriesOf = perDatabase((db) => {
  const round = sql.placeholder('round');
  return {
    keys: db.select().from(mediaKeys).where(eq(mediaKeys.roundId, round)).prepare(),
    files: db.select().from(sealedMedia).where(eq(sealedMedia.roundId, round)).prepare(),
    one: db
      .select()
      .from(sealedMedia)
      .where(and(eq(sealedMedia.roundId, round), eq(sealedMedia.hash, sql.placeholder('hash'))))
      .prepare(),
  };
});

type Row = typeof sealedMedia.$inferSelect;
/** The rows of a round; they never change once the round is sealed. */
const rowsKnown = perDatabase(() => new Map<number, readonly Row[]>());
const listingsKnown = perDatabase(() => new Map<string, readonly MediaListing[]>());

/** What travels of a file: 12 bytes of initialisation vector, what AES-256-GCM made of it, 16 bytes of tag. */
async function* encrypted(path: string, cipher: CipherGCM, iv: Buffer): AsyncGenerator<Buffer> {
  yield iv;
  for await (const chunk of createReadStream(path)) yield cipher.update(chunk as Buffer);
  yield cipher.final();
  yield cipher.getAuthTag();
}

/**
 * The media of rounds as candidates fetch them before the start: sealed once a round, under a key of the round's own, or
 * of the section's with a limit of its own. Not a byte of it can be read before the key has come.
 */
export class SealedMedia {
  private readonly db: Db;
  private readonly store: FileStore;
  private readonly sealing = new Map<number, Promise<void>>();

  constructor(db: Db, store: FileStore) {
    [this.db, this.store] = [db, store];
  }

  /** Seals what the round's paper names, once; asked again meanwhile, it waits for the same work. */
  seal(roundId: number): Promise<void> {
    const known = this.sealing.get(roundId);
    if (known) return known;
    const work = this.sealAll(roundId).catch((error: unknown) => {
      this.sealing.delete(roundId);
      throw error;
    });
    this.sealing.set(roundId, work);
    return work;
  }

  /** The sealed files that a form names. */
  listing(roundId: number, formId: number): readonly MediaListing[] {
    const rows = this.rowsOf(roundId);
    if (rows.length === 0) return NONE;
    const key = `${roundId}/${formId}`;
    const cached = listingsKnown(this.db).get(key);
    if (cached) return cached;
    const named = filesIn(formById(this.db, formId).paper);
    const listed = rows
      .filter((row) => named.has(row.file))
      .map(({ name, hash, bytes }) => ({ name, hash, bytes }));
    if (listingsKnown(this.db).size >= LISTINGS_KEPT) listingsKnown(this.db).clear();
    listingsKnown(this.db).set(key, listed);
    return listed;
  }

  /** The key of the round and those of the sections that were entered; no others leave the server. */
  keys(roundId: number, entered: readonly string[]): Record<string, string> {
    const open = ['', ...entered];
    const found = queriesOf(this.db).keys.all({ round: roundId });
    return Object.fromEntries(found.filter((k) => open.includes(k.section)).map((k) => [k.section, k.key]));
  }

  /** Where the sealed bytes of a file of this round lie; null where it has no such file. */
  find(roundId: number, hash: string): string | null {
    return queriesOf(this.db).one.get({ round: roundId, hash }) ? this.store.find(hash) : null;
  }

  private rowsOf(roundId: number): readonly Row[] {
    const cached = rowsKnown(this.db).get(roundId);
    if (cached) return cached;
    const rows = queriesOf(this.db).files.all({ round: roundId });
    rowsKnown(this.db).set(roundId, rows);
    return rows;
  }

  private async sealAll(roundId: number): Promise<void> {
    const round = this.db.select().from(rounds).where(eq(rounds.id, roundId)).get();
    if (!round) throw new Error(`there is no round ${roundId}`);
    const { open, limited } = splitForSealing(wholeForm(paperOfVersion(this.db, round.paperVersionId)).paper);
    const groups = [{ section: '', files: filesIn(open) }].concat(
      limited.map((one) => ({ section: one.section, files: filesIn(one) })),
    );
    const sealed = new Set(
      queriesOf(this.db)
        .files.all({ round: roundId })
        .map((row) => row.file),
    );
    for (const { section, files } of groups)
      for (const file of files) {
        // What is also in the open part of the paper needs no key of its own.
        if (sealed.has(file)) continue;
        sealed.add(file);
        await this.sealFile({ roundId, section, file });
      }
    rowsKnown(this.db).delete(roundId);
  }

  private async sealFile({
    roundId,
    section,
    file,
  }: Pick<Row, 'roundId' | 'section' | 'file'>): Promise<void> {
    const path = this.store.find(file);
    if (path === null) throw new Error(`the bytes of ${file} are not in the folder of files`);
    const key = this.keyFor(roundId, section);
    const iv = randomBytes(IV_BYTES);
    const cipher = createCipheriv('aes-256-gcm', Buffer.from(key, 'base64url'), iv);
    const { hash, bytes } = await this.store.keepStream(encrypted(path, cipher, iv));
    const name = mediaName(key, file, sha256);
    this.db.insert(sealedMedia).values({ roundId, section, file, name, hash, bytes }).run();
  }

  private keyFor(roundId: number, section: string): string {
    const known = queriesOf(this.db)
      .keys.all({ round: roundId })
      .find((row) => row.section === section);
    if (known) return known.key;
    const key = randomBytes(32).toString('base64url');
    this.db.insert(mediaKeys).values({ roundId, section, key }).run();
    return key;
  }
}

export interface HasMedia {
  readonly media: SealedMedia;
}
