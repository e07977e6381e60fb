import { objectOf } from '../../core/validation/shapes';
import Joi from 'joi';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import { listEndpoints } from '../reading/listEndpoints';
import { lettersList } from './lists';
import type { Outbox } from './outbox';
import type { HasSessions } from '../http/sessions';
import type { HasReader } from '../reading/reader';

const attachmentParams = objectOf<{ id: number; name: string }>({
  id: Joi.number().integer().min(1),
  name: Joi.string().max(100),
});

/** The outbox, for the coordinators of the rounds that the letters are about. */
export function letterEndpoints(services: HasSessions & HasReader, outbox: Outbox): Endpoint[] {
  const { sessions } = services;
  const roles = ['coordinator'] as const;
  const own = <T>(staffId: number, id: number, give: (id: number) => T | null): T => {
    const round = outbox.roundOf(id);
    const found = round !== null && sessions.hasRole(staffId, round, roles) ? give(id) : null;
    if (found === null) throw notFound('noLetter');
    return found;
  };
  return [
    ...listEndpoints(services, lettersList, '/letters', (path, answer) =>
      forStaff(roles, { method: 'get', path }, (who, { request }) => answer({ staffId: who.id }, request)),
    ),
    forStaff(roles, { method: 'get', path: '/letters/:id', params: idParams }, (who, { params }) =>
      own(who.id, params.id, (id) => outbox.read(id)),
    ),
    // Where there is no mail server: the letter with a link that works, instead of every earlier one.
    forStaff(
      roles,
      { method: 'post', path: '/letters/:id/new-link', params: idParams, body: Joi.object({}) },
      (who, { params }) => own(who.id, params.id, (id) => outbox.readWithNewLink(id, who.id)),
    ),
    forStaff(
      roles,
      { method: 'get', path: '/letters/:id/attachments/:name', params: attachmentParams },
      (who, { params, response }) => {
        const file = own(who.id, params.id, (id) => outbox.attachment(id, params.name));
        response.attachment(params.name).type(file.type).send(file.content);
      },
    ),
  ];
}
