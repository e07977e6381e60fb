import { eq } from 'drizzle-orm';
import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { RehearsalTicket, RehearsalView } from '../../core/rehearsal/api';
import { plainFormFor } from '../../core/forms/drawForm';
import { arrivalStateOf } from '../candidates/state';
import { invitations, rounds } from '../db/schema';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { conflict, notFound } from '../http/errors';
import { networkOf, perMinute } from '../http/limits';
import type { CandidateSession } from '../http/sessions';
import { noArrangements } from '../../core/rounds/api';
import { GALLERY } from '../papers/rehearsals';
import { paperToRehearse, type Rehearsed } from './paperToRehearse';
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
type Invited = typeof invitations.$inferSelect;

interface For {
  readonly round: Round | null;
  /** Whose link it is; null for anybody with the address of a round. */
  readonly invited: Invited | null;
}

/** Nothing is at stake in practice: no device is checked for it. */
function viewOf({ config, db }: HasConfig & HasDb, of: Rehearsed, { round, invited }: For): RehearsalView {
  const arranged = invited?.arrangements ?? noArrangements;
  return {
    organisation: config.organisation,
    checks: of.is === 'practice' ? [] : (round?.settings.checks ?? []),
    extraPercent: invited?.extraPercent ?? 0,
    paper: plainFormFor(paperToRehearse(db, of), arranged).paper,
  };
}

export function rehearsalEndpoints(services: Needs, rehearsals: Rehearsals): Endpoint[] {
  const { db } = services;
  const countScores = perMinute(SCORES_A_MINUTE, 'tooManyScores');
  const waiting = new WaitingRehearsals((owner) => services.sandbox.before(owner));
  /** Reads what was sent, which may refuse it, and scores it behind a ticket. */
  const begin = async (of: Rehearsed, body: unknown, sender: string): Promise<RehearsalTicket> => {
    // Refused here where there is none: the helper tells of its own failures only.
    paperToRehearse(db, of);
    waiting.hasRoom();
    const handed = { of, bytes: body instanceof Uint8Array ? body : new Uint8Array() };
    const parts = await rehearsals.read(handed, sender);
    return { ticket: waiting.add((owner) => rehearsals.score(handed, { parts, sender, owner })) };
  };
  const nameOf = ({ invitation }: CandidateSession) => `invitation ${invitation}`;
  const likeRound = ({ paperVersionId: version }: { readonly paperVersionId: number }): Rehearsed => ({
    is: 'like',
    version,
  });
  /** The rehearsal of every kind has no round; any other address is that of a round. */
  const opened = (key: string): { readonly of: Rehearsed; readonly round: For['round'] } => {
    if (key === GALLERY) return { of: { is: 'gallery' }, round: null };
    const round = db.select().from(rounds).where(eq(rounds.key, key)).get();
    if (!round) throw notFound('noRound');
    if (!round.settings.openRehearsal) throw conflict('link-only');
    return { of: likeRound(round), round };
  };
  const invitedBy = (invitation: number): { readonly round: Round; readonly invited: Invited } => {
    const { round, invitation: invited } = arrivalStateOf(services, invitation).invited;
    return { round, invited };
  };
  /** The real questions of a candidate's round, once they are released for practice. */
  const practised = ({ practiceAt, paperVersionId: version }: Round): Rehearsed => {
    if (practiceAt === null) throw conflict('no-practice');
    return { is: 'practice', version };
  };
  const ways = [
    ['/practice', practised],
    ['/rehearsal', likeRound],
  ] as const;
  return [
    ...ways.flatMap(([path, rehearsed]) => [
      forCandidates({ method: 'get', path }, ({ invitation }) => {
        const who = invitedBy(invitation);
        return viewOf(services, rehearsed(who.round), who);
      }),
      forCandidates(
        {
          method: 'post',
          path: `${path}/score`,
          body: answersBody,
          count: (_, who) => countScores(nameOf(who)),
        },
        (who, { body }) => begin(rehearsed(invitedBy(who.invitation).round), body, nameOf(who)),
      ),
    ]),
    // Whoever holds the ticket may ask: it cannot be guessed, and there is nothing else to know it by.
    forAnyone(
      { method: 'get', path: '/rehearsal/score/:ticket', params: ticketParams },
      ({ params, response }) => {
        response.type('json').send(waiting.stateOf(params.ticket));
      },
    ),
    forAnyone({ method: 'get', path: '/rehearsal/:key', params: keyParams }, ({ params }) => {
      const { of, round } = opened(params.key);
      return viewOf(services, of, { round, invited: null });
    }),
    forAnyone(
      {
        method: 'post',
        path: '/rehearsal/:key/score',
        params: keyParams,
        body: answersBody,
        count: (request) => countScores(networkOf(request)),
      },
      ({ params, body, request }) => begin(opened(params.key).of, body, networkOf(request)),
    ),
  ];
}
