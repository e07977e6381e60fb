import { filesIn } from '../../core/documents/filesIn';
import { roles } from '../../core/rounds/api';
import { forAnyone, forStaff, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import { latestVersion } from '../papers/papers';
import { REHEARSALS } from '../papers/rehearsals';
import type { Services } from '../services';
import { fileParams, sendFile } from './sendFile';

/** Is it a file of a rehearsal? Nothing in those is secret. */
const isOfRehearsal = ({ db }: Services, file: string): boolean =>
  REHEARSALS.some((key) => {
    const found = latestVersion(db, key);
    return found !== null && filesIn(found.paper).has(file);
  });

/**
 * Media as staff see them, in previews and at the marking table; whoever asks has read the file's name in a paper. Those
 * of rehearsals are open to everybody. What candidates get in a test is sealed (`sealedMedia.ts`).
 */
export const mediaEndpoints = (services: Services): Endpoint[] => [
  forStaff(roles, { method: 'get', path: '/media/:file', params: fileParams }, (_, { params, response }) =>
    sendFile(services, params.file, response),
  ),
  forAnyone({ method: 'get', path: '/rehearsal-media/:file', params: fileParams }, ({ params, response }) => {
    if (!isOfRehearsal(services, params.file)) throw notFound('noFile');
    sendFile(services, params.file, response);
  }),
];
