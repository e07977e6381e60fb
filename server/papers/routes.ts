import { objectOf, oneOf } from '../../core/validation/shapes';
import { adaptiveViews } from '../../core/papers/adaptiveApi';
import { wholeForm } from '../../core/forms/drawForm';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { badRequest, notFound } from '../http/errors';
import { listEndpoints } from '../reading/listEndpoints';
import { importPaper } from './importPaper';
import { papersList } from './lists';
import { paperById } from './papers';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';
import type { HasClock } from '../machine/clock';
import type { HasReader } from '../reading/reader';
import type { HasEvidence } from '../scoring/findEvidence';
import type { HasPaperReader } from './paperReader';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasFiles, HasReader, HasPaperReader, HasEvidence {}

const importParams = objectOf<{ how: 'check' | 'publish' }>({
  how: oneOf(['check', 'publish']),
});

const paperFile = { type: 'application/octet-stream', limit: '100mb' } as const;

export function paperEndpoints(services: Needs): Endpoint[] {
  const roles = ['coordinator'] as const;
  return [
    ...listEndpoints(services, papersList, '/papers', (path, answer) =>
      forStaff(roles, { method: 'get', path }, (_, { request }) => answer(null, request)),
    ),
    forStaff(roles, { method: 'get', path: '/papers/:id', params: idParams }, (_, { params }) => {
      const paper = paperById(services.db, params.id);
      if (!paper) throw notFound('noPaper');
      return wholeForm(paper).paper;
    }),
    forStaff(roles, { method: 'get', path: '/papers/:id/adaptive', params: idParams }, (_, { params }) => {
      const paper = paperById(services.db, params.id);
      if (!paper) throw notFound('noPaper');
      return adaptiveViews(paper);
    }),
    forStaff<unknown, { how: 'check' | 'publish' }>(
      roles,
      { method: 'post', path: '/papers/import/:how', params: importParams, body: paperFile },
      async (who, { params, body }) => {
        if (!(body instanceof Uint8Array)) throw badRequest('malformed');
        return importPaper(services, body, params.how === 'publish' ? who.id : null);
      },
    ),
  ];
}
