import { isNotNull } from 'drizzle-orm';
import { filesIn } from '../../core/documents/filesIn';
import { roles } from '../../core/rounds/api';
import { forAnyone, forStaff, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import { rounds } from '../db/schema';
import { latestVersion, paperOfVersion } from '../papers/papers';
import { REHEARSALS } from '../papers/rehearsals';
import { fileParams, sendFile } from './sendFile';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';

/** Is it a file of a rehearsal, or of a paper that can be practised? Nothing in those is secret any more. */
function isOfRehearsal({ db }: HasDb, file: string): boolean {
  const rehearsals = REHEARSALS.flatMap((key) => latestVersion(db, key)?.paper ?? []);
  const practised = db
    .selectDistinct({ id: rounds.paperVersionId })
    .from(rounds)
    .where(isNotNull(rounds.practiceAt))
    .all();
  const papers = [...rehearsals, ...practised.map(({ id }) => paperOfVersion(db, id))];
  return papers.some((paper) => filesIn(paper).has(file));
}

/**
 * Media as staff see them, in previews and at the marking table; whoever asks has read the file's name in a paper. Those
 * of rehearsals are open to everybody. What candidates get in a test is sealed (`sealedMedia.ts`).
 */
export const mediaEndpoints = (services: HasDb & HasFiles): Endpoint[] => [
  forStaff(roles, { method: 'get', path: '/media/:file', params: fileParams }, (_, { params, response }) =>
    sendFile(services, params.file, response),
  ),
  forAnyone({ method: 'get', path: '/rehearsal-media/:file', params: fileParams }, ({ params, response }) => {
    if (!isOfRehearsal(services, params.file)) throw notFound('noFile');
    sendFile(services, params.file, response);
  }),
];
