import Joi from 'joi';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { partParams, targetIn } from '../http/partParams';
import type { Services } from '../services';
import { listEndpoints } from '../reading/listEndpoints';
import { sendPage } from '../uploads/sendPage';
import { markingTable, giveMark, pagesOfTask, signOff, type NewMark } from './operations';
import { ledRounds, pilesList, signOffStates } from './reads';

const markBody = Joi.object<NewMark>({
  given: Joi.object()
    .pattern(/^[a-z0-9-]{1,20}$/, Joi.number().integer().min(0).max(100_000))
    .max(30)
    .required(),
  comment: Joi.string().allow('').max(4000).required(),
});

const taskPageParams = idParams.append({
  hash: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .required(),
}) as Joi.ObjectSchema<{ id: number; hash: string }>;

export function markingEndpoints(services: Services): Endpoint[] {
  return [
    ...listEndpoints(services, pilesList, '/marking/piles', (path, answer) =>
      forStaff(['assessor', 'lead'], { method: 'get', path }, (who, { request }) =>
        answer({ staffId: who.id }, request),
      ),
    ),
    forRoundStaff(
      ['assessor', 'lead'],
      { method: 'get', path: '/marking/piles/:round/:item/:part', params: partParams },
      (who, { params }) => markingTable(services, who.id, params.round, targetIn(params)),
    ),
    forStaff(
      ['assessor', 'lead'],
      { method: 'get', path: '/marking/tasks/:id/pages/:hash', params: taskPageParams },
      (who, { params: { id, hash }, response }) =>
        sendPage(services, pagesOfTask(services, who.id, id, hash), hash, response),
    ),
    forStaff(
      ['assessor', 'lead'],
      { method: 'post', path: '/marking/tasks/:id', params: idParams, body: markBody },
      (who, { params, body }) => {
        giveMark(services, who.id, params.id, body);
        return {};
      },
    ),
    forStaff(['lead'], { method: 'get', path: '/marking/rounds' }, (who) =>
      services.reader.read(ledRounds, { staffId: who.id }),
    ),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: '/marking/rounds/:id/sign-off', params: idParams, body: Joi.object({}) },
      (who, { params }) => {
        signOff(services, who.id, params.id);
        return signOffStates(services, [params.id])[0];
      },
    ),
  ];
}
