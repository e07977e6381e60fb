import { eq } from 'drizzle-orm';
import Joi from 'joi';
import type { RehearsalAnswers, RehearsalTicket, RehearsalView } from '../../core/rehearsal/api';
import { rehearsalScript, rehearsalSheet } from '../../core/rehearsal/scoreRehearsal';
import type { ResultSheet } from '../../core/results/resultSheet';
import type { Credit } from '../../core/kinds/contract';
import type { EvidenceFound } from '../../core/kinds/evidence';
import {
  evidenceFor,
  isForMachine,
  partsOfScript,
  toScore,
  unansweredCredits,
} from '../../core/scoring/script';
import { plainForm } from '../../core/forms/drawForm';
import { arrivalStateOf } from '../candidates/state';
import { rounds } from '../db/schema';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { conflict, notFound } from '../http/errors';
import { perMinute } from '../http/limits';
import type { FullPaper } from '../../core/papers/paper';
import { latestVersion, paperOfVersion } from '../papers/papers';
import { GALLERY, REHEARSAL } from '../papers/rehearsals';
import { findEvidence } from '../scoring/findEvidence';
import type { Services } from '../services';
import { WaitingRehearsals } from './waiting';

/** A whole room may rehearse behind one address. */
const SCORES_A_MINUTE = 60;

// Whatever stands in the address, as above all of a link that was written down by hand.
const keyParams = Joi.object<{ key: string }>({ key: Joi.string().max(2000).required() });
const ticketParams = Joi.object<{ ticket: string }>({
  ticket: Joi.string()
    .pattern(/^[\w-]{24}$/)
    .required(),
});
const answersBody = Joi.object<RehearsalAnswers>({
  answers: Joi.object()
    .pattern(/^[a-z0-9-]{1,40}\/[A-F]$/, Joi.any())
    .max(100)
    .required(),
});

type Round = typeof rounds.$inferSelect;

function paperOfRehearsal({ db }: Services, key: string): FullPaper {
  const found = latestVersion(db, key);
  if (!found) throw notFound('noRehearsal');
  return found.paper;
}

const viewOf = (services: Services, paper: FullPaper, round: Round | null): RehearsalView => ({
  organisation: services.config.organisation,
  checks: round?.settings.checks ?? [],
  paper: plainForm(paper).paper,
});

/** What was answered to a rehearsal, or in practice. */
interface Handed extends RehearsalAnswers {
  readonly paper: FullPaper;
}

/** Scores what was answered, and keeps nothing of it. What fails is told as not marked. */
async function score(services: Services, { answers, paper }: Handed, owner: string): Promise<ResultSheet> {
  const script = rehearsalScript(paper, answers);
  const parts = partsOfScript(script);
  const credits = new Map<string, readonly Credit[]>();
  for (const part of parts.filter(isForMachine)) {
    if (part.empty) {
      credits.set(part.target, unansweredCredits(part));
      continue;
    }
    const evidence: Record<string, EvidenceFound> = {};
    for (const request of evidenceFor(part))
      evidence[request.key] = await findEvidence(services, request, owner);
    const found = (await services.scorer.score([toScore(part, parts, evidence)])).get(part.target)!;
    if ('credits' in found) credits.set(part.target, found.credits);
  }
  return rehearsalSheet(script, credits);
}

export function rehearsalEndpoints(services: Services): Endpoint[] {
  const { db } = services;
  const countScores = perMinute(SCORES_A_MINUTE, 'tooManyScores');
  const waiting = new WaitingRehearsals((owner) => services.sandbox.before(owner));
  const begin = (handed: Handed): RehearsalTicket => ({
    ticket: waiting.add((owner) => score(services, handed, owner)),
  });
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
  const practised = (invitation: number): FullPaper => {
    const round = roundOf(invitation);
    if (round.practiceAt === null) throw conflict('no-practice');
    return paperOfVersion(db, round.paperVersionId);
  };
  return [
    forCandidates({ method: 'get', path: '/practice' }, ({ invitation }) =>
      // Nothing is at stake: no device is checked for it.
      viewOf(services, practised(invitation), null),
    ),
    forCandidates({ method: 'post', path: '/practice/score', body: answersBody }, async (who, { body }) => {
      await countScores(`invitation ${who.invitation}`);
      return begin({ ...body, paper: practised(who.invitation) });
    }),
    forCandidates({ method: 'get', path: '/rehearsal' }, ({ invitation }) =>
      viewOf(services, paperOfRehearsal(services, REHEARSAL), roundOf(invitation)),
    ),
    forCandidates({ method: 'post', path: '/rehearsal/score', body: answersBody }, async (who, { body }) => {
      await countScores(`invitation ${who.invitation}`);
      return begin({ ...body, paper: paperOfRehearsal(services, REHEARSAL) });
    }),
    // Whoever holds the ticket may ask: it cannot be guessed, and there is nothing else to know it by.
    forAnyone({ method: 'get', path: '/rehearsal/score/:ticket', params: ticketParams }, ({ params }) =>
      waiting.stateOf(params.ticket),
    ),
    forAnyone({ method: 'get', path: '/rehearsal/:key', params: keyParams }, ({ params }) => {
      const { paper, round } = opened(params.key);
      return viewOf(services, paperOfRehearsal(services, paper), round);
    }),
    forAnyone(
      { method: 'post', path: '/rehearsal/:key/score', params: keyParams, body: answersBody },
      async ({ params, body, request }) => {
        const { paper } = opened(params.key);
        await countScores(request.ip ?? '');
        return begin({ ...body, paper: paperOfRehearsal(services, paper) });
      },
    ),
  ];
}
