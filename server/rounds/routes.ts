import { eq, isNull } from 'drizzle-orm';
import Joi from 'joi';
import { isOf, objectOf, oneOf, type Members } from '../../core/validation/shapes';
import { aidNames } from '../../core/kit/aids';
import { checkNames } from '../../core/arrival/checks';
import { nameChoices, peopleColumns, type ColumnMap, type NameChoice } from '../../core/people/importApi';
import type { StaffRow } from '../../core/rounds/api';
import type { Request } from 'express';
import type { Closing } from '../sittings/closing';
import { record } from '../audit/record';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { badRequest, notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { findInvited } from '../candidates/queries';
import { listEndpoints } from '../reading/listEndpoints';
import { arrivals, staff } from '../db/schema';
import { importPeople } from './importPeople';
import { makeRound, newRound } from './makeRound';
import { decide, type NewDecision } from './decisions';
import { release } from '../results/release';
import { invite, releasePractice, renewLink, roundDetail, type NewInvitation } from './operations';
import { candidatesList, peopleList, roundsList } from './reads';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLoad } from '../machine/loadMeter';
import type { HasLog } from '../machine/log';
import type { HasMedia } from '../media/sealedMedia';
import type { HasReader } from '../reading/reader';
import type { HasSandbox } from '../sandbox/sandbox';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasHub,
    HasLoad,
    HasLog,
    HasSessions,
    HasMedia,
    HasReader,
    HasJobs,
    HasSandbox {}

const invitation = objectOf<NewInvitation>({
  name: Joi.string().trim().min(2).max(100),
  email: Joi.string().email({ tlds: false }).max(200),
  reference: Joi.string()
    .pattern(/^[A-Z0-9-]{3,20}$/)
    .allow(null),
  extraPercent: Joi.number().integer().min(0).max(200),
  arrangements: Joi.object({
    breakMinutes: Joi.number().integer().min(0).max(120).required(),
    transcripts: Joi.boolean().required(),
    aids: Joi.array()
      .items(Joi.string().valid(...aidNames))
      .unique()
      .default([]),
    waivedChecks: Joi.array().items(oneOf(checkNames)).unique().required(),
    reason: Joi.string().trim().allow('').max(300).required(),
  }),
  timeZone: Joi.string()
    .custom((zone: string, helpers) =>
      Intl.supportedValuesOf('timeZone').includes(zone) || zone === 'UTC'
        ? zone
        : helpers.error('any.invalid'),
    )
    .allow(null),
});

const practiceBody = objectOf<{ released: boolean }>({ released: Joi.boolean() });

const decisionBody = objectOf<NewDecision>({
  id: Joi.number().integer().min(1),
  choice: oneOf(['take', 'leave']),
  reason: Joi.string().trim().min(2).max(500),
});
const peopleParams = objectOf<{ id: number; how: 'check' | 'invite' }>({
  id: Joi.number().integer().min(1),
  how: oneOf(['check', 'invite']),
});
const table = { type: 'application/octet-stream', limit: '4mb' } as const;
const columnMap = objectOf<ColumnMap>(
  Object.fromEntries(
    peopleColumns.map((name) => [name, Joi.number().integer().min(0).max(500).empty('').default(null)]),
  ) as unknown as Members<ColumnMap>,
);

/** Which column is what, where somebody has chosen: `?name=0&email=2`; and which name holds where two differ. */
function choicesOf({ query }: Request): { columns: ColumnMap | null; names: NameChoice | null } {
  const { names = null, ...columns } = query;
  if (names !== null && !isOf(oneOf(nameChoices), names)) throw badRequest('malformedParams');
  const chosen = names as NameChoice | null;
  if (Object.keys(columns).length === 0) return { columns: null, names: chosen };
  const checked = columnMap.validate(columns);
  if (checked.error) throw badRequest('malformedParams', checked.error.message);
  return { columns: checked.value, names: chosen };
}

const settledBody = objectOf<{ invitation: number; settled: boolean }>({
  invitation: Joi.number().integer().min(1),
  settled: Joi.boolean(),
});
const ofInvitation = objectOf<{ invitation: number }>({
  invitation: Joi.number().integer().min(1),
});

const resultReaders = ['coordinator', 'lead'] as const;

export function roundEndpoints(services: Needs, outbox: Outbox, closing: Closing): Endpoint[] {
  const { db } = services;
  const detail = (who: { readonly id: number }, round: number) =>
    roundDetail(services, round, { closing, staffId: who.id });
  return [
    ...listEndpoints(services, roundsList, '/rounds', (path, answer) =>
      forStaff(['coordinator'], { method: 'get', path }, (who, { request }) =>
        answer({ staffId: who.id, roles: ['coordinator'] }, request),
      ),
    ),
    // The same list for those who look at results.
    ...listEndpoints(services, roundsList, '/results', (path, answer) =>
      forStaff(resultReaders, { method: 'get', path }, (who, { request }) =>
        answer({ staffId: who.id, roles: resultReaders }, request),
      ),
    ),
    ...listEndpoints(services, peopleList, '/people', (path, answer) =>
      forStaff(['coordinator'], { method: 'get', path }, (who, { request }) =>
        answer({ staffId: who.id }, request),
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
      { method: 'post', path: '/rounds/:id/practice', params: idParams, body: practiceBody },
      (who, { params, body }) => {
        releasePractice(services, who.id, { id: params.id, ...body });
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
        const act = {
          staffId: who.id,
          act: body.settled ? ('settled-correction' as const) : ('reopened-correction' as const),
          subject: `round ${params.id}`,
        };
        db.transaction(() => {
          db.update(arrivals)
            .set({ correctionSettledAt: body.settled ? services.clock.now() : null })
            .where(eq(arrivals.invitationId, body.invitation))
            .run();
          record(services, { ...act, invitationId: body.invitation });
        });
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
    forStaff(['coordinator'], { method: 'post', path: '/rounds', body: newRound }, (who, { body }) => ({
      id: makeRound(services, who.id, body),
    })),
    forStaff(
      ['coordinator'],
      { method: 'get', path: '/staff' },
      () =>
        db
          .select({ id: staff.id, name: staff.name, roles: staff.roles })
          .from(staff)
          .where(isNull(staff.disabledAt))
          .orderBy(staff.name)
          .all() satisfies StaffRow[],
    ),
    forRoundStaff<unknown, { id: number; how: 'check' | 'invite' }>(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/people/:how', params: peopleParams, body: table },
      (who, { params, body, request }) => {
        if (!(body instanceof Uint8Array)) throw badRequest('malformed');
        const at = { roundId: params.id, staffId: who.id };
        const file = { bytes: body, ...choicesOf(request), dryRun: params.how === 'check' };
        return importPeople(services, outbox, at, file);
      },
    ),
  ];
}
