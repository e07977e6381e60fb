import { readFileSync } from 'node:fs';
import path from 'node:path';
import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import { stopsService, type OperationsView } from '../../core/health/api';
import { record } from '../audit/record';
import { forAnyone, forStaff, type Endpoint } from '../http/endpoint';
import { badRequest, conflict } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import type { SandboxHealth } from '../sandbox/sandbox';
import { probe } from './probe';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasClock } from '../machine/clock';
import type { HasTroubles } from '../machine/troubles';
import type { HasSandbox } from '../sandbox/sandbox';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasCommits, HasTroubles, HasJobs, HasSandbox {}

const { version } = JSON.parse(
  readFileSync(path.join(import.meta.dirname, '../../package.json'), 'utf8'),
) as { version: string };

/** For anybody: what is wrong is for the log. */
const sandboxOf = ({ trouble, ...rest }: SandboxHealth) => ({ ...rest, well: trouble === null });

const believeBody = objectOf<{ reason: string }>({
  reason: Joi.string().trim().min(3).max(1000),
});

const operationsOf = ({ troubles, clock }: HasClock & HasTroubles): OperationsView => ({
  troubles: troubles.list(),
  serverNow: clock.now(),
});

export function healthEndpoints(services: Needs, outbox: Outbox): Endpoint[] {
  const { db, sandbox, jobs, config, clock, troubles } = services;
  return [
    forAnyone({ method: 'get', path: '/health' }, async ({ response }) => {
      await probe(services);
      const known = troubles.list();
      const isStopped = known.some(stopsService);
      if (isStopped) response.status(503);
      return {
        status: isStopped ? 'stopped' : known.length > 0 ? 'in trouble' : 'well',
        troubles: known.map(({ code, since }) => ({ code, since })),
        build: version,
        journalMode: db.$client.pragma('journal_mode', { simple: true }) as string,
        sandbox: sandboxOf(sandbox.health()),
        jobs: jobs.open(),
        jobsFailed: jobs.countFailed(),
        outbox: outbox.waiting(),
      };
    }),
    forStaff(['coordinator'], { method: 'get', path: '/operations' }, async () => {
      await probe(services);
      return operationsOf(services);
    }),
    forStaff(
      ['coordinator'],
      { method: 'post', path: '/operations/believe-clock', body: believeBody },
      async (who, { body }) => {
        const doubt = clock.doubt();
        if (!doubt) throw conflict('clock-right');
        const seconds = Math.round(doubt.aheadMs / 1000);
        const subject = `clock ${seconds > 0 ? '+' : ''}${seconds} s`;
        db.transaction(() =>
          record(services, { staffId: who.id, act: 'believed-clock', subject, reason: body.reason }),
        );
        clock.believe();
        await probe(services);
        return operationsOf(services);
      },
    ),
    /** For the connection check, which a rehearsal without a link makes too; at most 1 kB. */
    forAnyone({ method: 'post', path: '/echo', body: Joi.object().unknown(), limitKb: 1 }, ({ body }) => {
      if (Array.isArray(body)) throw badRequest('malformedEcho');
      return body;
    }),
    forAnyone({ method: 'get', path: '/config' }, () => ({
      organisation: config.organisation,
      standInCamera: config.standInCamera,
      now: clock.now(),
    })),
  ];
}
