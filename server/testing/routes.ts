import { objectOf } from '../../core/validation/shapes';
import Joi from 'joi';
import { MovableClock } from '../machine/clock';
import { forAnyone, type Endpoint } from '../http/endpoint';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasClock } from '../machine/clock';

const advanceBody = objectOf<{ ms: number }>({ ms: Joi.number().integer().min(0) });

/** Routes that only exist where the configuration asks for a movable clock. */
export function testEndpoints({ clock, jobs }: HasClock & HasJobs): Endpoint[] {
  if (!(clock instanceof MovableClock)) return [];
  return [
    forAnyone({ method: 'post', path: '/test/clock', body: advanceBody }, async ({ body }) => {
      clock.advance(body.ms);
      await jobs.turn();
      await jobs.turn();
      return { now: clock.now() };
    }),
    forAnyone({ method: 'post', path: '/test/jobs', body: Joi.object({}) }, async () => {
      await jobs.turn();
      await jobs.turn();
      return { open: jobs.open() };
    }),
  ];
}
