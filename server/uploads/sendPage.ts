import type { Response } from 'express';
import { notFound } from '../http/errors';
import { pageOf, type SeenPage } from './uploads';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';
import type { HasUploads } from './uploads';

function send({ path, type }: SeenPage, response: Response): void {
  response
    .set('Content-Security-Policy', "sandbox; default-src 'none'")
    .set('Cache-Control', 'private, max-age=3600');
  // A document is drawn by the page that asks for it, and never opened by the browser itself.
  response.type(type.startsWith('image/') ? type : 'application/octet-stream');
  // When a page came would tell whose it is.
  response.sendFile(path, { dotfiles: 'allow', cacheControl: false, lastModified: false, etag: false });
}

/** A page as its sender sees it: a picture that the server has re-encoded, or the PDF document that was sent. */
export function sendOwnPage(
  { db, files }: HasDb & HasFiles,
  sitting: number,
  hash: string,
  response: Response,
): void {
  const row = pageOf(db, sitting, hash);
  const own = row?.type === 'application/pdf' ? row.hash : (row?.view ?? null);
  const path = row?.state === 'here' && own !== null ? files.store.find(own) : null;
  if (!row || path === null) throw notFound('noPage');
  send({ path, type: row.type! }, response);
}

/** A page as everybody else sees it: nothing of the file that was sent. Who may have it is for the caller to say. */
export async function sendPage(
  { uploads }: HasUploads,
  sitting: number,
  hash: string,
  response: Response,
): Promise<void> {
  const seen = await uploads.viewOf(sitting, hash);
  if (seen === null) throw notFound('noPage');
  send(seen, response);
}
