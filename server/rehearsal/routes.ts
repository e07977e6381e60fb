import { eq } from 'drizzle-orm';
import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { RehearsalTicket, RehearsalView } from '../../core/rehearsal/api';
import { plainForm } from '../../core/forms/drawForm';
import { arrivalStateOf } from '../candidates/state';
import { rounds } from '../db/schema';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { conflict, notFound } from '../http/errors';
import { networkOf, perMinute } from '../http/limits';
import type { CandidateSession } from '../http/sessions';
import type { FullPaper } from '../../core/papers/paper';
import { latestVersion, paperOfVersion, type PaperVersion } from '../papers/papers';
import { GALLERY, REHEARSAL } from '../papers/rehearsals';
import type { Rehearsals } from './rehearsals';
import { WaitingRehearsals } from './waiting';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';
import type { HasSandbox } from '../sandbox/sandbox';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasSandbox {}

/** A whole room may rehearse behind one address. */
const SCORES_A_MINUTE = 60;

// Whatever stands in the address, as above all of a link that was written down by hand.
const keyParams = objectOf<{ key: string }>({ key: Joi.string().max(2000) });
const ticketParams = objectOf<{ ticket: string }>({
  ticket: Joi.string().pattern(/^[\w-]{24}$/),
});
/** The answers of every question of a rehearsal, with an essay and a drawing. */
const answersBody = { type: 'application/json', limit: '256kb' } as const;

type Round = typeof rounds.$inferSelect;

function rehearsalOf({ db }: HasDb, key: string): PaperVersion {
  const found = latestVersion(db, key);
  if (!found) throw notFound('noRehearsal');
  return found;
}

const viewOf = (services: HasConfig, paper: FullPaper, round: Round | null): RehearsalView => ({
  organisation: services.config.organisation,
  checks: round?.settings.checks ?? [],
  paper: plainForm(paper).paper,
});

export function rehearsalEndpoints(services: Needs, rehearsals: Rehearsals): Endpoint[] {
  const { db } = services;
  const countScores = perMinute(SCORES_A_MINUTE, 'tooManyScores');
  const waiting = new WaitingRehearsals((owner) => services.sandbox.before(owner));
  /** Reads what was sent, which may refuse it, and scores it behind a ticket. */
  const begin = async (version: number, body: unknown, sender: string): Promise<RehearsalTicket> => {
    waiting.hasRoom();
    const handed = { version, bytes: body instanceof Uint8Array ? body : new Uint8Array() };
    const parts = await rehearsals.read(handed, sender);
    return { ticket: waiting.add((owner) => rehearsals.score(handed, { parts, sender, owner })) };
  };
  const nameOf = ({ invitation }: CandidateSession) => `invitation ${invitation}`;
  /** The rehearsal of every kind has no round; any other address is that of a round. */
  const opened = (key: string): { readonly paper: string; readonly round: Round | null } => {
    if (key === GALLERY) return { paper: GALLERY, round: null };
    const round = db.select().from(rounds).where(eq(rounds.key, key)).get();
    if (!round) throw notFound('noRound');
    if (!round.settings.openRehearsal) throw conflict('link-only');
    return { paper: REHEARSAL, round };
  };
  const roundOf = (invitation: number) => arrivalStateOf(services, invitation).invited.round;
  /** The real questions of a candidate's round, once they are released for practice. */
  const practised = (invitation: number): PaperVersion => {
    const { practiceAt, paperVersionId: id } = roundOf(invitation);
    if (practiceAt === null) throw conflict('no-practice');
    return { id, paper: paperOfVersion(db, id) };
  };
  return [
    forCandidates({ method: 'get', path: '/practice' }, ({ invitation }) =>
      // Nothing is at stake: no device is checked for it.
      viewOf(services, practised(invitation).paper, null),
    ),
    forCandidates(
      {
        method: 'post',
        path: '/practice/score',
        body: answersBody,
        count: (_, who) => countScores(nameOf(who)),
      },
      (who, { body }) => begin(practised(who.invitation).id, body, nameOf(who)),
    ),
    forCandidates({ method: 'get', path: '/rehearsal' }, ({ invitation }) =>
      viewOf(services, rehearsalOf(services, REHEARSAL).paper, roundOf(invitation)),
    ),
    forCandidates(
      {
        method: 'post',
        path: '/rehearsal/score',
        body: answersBody,
        count: (_, who) => countScores(nameOf(who)),
      },
      (who, { body }) => begin(rehearsalOf(services, REHEARSAL).id, body, nameOf(who)),
    ),
    // Whoever holds the ticket may ask: it cannot be guessed, and there is nothing else to know it by.
    forAnyone(
      { method: 'get', path: '/rehearsal/score/:ticket', params: ticketParams },
      ({ params, response }) => {
        response.type('json').send(waiting.stateOf(params.ticket));
      },
    ),
    forAnyone({ method: 'get', path: '/rehearsal/:key', params: keyParams }, ({ params }) => {
      const { paper, round } = opened(params.key);
      return viewOf(services, rehearsalOf(services, paper).paper, round);
    }),
    forAnyone(
      {
        method: 'post',
        path: '/rehearsal/:key/score',
        params: keyParams,
        body: answersBody,
        count: (request) => countScores(networkOf(request)),
      },
      ({ params, body, request }) =>
        begin(rehearsalOf(services, opened(params.key).paper).id, body, networkOf(request)),
    ),
  ];
}
