import Joi from 'joi';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { partParams, targetIn } from '../http/partParams';
import type { Services } from '../services';
import { bench, giveMark, listPiles, signOff, signOffState, signOffStates, type NewMark } from './operations';

const markBody = Joi.object<NewMark>({
  given: Joi.object()
    .pattern(/^[a-z0-9-]{1,20}$/, Joi.number().integer().min(0).max(100_000))
    .max(30)
    .required(),
  comment: Joi.string().allow('').max(4000).required(),
});

export function markingEndpoints(services: Services): Endpoint[] {
  return [
    forStaff(['assessor', 'lead'], { method: 'get', path: '/marking/piles' }, (who) =>
      listPiles(services, who.id),
    ),
    forRoundStaff(
      ['assessor', 'lead'],
      { method: 'get', path: '/marking/piles/:round/:item/:part', params: partParams },
      (who, { params }) => bench(services, who.id, params.round, targetIn(params)),
    ),
    forStaff(
      ['assessor', 'lead'],
      { method: 'post', path: '/marking/tasks/:id', params: idParams, body: markBody },
      (who, { params, body }) => {
        giveMark(services, who.id, params.id, body);
        return {};
      },
    ),
    forStaff(['lead'], { method: 'get', path: '/marking/rounds' }, (who) => signOffStates(services, who.id)),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: '/marking/rounds/:id/sign-off', params: idParams, body: Joi.object({}) },
      (who, { params }) => {
        signOff(services, who.id, params.id);
        return signOffState(services, params.id);
      },
    ),
  ];
}
