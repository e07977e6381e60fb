import { eq } from 'drizzle-orm';
import Joi from 'joi';
import type { FailedJob } from '../../core/jobs/api';
import { record } from '../audit/record';
import { findInvited } from '../candidates/queries';
import { keyCorrections, letters, packs, sittings } from '../db/schema';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { conflict } from '../http/errors';
import { findRound } from '../schedule/queries';
import type { Services } from '../services';
import type { jobs } from '../db/schema';

type Job = typeof jobs.$inferSelect;

/** What a job is about, as staff know it. */
function aboutOf({ db }: Services, { kind, subject }: Job): string {
  if (kind === 'score' || kind === 'settle' || kind === 'pages')
    return db.select().from(sittings).where(eq(sittings.id, subject)).get()?.script ?? `${subject}`;
  if (kind === 'rescore') {
    const correction = db.select().from(keyCorrections).where(eq(keyCorrections.id, subject)).get();
    if (correction) return `${correction.item}/${correction.part}`;
  }
  if (kind === 'print-result') return findInvited(db, subject)?.person.reference ?? `${subject}`;
  if (kind === 'send-letter')
    return db.select().from(letters).where(eq(letters.id, subject)).get()?.to ?? `${subject}`;
  if (kind === 'allocate' || kind === 'pack') {
    const id =
      kind === 'allocate' ? subject : db.select().from(packs).where(eq(packs.id, subject)).get()?.roundId;
    const round = id === undefined ? null : findRound(db, id);
    if (round) return round.title;
  }
  return `${subject}`;
}

const failedJobs = (services: Services): FailedJob[] =>
  services.jobs.failed().map((job) => ({
    id: job.id,
    kind: job.kind,
    attempts: job.attempts,
    trouble: job.trouble ?? '',
    about: aboutOf(services, job),
  }));

/** Jobs that were given up are seen by staff, who can have them run again. */
export function jobEndpoints(services: Services): Endpoint[] {
  const roles = ['coordinator', 'lead'] as const;
  return [
    forStaff(roles, { method: 'get', path: '/jobs/failed' }, () => failedJobs(services)),
    forStaff(
      roles,
      { method: 'post', path: '/jobs/:id/run-again', params: idParams, body: Joi.object({}) },
      (who, { params }) => {
        if (!services.jobs.runAgain(params.id)) throw conflict('not-failed');
        record(services, { staffId: who.id, act: 'ran-job-again', subject: `job ${params.id}` });
        return failedJobs(services);
      },
    ),
  ];
}
