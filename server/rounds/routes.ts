import { eq } from 'drizzle-orm';
import Joi from 'joi';
import { checkNames } from '../../core/arrival/checks';
import { plainForm } from '../../core/forms/drawForm';
import { paperById } from '../papers/papers';
import type { Closing } from '../sittings/closing';
import { record } from '../audit/record';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { findInvited } from '../arrival/queries';
import { listEndpoints } from '../reading/listEndpoints';
import type { Services } from '../services';
import { arrivals } from '../db/schema';
import { decide, type NewDecision } from './decisions';
import { invite, release, renewLink, roundDetail, type NewInvitation } from './operations';
import { candidatesList, roundsList } from './reads';

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
const settledBody = Joi.object<{ invitation: number; settled: boolean }>({
  invitation: Joi.number().integer().min(1).required(),
  settled: Joi.boolean().required(),
});
const ofInvitation = Joi.object<{ invitation: number }>({
  invitation: Joi.number().integer().min(1).required(),
});

export function roundEndpoints(services: Services, outbox: Outbox, closing: Closing): Endpoint[] {
  const { db } = services;
  const detail = (who: { readonly id: number }, round: number) =>
    roundDetail(services, round, { closing, staffId: who.id });
  return [
    ...listEndpoints(services, roundsList, '/rounds', (path, answer) =>
      forStaff(['coordinator'], { method: 'get', path }, (who, { request }) =>
        answer({ staffId: who.id, roles: ['coordinator'] }, request),
      ),
    ),
    ...listEndpoints(services, candidatesList, '/rounds/:id/candidates', (path, answer) =>
      forRoundStaff(['coordinator'], { method: 'get', path, params: idParams }, (_, { params, request }) =>
        answer({ round: params.id }, request),
      ),
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
      { method: 'post', path: '/rounds/:id/correction-settled', params: idParams, body: settledBody },
      (who, { params, body }) => {
        if (findInvited(db, body.invitation)?.round.id !== params.id) throw notFound('noCandidate');
        db.update(arrivals)
          .set({ correctionSettledAt: body.settled ? services.clock.now() : null })
          .where(eq(arrivals.invitationId, body.invitation))
          .run();
        const act = {
          staffId: who.id,
          act: body.settled ? ('settled-correction' as const) : ('reopened-correction' as const),
          subject: `round ${params.id}`,
        };
        record(services, { ...act, invitationId: body.invitation });
        services.hub.tellOf(body.invitation, params.id);
        return {};
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
  ];
}
