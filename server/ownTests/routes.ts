import Joi from 'joi';
import { objectOf, textOf } from '../../core/validation/shapes';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { conflict, unreadable } from '../http/errors';
import { networkOf, perMinute } from '../http/limits';
import type { HasClock } from '../machine/clock';
import type { HasLog } from '../machine/log';
import type { Outbox } from '../mail/outbox';
import { areSixDigits } from '../sixDigits';
import { openByCode, ownTests, sendCodeOf, sendLinkOf, sendLostLink } from './ownTests';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasCommits, HasLog {}

const linkBody = objectOf<{ invitation: number }>({ invitation: Joi.number().integer().min(1) });
const codeBody = objectOf<{ invitation: number; code: string }>({
  invitation: Joi.number().integer().min(1),
  code: textOf(20),
});
const lostBody = objectOf<{ email: string }>({ email: textOf(254, 3) });

/** Asked for by one network in a minute: a school may have one address for all. */
const LOST_A_MINUTE = 10;

/** A person's own page, and the way back to it for who has lost the link. */
export function ownTestEndpoints(services: Needs, outbox: Outbox): Endpoint[] {
  const { commits, log } = services;
  const count = perMinute(LOST_A_MINUTE, 'tooManyLostLinks');
  return [
    forCandidates({ method: 'get', path: '/tests' }, (who) => ownTests(services, who.invitation)),
    forCandidates({ method: 'post', path: '/tests/link', body: linkBody }, (who, { body }) =>
      commits.run(() => sendLinkOf(services, outbox, { here: who.invitation, ...body })),
    ),
    forCandidates({ method: 'post', path: '/tests/code', body: linkBody }, (who, { body }) =>
      commits.run(() => sendCodeOf(services, outbox, { here: who.invitation, ...body })),
    ),
    forCandidates({ method: 'post', path: '/tests/code/check', body: codeBody }, async (who, { body }) => {
      if (!areSixDigits(body.code)) throw unreadable('noResultCode');
      // A wrong one is committed, too: it was a try.
      const opened = await commits.run(() => openByCode(services, { here: who.invitation, ...body }));
      if ('refused' in opened) throw conflict(opened.refused === 'wrong' ? 'wrong-code' : 'code-ended');
      return opened;
    }),
    forAnyone(
      {
        method: 'post',
        path: '/lost-link',
        body: lostBody,
        count: (request) => count(networkOf(request)),
      },
      ({ body }) => {
        // After the answer: neither its words nor its time tell whether the address is known.
        setImmediate(() => {
          commits
            .run(() => sendLostLink(services, outbox, body.email.trim()))
            .catch((error: unknown) => log.error({ err: error }, 'a lost link was not sent'));
        });
        return { asked: true };
      },
    ),
  ];
}
