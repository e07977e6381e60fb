import { eq } from 'drizzle-orm';
import Joi from 'joi';
import { roles } from '../../core/rounds/api';
import { media } from '../db/schema';
import { forStaff, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import type { Services } from '../services';

const fileParams = Joi.object<{ file: string }>({
  file: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .required(),
});

/** Media as staff see them, in previews and at the marking table; whoever asks has read the file's name in a paper. */
export function mediaEndpoints({ db, files }: Services): Endpoint[] {
  return [
    forStaff(
      roles,
      { method: 'get', path: '/media/:file', params: fileParams },
      (_, { params, response }) => {
        const known = db.select().from(media).where(eq(media.hash, params.file)).get();
        const path = files.store.find(params.file);
        if (!known || path === null) throw notFound('noFile');
        // Whatever it holds, it is shown and never run.
        response.set('Content-Security-Policy', "sandbox; default-src 'none'").type(known.type);
        response.sendFile(path, { dotfiles: 'allow', immutable: true, maxAge: '1d' });
      },
    ),
  ];
}
