import Joi from 'joi';
import { buildCandidatePaper } from '../../core/papers/candidatePaper';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import type { Services } from '../services';
import { invite, release, roundDetail, type NewInvitation } from './operations';
import { findPaper, listRounds } from './queries';

const invitation = Joi.object<NewInvitation>({
  name: Joi.string().trim().min(2).max(100).required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  reference: Joi.string()
    .pattern(/^[A-Z0-9-]{3,20}$/)
    .allow(null)
    .required(),
  extraPercent: Joi.number().integer().min(0).max(200).required(),
});

const attachmentParams = Joi.object<{ id: number; name: string }>({
  id: Joi.number().integer().min(1).required(),
  name: Joi.string().max(100).required(),
});

export function roundEndpoints(services: Services, outbox: Outbox): Endpoint[] {
  const { db } = services;
  return [
    forStaff(['coordinator'], { method: 'get', path: '/rounds' }, () => listRounds(db, services.clock.now())),
    forStaff(['coordinator'], { method: 'get', path: '/rounds/:id', params: idParams }, (_, { params }) =>
      roundDetail(services, params.id),
    ),
    forStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/invitations', params: idParams, body: invitation },
      (_, { params, body }) => invite(services, outbox, params.id, body),
    ),
    forStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/release', params: idParams, body: Joi.object({}) },
      (who, { params }) => {
        release(services, who.id, params.id);
        return roundDetail(services, params.id);
      },
    ),
    forStaff(['coordinator'], { method: 'get', path: '/papers/:id', params: idParams }, (_, { params }) => {
      const paper = findPaper(db, params.id);
      if (!paper) throw notFound('This paper');
      return buildCandidatePaper(paper.document, 'as-staff-see-it');
    }),
    forStaff(['coordinator'], { method: 'get', path: '/letters' }, () => outbox.list()),
    forStaff(['coordinator'], { method: 'get', path: '/letters/:id', params: idParams }, (_, { params }) => {
      const letter = outbox.read(params.id);
      if (!letter) throw notFound('This letter');
      return letter;
    }),
    forStaff(
      ['coordinator'],
      { method: 'get', path: '/letters/:id/attachments/:name', params: attachmentParams },
      (_, { params, response }) => {
        const file = outbox.attachment(params.id, params.name);
        if (!file) throw notFound('This attachment');
        response.attachment(params.name).type(file.type).send(file.content);
      },
    ),
  ];
}
