import Joi from 'joi';
import { record } from '../audit/record';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { conflict } from '../http/errors';
import type { StaffSession } from '../http/sessions';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';
import type { HasJobs } from './jobQueue';

/** What leads are shown: its subjects are scripts, rounds and questions, and tell no name. */
const OF_MARKING = new Set(['score', 'rescore', 'allocate']);

/** Jobs that were given up are seen by staff, who can have them run again. */
export function jobEndpoints(services: HasClock & HasDb & HasJobs): Endpoint[] {
  const roles = ['coordinator', 'lead'] as const;
  const failedFor = ({ roles: own }: StaffSession) => {
    const all = services.jobs.failed();
    return own.includes('coordinator') ? all : all.filter(({ kind }) => OF_MARKING.has(kind));
  };
  return [
    forStaff(roles, { method: 'get', path: '/jobs/failed' }, (who) => failedFor(who)),
    forStaff(
      roles,
      { method: 'post', path: '/jobs/:id/run-again', params: idParams, body: Joi.object({}) },
      (who, { params }) => {
        services.db.transaction(() => {
          if (!services.jobs.runAgain(params.id)) throw conflict('not-failed');
          record(services, { staffId: who.id, act: 'ran-job-again', subject: `job ${params.id}` });
        });
        return failedFor(who);
      },
    ),
  ];
}
