import Joi from 'joi';
import { watchActs } from '../../core/watch/api';
import { findArrival } from '../arrival/queries';
import { whereIs } from '../arrival/operations';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import { streamView } from '../live/stream';
import { record } from '../rounds/record';
import { invitedOf } from '../rounds/queries';
import type { Services } from '../services';
import { doAct, tellAll, watchRounds, watchView, type Act } from './operations';

/** Who is out of reach shows by the passing of time alone. */
const RENEW_MS = 5000;

const actBody = Joi.object<Act>({
  act: Joi.valid(...watchActs).required(),
  invitation: Joi.number().integer().min(1).required(),
  text: Joi.string().trim().min(2).max(500).required(),
  minutes: Joi.number().integer().min(0).max(240).required(),
});
const tellBody = Joi.object<{ text: string }>({ text: Joi.string().trim().min(2).max(500).required() });
const pictureParams = Joi.object<{ id: number; invitation: number }>({
  id: Joi.number().integer().min(1).required(),
  invitation: Joi.number().integer().min(1).required(),
});

export function watchEndpoints(services: Services): Endpoint[] {
  const { hub, db, files } = services;
  const roles = ['invigilator', 'coordinator'] as const;
  return [
    forStaff(roles, { method: 'get', path: '/watch' }, () => watchRounds(services)),
    forStaff(roles, { method: 'get', path: '/watch/:id', params: idParams }, (_, { params }) =>
      watchView(services, params.id),
    ),
    forStaff(
      roles,
      { method: 'get', path: '/watch/:id/stream', params: idParams },
      (_, { params, request, response }) => {
        watchView(services, params.id);
        const view = () => watchView(services, params.id);
        streamView({ request, response }, hub, `round ${params.id}`, view, RENEW_MS);
      },
    ),
    forStaff(
      roles,
      { method: 'post', path: '/watch/:id/acts', params: idParams, body: actBody },
      (who, { params, body }) => {
        doAct(services, who.id, params.id, body);
        return watchView(services, params.id);
      },
    ),
    forStaff(
      roles,
      { method: 'post', path: '/watch/:id/tell-all', params: idParams, body: tellBody },
      (who, { params, body }) => {
        tellAll(services, who.id, params.id, body.text);
        return watchView(services, params.id);
      },
    ),
    forStaff(
      roles,
      { method: 'get', path: '/watch/:id/pictures/:invitation', params: pictureParams },
      (who, { params, response }) => {
        const invited = invitedOf(db, params.id).some((row) => row.invitation.id === params.invitation);
        const { attempt } = whereIs(services, params.invitation);
        const file = invited && findArrival(db, params.invitation, attempt)?.pictureFile;
        const bytes = file && files.read(file);
        if (!bytes) throw notFound('This picture');
        const act = { staffId: who.id, act: 'looked at a picture', subject: `round ${params.id}` };
        record(services, { ...act, invitationId: params.invitation });
        response.type('image/jpeg').send(bytes);
      },
    ),
  ];
}
