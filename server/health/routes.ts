import { readFileSync } from 'node:fs';
import path from 'node:path';
import Joi from 'joi';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { badRequest } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import type { SandboxHealth } from '../sandbox/sandbox';
import type { Services } from '../services';

const { version } = JSON.parse(
  readFileSync(path.join(import.meta.dirname, '../../package.json'), 'utf8'),
) as { version: string };

/** For anybody: what is wrong is for the log. */
const healthOf = ({ trouble, ...rest }: SandboxHealth) => ({ ...rest, well: trouble === null });

export function healthEndpoints({ db, sandbox, jobs, config, clock }: Services, outbox: Outbox): Endpoint[] {
  return [
    forAnyone({ method: 'get', path: '/health' }, () => {
      const database = db.$client.prepare('select 1 as well').get() ? 'well' : 'unwell';
      const mode = db.$client.pragma('journal_mode', { simple: true }) as string;
      return {
        build: version,
        database,
        journalMode: mode,
        codeBox: healthOf(sandbox.health()),
        jobs: jobs.open(),
        jobsFailed: jobs.countFailed(),
        outbox: outbox.waiting(),
      };
    }),
    /** For the connection check, at most 1 kB. */
    forCandidates(
      { method: 'post', path: '/echo', body: Joi.object().unknown(), limit: '1kb' },
      (_, { body }) => {
        if (Array.isArray(body)) throw badRequest('malformedEcho');
        return body;
      },
    ),
    forAnyone({ method: 'get', path: '/config' }, () => ({
      organisation: config.organisation,
      standInCamera: config.standInCamera,
      now: clock.now(),
    })),
  ];
}
