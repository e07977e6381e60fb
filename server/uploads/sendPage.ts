import type { Response } from 'express';
import { notFound } from '../http/errors';
import type { Services } from '../services';
import { pageOf } from './uploads';

/** A page as people see it: a picture that the server has written anew, or a PDF document. Who may have it is for the caller to say. */
export function sendPage({ db, files }: Services, sitting: number, hash: string, response: Response): void {
  const row = pageOf(db, sitting, hash);
  const path = row?.state === 'here' ? files.store.find(row.view ?? row.hash) : null;
  if (!row || path === null) throw notFound('noPage');
  response
    .set('Content-Security-Policy', "sandbox; default-src 'none'")
    .set('Cache-Control', 'private, max-age=3600');
  // A document is drawn by the page that asks for it, and never opened by the browser itself.
  response.type(row.view === null ? 'application/octet-stream' : row.type!);
  response.sendFile(path, { dotfiles: 'allow', cacheControl: false });
}
