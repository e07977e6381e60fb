import { forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import { partParams, targetIn } from '../http/partParams';
import type { HasReader } from '../reading/reader';
import { answersRead, figuresRead, partsRead } from './reads';

const PART = '/rounds/:round/answers/:item/:part';

/** What was answered, and the figures of each part, for the lead of a round. */
export function answerEndpoints(services: HasReader): Endpoint[] {
  return [
    forRoundStaff(
      ['lead'],
      { method: 'get', path: '/rounds/:id/answers', params: idParams },
      (_, { params }) => services.reader.read(partsRead, { round: params.id }),
    ),
    forRoundStaff(
      ['lead'],
      { method: 'get', path: '/rounds/:id/figures', params: idParams },
      (_, { params }) => services.reader.read(figuresRead, { round: params.id }),
    ),
    forRoundStaff(['lead'], { method: 'get', path: PART, params: partParams }, (_, { params }) =>
      services.reader.read(answersRead, { round: params.round, target: targetIn(params) }),
    ),
  ];
}
