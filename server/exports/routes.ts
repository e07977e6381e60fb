import { forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import { listEndpoints } from '../reading/listEndpoints';
import { isBlind } from '../results/blindness';
import { agreementList, markingList } from './marking';
import { marksList, scriptMarksList } from './marks';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';
import type { HasReader } from '../reading/reader';

/** What is needed here of the server. */
type Needs = HasDb & HasSessions & HasReader;

/** What staff take out of a round as tables: marks, who gave them, and how far assessors agree. */
export function exportEndpoints(services: Needs): Endpoint[] {
  const readers = ['coordinator', 'lead'] as const;
  const ofMarks = [
    { list: marksList, path: '/rounds/:id/marks' },
    { list: scriptMarksList, path: '/rounds/:id/script-marks' },
  ] as const;
  return [
    ...ofMarks.flatMap(({ list, path: at }) =>
      listEndpoints(services, list as typeof marksList, at, (path, answer) =>
        forRoundStaff(readers, { method: 'get', path, params: idParams }, (who, { params, request }) =>
          answer({ round: params.id, blind: isBlind(services, who.id, params.id) }, request),
        ),
      ),
    ),
    // Who marked what is for who coordinates: assessors are blind of each other.
    ...listEndpoints(services, markingList, '/rounds/:id/marking', (path, answer) =>
      forRoundStaff(['coordinator'], { method: 'get', path, params: idParams }, (_, { params, request }) =>
        answer({ round: params.id }, request),
      ),
    ),
    ...listEndpoints(services, agreementList, '/rounds/:id/agreement', (path, answer) =>
      forRoundStaff(readers, { method: 'get', path, params: idParams }, (_, { params, request }) =>
        answer({ round: params.id }, request),
      ),
    ),
  ];
}
