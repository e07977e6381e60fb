import Joi from 'joi';
import { objectOf, oneOf } from '../../core/validation/shapes';
import { checkNames, type CheckResult } from '../../core/arrival/checks';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { ApiError } from '../http/errors';
import { networkOf, perMinute } from '../http/limits';
import {
  acceptRules,
  beginAttempt,
  arrivalView,
  confirmDetails,
  enterDoorCode,
  goWithoutPicture,
  keepPicture,
  noteChecks,
} from './operations';
import { findInvited, paperOf, sittingsOf } from '../candidates/queries';
import { arrivalStateOf } from '../candidates/state';
import type { HasScheduler } from '../machine/loopScheduler';
import type { ArrivalOpened } from '../../core/arrival/api';
import { ArrivalQueue } from './arrivalQueue';
import { calendarFile } from '../mail/calendarFile';
import { findByLink } from '../mail/links';
import { receiptCode } from '../../core/journal/receipt';
import { receiptHolds, receiptsOf } from '../sittings/receipts';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasFiles } from '../files/files';
import type { HasSessions } from '../http/sessions';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasPictures } from '../pictures/pictures';
import type { HasTime } from '../sittings/timeKeeper';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasTime,
    HasHub,
    HasSessions,
    HasFiles,
    HasPictures,
    HasSecret,
    HasScheduler {}

// Whatever stands in the address: what a mail program has made of a link is a wrong link, and no malformed message.
const linkBody = objectOf<{ link: string }>({ link: Joi.string().max(2000) });
const attemptBody = objectOf<{ attempt: number }>({ attempt: Joi.number().integer().min(1).max(100) });
const detailsBody = objectOf<{ correction: string | null }>({
  correction: Joi.string().trim().max(500).allow(null),
});
const fact = Joi.alternatives(Joi.string().max(200), Joi.number(), Joi.boolean());
const checksBody = objectOf<{ results: CheckResult[]; goOn: boolean }>({
  results: Joi.array()
    .items(
      Joi.object({
        name: oneOf(checkNames).required(),
        outcome: oneOf(['good', 'could be better', 'not working']).required(),
        facts: Joi.object().pattern(Joi.string().max(40), fact).max(20).required(),
      }),
    )
    .max(10)
    .unique('name'),
  goOn: Joi.boolean(),
});
const rulesBody = objectOf<{ version: string; accepted: string[] }>({
  version: Joi.string().max(40),
  accepted: Joi.array().items(Joi.string().max(40)).max(20),
});

const pictureParams = objectOf<{ of: 'person' | 'identity' }>({
  of: oneOf(['person', 'identity']),
});
const picture = { type: 'image/jpeg', limit: '2mb' } as const;
const block = { type: 'application/octet-stream', limit: '300kb' } as const;
// Typed or pasted by people: what is no code is a wrong one.
const codeBody = objectOf<{ code: string }>({ code: Joi.string().trim().min(1).max(400) });

const wrongLink = () => new ApiError(404, 'wrong-link');

/**
 * Guessing links is hopeless (160 bits); this only keeps it from being loud. Only wrong links are counted, and only once
 * they are known to be wrong: a whole school behind one address may open right ones in the same second.
 */
const WRONG_A_MINUTE = 120;

/** With so many requests waiting to be begun, or pictures to be decoded, the server has no time for more people. */
const LONG_BACKLOG = 20;
const MANY_PICTURES = 50;

/** Does a code belong to a receipt that was given, and does the journal still hold exactly what it proves? */
function checkReceipt({ db }: HasDb, invitation: number, code: string) {
  const plain = (text: string) => text.toUpperCase().replace(/[^A-Z0-9]/g, '');
  const named = sittingsOf(db, invitation)
    .flatMap((sitting) => receiptsOf(db, sitting.id))
    .find((receipt) => plain(receiptCode(receipt.hash)) === plain(code));
  return { matches: named !== undefined, whole: named ? receiptHolds(db, named) : false };
}

function calendarOf({ db, config }: HasConfig & HasDb, invitation: number): string {
  const invited = findInvited(db, invitation)!;
  const { opensAt, closesAt } = invited.round;
  const { title } = paperOf(db, invited);
  return calendarFile({ invitationId: invitation, opensAt, closesAt, title, url: config.publicUrl });
}

export function arrivalEndpoints(services: Needs): Endpoint[] {
  const { db, sessions, clock, commits } = services;
  const countWrong = perMinute(WRONG_A_MINUTE, 'tooManyLinks');
  const { scheduler, pictures } = services;
  const queue = new ArrivalQueue(
    () => scheduler.backlog >= LONG_BACKLOG || pictures.arrivalsQueued >= MANY_PICTURES,
  );
  /** Only who is on the way to a start waits: not who sits a test, looks at a result, or comes too early. */
  const placeOf = (invitation: number, link: string) =>
    arrivalStateOf(services, invitation).stage.at === 'arriving' ? queue.ask(link, clock.now()) : null;
  return [
    forAnyone(
      { method: 'post', path: '/arrival/open', body: linkBody },
      async ({ body, request, response }): Promise<ArrivalOpened> => {
        const waiting = queue.isWaiting(body.link) ? queue.ask(body.link, clock.now()) : null;
        if (waiting) return { queue: waiting };
        const found = findByLink(db, body.link, clock.now());
        if (found === null) {
          await countWrong(networkOf(request));
          throw wrongLink();
        }
        if (sessions.candidateOf(request)?.invitation !== found) {
          const place = placeOf(found, body.link);
          if (place) return { queue: place };
          const token = await commits.run(() => sessions.addForCandidate(found));
          sessions.giveToCandidate(response, token);
        }
        return arrivalView(services, found);
      },
    ),
    forCandidates({ method: 'post', path: '/arrival/attempt', body: attemptBody }, async (who, { body }) => {
      await beginAttempt(services, who.invitation, body.attempt);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'get', path: '/arrival' }, (who) => arrivalView(services, who.invitation)),
    forCandidates({ method: 'post', path: '/arrival/details', body: detailsBody }, async (who, { body }) => {
      await confirmDetails(services, who.invitation, body.correction);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/arrival/checks', body: checksBody }, async (who, { body }) => {
      await noteChecks(services, who.invitation, body.results, body.goOn);
      return arrivalView(services, who.invitation);
    }),
    forCandidates(
      { method: 'put', path: '/arrival/picture/:of', params: pictureParams, body: picture },
      async (who, { params, body }) => {
        await keepPicture(services, who.invitation, params.of, body);
        return arrivalView(services, who.invitation);
      },
    ),
    forCandidates({ method: 'post', path: '/arrival/door', body: codeBody }, async (who, { body }) => {
      await enterDoorCode(services, who.invitation, body.code);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/arrival/receipt-check', body: codeBody }, (who, { body }) =>
      checkReceipt(services, who.invitation, body.code),
    ),
    forCandidates({ method: 'get', path: '/arrival/test-window.ics' }, (who, { response }) => {
      response.attachment('test-window.ics').type('text/calendar').send(calendarOf(services, who.invitation));
    }),
    /** What a block of 200 kB costs on the way up. The bytes are dropped. */
    forAnyone({ method: 'post', path: '/arrival/upload-check', body: block }, ({ body }) => ({
      bytes: body instanceof Uint8Array ? body.length : 0,
    })),
    forCandidates({ method: 'post', path: '/arrival/no-picture', body: Joi.object({}) }, async (who) => {
      await goWithoutPicture(services, who.invitation);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/arrival/rules', body: rulesBody }, async (who, { body }) => {
      await acceptRules(services, who.invitation, body.version, body.accepted);
      return arrivalView(services, who.invitation);
    }),
  ];
}
