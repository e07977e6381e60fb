import { and, eq } from 'drizzle-orm';
import Joi from 'joi';
import { checkNames } from '../../core/arrival/checks';
import { plainForm } from '../../core/forms/drawForm';
import { paperById } from '../papers/papers';
import type { Closing } from '../sittings/closing';
import { record } from '../audit/record';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import type { Services } from '../services';
import { arrivals } from '../db/schema';
import { decide, type NewDecision } from './decisions';
import { invite, release, renewLink, roundDetail, type NewInvitation } from './operations';
import { invitedOf, listRounds } from './queries';

const invitation = Joi.object<NewInvitation>({
  name: Joi.string().trim().min(2).max(100).required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  reference: Joi.string()
    .pattern(/^[A-Z0-9-]{3,20}$/)
    .allow(null)
    .required(),
  extraPercent: Joi.number().integer().min(0).max(200).required(),
  arrangements: Joi.object({
    breakMinutes: Joi.number().integer().min(0).max(120).required(),
    waivedChecks: Joi.array()
      .items(Joi.valid(...checkNames))
      .unique()
      .required(),
    reason: Joi.string().trim().allow('').max(300).required(),
  }).required(),
  timeZone: Joi.string()
    .custom((zone: string, helpers) =>
      Intl.supportedValuesOf('timeZone').includes(zone) || zone === 'UTC'
        ? zone
        : helpers.error('any.invalid'),
    )
    .allow(null)
    .required(),
});

const decisionBody = Joi.object<NewDecision>({
  id: Joi.number().integer().min(1).required(),
  choice: Joi.valid('take', 'leave').required(),
  reason: Joi.string().trim().min(2).max(500).required(),
});
const ofInvitation = Joi.object<{ invitation: number }>({
  invitation: Joi.number().integer().min(1).required(),
});

const attachmentParams = Joi.object<{ id: number; name: string }>({
  id: Joi.number().integer().min(1).required(),
  name: Joi.string().max(100).required(),
});

export function roundEndpoints(services: Services, outbox: Outbox, closing: Closing): Endpoint[] {
  const { db } = services;
  const detail = (who: { readonly id: number }, round: number) =>
    roundDetail(services, round, { closing, staffId: who.id });
  return [
    forStaff(['coordinator'], { method: 'get', path: '/rounds' }, (who) =>
      listRounds(db, services.clock.now(), { staffId: who.id, roles: ['coordinator'] }),
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'get', path: '/rounds/:id', params: idParams },
      (who, { params }) => detail(who, params.id),
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/invitations', params: idParams, body: invitation },
      (_, { params, body }) => invite(services, outbox, params.id, body),
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/release', params: idParams, body: Joi.object({}) },
      (who, { params }) => {
        release(services, who.id, params.id);
        return detail(who, params.id);
      },
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/decisions', params: idParams, body: decisionBody },
      async (who, { params, body }) => {
        await decide(services, closing, { staffId: who.id, roundId: params.id }, body);
        return detail(who, params.id);
      },
    ),
    forRoundStaff(
      ['coordinator', 'invigilator'],
      { method: 'post', path: '/rounds/:id/correction-settled', params: idParams, body: ofInvitation },
      (who, { params, body }) => {
        if (!invitedOf(db, params.id).some((row) => row.invitation.id === body.invitation))
          throw notFound('noCandidate');
        db.update(arrivals)
          .set({ correctionSettledAt: services.clock.now() })
          .where(and(eq(arrivals.invitationId, body.invitation)))
          .run();
        const act = { staffId: who.id, act: 'settled-correction' as const, subject: `round ${params.id}` };
        record(services, { ...act, invitationId: body.invitation });
        services.hub.tellOf(body.invitation, params.id);
        // Invigilators may settle it, but the page of the round is the coordinator's.
        return services.sessions.hasRole(who.id, params.id, ['coordinator']) ? detail(who, params.id) : {};
      },
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/new-link', params: idParams, body: ofInvitation },
      (who, { params, body }) =>
        renewLink(services, outbox, { round: params.id, invitation: body.invitation, staffId: who.id }),
    ),
    forStaff(['coordinator'], { method: 'get', path: '/papers/:id', params: idParams }, (_, { params }) => {
      const paper = paperById(db, params.id);
      if (!paper) throw notFound('noPaper');
      return plainForm(paper).paper;
    }),
    forStaff(['coordinator'], { method: 'get', path: '/letters' }, () => outbox.list()),
    forStaff(['coordinator'], { method: 'get', path: '/letters/:id', params: idParams }, (_, { params }) => {
      const letter = outbox.read(params.id);
      if (!letter) throw notFound('noLetter');
      return letter;
    }),
    forStaff(
      ['coordinator'],
      { method: 'get', path: '/letters/:id/attachments/:name', params: attachmentParams },
      (_, { params, response }) => {
        const file = outbox.attachment(params.id, params.name);
        if (!file) throw notFound('noAttachment');
        response.attachment(params.name).type(file.type).send(file.content);
      },
    ),
  ];
}
