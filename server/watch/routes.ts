import { objectOf, oneOf } from '../../core/validation/shapes';
import { arrivalPictures, type ArrivalPicture } from '../../core/files/purpose';
import Joi from 'joi';
import { watchActs } from '../../core/watch/api';
import { arrivalStateOf } from '../candidates/state';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import { openLine } from '../live/stream';
import { record } from '../audit/record';
import { findRound } from '../schedule/queries';
import { doAct, tellAll, watchRounds, watchView, type WatchRequest } from './operations';
import { streamRoom } from './roomStream';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasFiles } from '../files/files';
import type { HasSessions } from '../http/sessions';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLoad } from '../machine/loadMeter';
import type { HasLog } from '../machine/log';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasTime } from '../sittings/timeKeeper';

/** What is needed here of the server. */
interface Needs
  extends HasClock, HasDb, HasTime, HasHub, HasScheduler, HasLoad, HasLog, HasSessions, HasFiles, HasSecret {}

const actBody = objectOf<WatchRequest>({
  act: oneOf(watchActs),
  invitation: Joi.number().integer().min(1),
  text: Joi.when('act', {
    is: 'admit',
    then: Joi.string().trim().max(500).allow(''),
    otherwise: Joi.string().trim().min(2).max(500),
  }),
  minutes: Joi.number().integer().min(0).max(240),
  file: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .optional(),
});
const tellBody = objectOf<{ text: string }>({ text: Joi.string().trim().min(2).max(500) });
const pictureParams = objectOf<{ id: number; invitation: number; of: ArrivalPicture }>({
  of: oneOf(arrivalPictures),
  id: Joi.number().integer().min(1),
  invitation: Joi.number().integer().min(1),
});

export function watchEndpoints(services: Needs): Endpoint[] {
  const { db, files } = services;
  const roles = ['invigilator', 'coordinator'] as const;
  return [
    forStaff(roles, { method: 'get', path: '/watch' }, (who) => watchRounds(services, who.id)),
    forRoundStaff(roles, { method: 'get', path: '/watch/:id', params: idParams }, (_, { params }) =>
      watchView(services, params.id),
    ),
    forRoundStaff(
      roles,
      { method: 'get', path: '/watch/:id/stream', params: idParams },
      (_, { params, request, response }) => {
        if (!findRound(db, params.id)) throw notFound('noRound');
        streamRoom(services, openLine({ request, response, of: 'staff' }, services), params.id);
      },
    ),
    forRoundStaff(
      roles,
      { method: 'post', path: '/watch/:id/acts', params: idParams, body: actBody },
      (who, { params, body }) => doAct(services, who.id, params.id, body),
    ),
    forRoundStaff(
      roles,
      { method: 'post', path: '/watch/:id/tell-all', params: idParams, body: tellBody },
      (who, { params, body }) => {
        tellAll(services, who.id, params.id, body.text);
        return {};
      },
    ),
    forRoundStaff(
      roles,
      { method: 'get', path: '/watch/:id/pictures/:invitation/:of', params: pictureParams },
      (who, { params, response }) => {
        const { invited } = arrivalStateOf(services, params.invitation);
        const bytes = invited.round.id === params.id && files.find(params.invitation, params.of);
        if (!bytes) throw notFound('noPicture');
        const act = { staffId: who.id, act: 'viewed-picture' as const, subject: `round ${params.id}` };
        services.db.transaction(() => record(services, { ...act, invitationId: params.invitation }));
        response.type('image/jpeg').send(bytes);
      },
    ),
  ];
}
