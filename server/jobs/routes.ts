import Joi from 'joi';
import { record } from '../audit/record';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { conflict } from '../http/errors';
import type { Services } from '../services';

/** Jobs that were given up are seen by staff, who can have them run again. */
export function jobEndpoints(services: Services): Endpoint[] {
  const roles = ['coordinator', 'lead'] as const;
  return [
    forStaff(roles, { method: 'get', path: '/jobs/failed' }, () => services.jobs.failed()),
    forStaff(
      roles,
      { method: 'post', path: '/jobs/:id/run-again', params: idParams, body: Joi.object({}) },
      (who, { params }) => {
        services.db.transaction(() => {
          if (!services.jobs.runAgain(params.id)) throw conflict('not-failed');
          record(services, { staffId: who.id, act: 'ran-job-again', subject: `job ${params.id}` });
        });
        return services.jobs.failed();
      },
    ),
  ];
}
