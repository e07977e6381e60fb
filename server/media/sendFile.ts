import { eq } from 'drizzle-orm';
import type { Response } from 'express';
import { objectOf } from '../../core/validation/shapes';
import Joi from 'joi';
import { media } from '../db/schema';
import { notFound } from '../http/errors';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';

export const fileParams = objectOf<{ file: string }>({
  file: Joi.string().pattern(/^[0-9a-f]{64}$/),
});

/** A file of a text by its hash. Who may have it is for the caller to say. */
export function sendFile({ db, files }: HasDb & HasFiles, file: string, response: Response): void {
  const known = db.select().from(media).where(eq(media.hash, file)).get();
  const path = files.store.find(file);
  if (!known || path === null) throw notFound('noFile');
  // Whatever it holds, it is shown and never run.
  response.set('Content-Security-Policy', "sandbox; default-src 'none'").type(known.type);
  response.sendFile(path, { dotfiles: 'allow', immutable: true, maxAge: '1d' });
}
