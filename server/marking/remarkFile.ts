import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Response } from 'express';
import { MOST_PAGE_BYTES, pageTypes, type PageType } from '../../core/files/pages';
import type { SheetFile } from '../../core/results/resultSheet';
import { record } from '../audit/record';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import { overallComments } from '../db/schema';
import type { HasFiles } from '../files/files';
import { badRequest, notFound } from '../http/errors';
import type { HasClock } from '../machine/clock';
import type { HasPictures, ReadPage } from '../pictures/pictures';
import { sha256 } from '../secrets';
import { overallRemarkOn } from './remarks';
import { sittingOfScript } from './scripts';

/** What is needed here of the server. */
interface Needs extends HasClock, HasCommits, HasDb, HasFiles, HasPictures {}

/** Decoded and re-encoded, or counted page by page, like a page of an answer; refused where it is neither. */
async function checked({ pictures }: HasPictures, bytes: Uint8Array, owner: string): Promise<ReadPage> {
  if (bytes.length === 0 || bytes.length > MOST_PAGE_BYTES) throw badRequest('remarkFile');
  const folder = await mkdtemp(path.join(tmpdir(), 'clear-sitting-remark-'));
  try {
    const file = path.join(folder, 'file');
    await writeFile(file, bytes);
    const read = await pictures.page({ path: file, hash: sha256(bytes) }, owner);
    if (read === null || read === 'other bytes') throw badRequest('remarkFile');
    return read;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const isPageType = (type: string): type is PageType => (pageTypes as readonly string[]).includes(type);

/** Lets a file go with the remark on a whole script, in place of one that did before; null takes it away. */
export async function attachToRemark(
  services: Needs,
  staffId: number,
  {
    round,
    script,
    bytes,
  }: { readonly round: number; readonly script: string; readonly bytes: Uint8Array | null },
): Promise<void> {
  const { db, clock, commits, files } = services;
  const sitting = sittingOfScript(db, round, script);
  const read = bytes && (await checked(services, bytes, `remark ${sitting.id}`));
  if (read && !isPageType(read.type)) throw badRequest('remarkFile');
  const kept = read && (await files.store.keepStream([read.view ?? bytes]));
  await commits.run(() => {
    const before = overallRemarkOn(db, sitting.id);
    if (before.file === (kept?.hash ?? null)) return;
    files.endUses(sitting.invitationId, 'remark', sitting.attempt);
    if (kept) {
      const { invitationId, attempt } = sitting;
      // The last use of the same bytes may just have ended, and they with it.
      if (files.store.find(kept.hash) === null) files.store.keep(read.view ?? bytes);
      files.addUse({ ...kept, invitationId, attempt, type: read.type, purpose: 'remark', keepUntil: null });
    }
    const file = { file: kept?.hash ?? null, fileType: (read?.type ?? null) as PageType | null };
    db.insert(overallComments)
      .values({ sittingId: sitting.id, staffId, text: before.text, ...file, at: clock.now() })
      .run();
    const act = kept ? 'attached-file' : 'took-file-away';
    record(services, { staffId, act, subject: `round ${round}, script ${script}`, reason: '' });
  });
}

/** The file that goes with a remark. Who may have it is for the caller to say. */
export function sendRemarkFile({ files }: HasFiles, { hash, type }: SheetFile, response: Response): void {
  const at = files.store.find(hash);
  if (at === null) throw notFound('noFile');
  response
    .set('Content-Security-Policy', "sandbox; default-src 'none'")
    .set('Cache-Control', 'private, no-store');
  // A picture is shown on the sheet; a document is kept by whoever asks for it, and never opened within our pages.
  if (type === 'application/pdf') response.attachment('remark.pdf');
  response.type(type);
  response.sendFile(at, { dotfiles: 'allow', cacheControl: false, lastModified: false, etag: false });
}
