import { eq } from 'drizzle-orm';
import Joi from 'joi';
import type { RehearsalAnswers, RehearsalView } from '../../core/rehearsal/api';
import { rehearsalForm, scoreRehearsal } from '../../core/rehearsal/scoreRehearsal';
import type { ResultSheet } from '../../core/results/resultSheet';
import { runsOfScript, type OutcomesByTarget } from '../../core/scoring/scoreSitting';
import { whereIs } from '../arrival/operations';
import { rounds } from '../db/schema';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { conflict, notFound } from '../http/errors';
import { perMinute } from '../http/limits';
import { latestVersion } from '../papers/papers';
import type { Services } from '../services';

/** The key under which the rehearsal's paper is published. */
export const REHEARSAL_PAPER = 'rehearsal';

/** A whole room may rehearse behind one address. */
const SCORES_A_MINUTE = 60;

const keyParams = Joi.object<{ key: string }>({
  key: Joi.string()
    .pattern(/^[a-z0-9-]{3,60}$/)
    .required(),
});
const answersBody = Joi.object<RehearsalAnswers>({
  answers: Joi.object()
    .pattern(/^[a-z0-9-]{1,40}\/[A-F]$/, Joi.any())
    .max(100)
    .required(),
});

type Round = typeof rounds.$inferSelect;

function paperOfRehearsal({ db }: Services) {
  const found = latestVersion(db, REHEARSAL_PAPER);
  if (!found) throw notFound('A rehearsal');
  return found.paper;
}

function rehearsalOf(services: Services, round: Round): RehearsalView {
  const { title, opensAt, closesAt, timeZone, settings } = round;
  return {
    organisation: services.config.organisation,
    round: { title, opensAt, closesAt, timeZone },
    checks: settings.checks,
    paper: rehearsalForm(paperOfRehearsal(services)),
  };
}

/** Scores what was answered, and keeps nothing of it. */
async function score(services: Services, { answers }: RehearsalAnswers): Promise<ResultSheet> {
  const paper = paperOfRehearsal(services);
  const outcomes: Record<string, OutcomesByTarget[string]> = {};
  for (const { target, run } of runsOfScript(paper, answers))
    outcomes[target] = await services.sandbox.run(run);
  return scoreRehearsal(paper, answers, outcomes);
}

export function rehearsalEndpoints(services: Services): Endpoint[] {
  const { db } = services;
  const countScores = perMinute(
    SCORES_A_MINUTE,
    'Too many rehearsals were scored from here in the last minute. Wait a minute and try again.',
  );
  const openRound = (key: string) => {
    const round = db.select().from(rounds).where(eq(rounds.key, key)).get();
    if (!round) throw notFound('This round');
    if (!round.settings.openRehearsal)
      throw conflict('link-only', 'The rehearsal of this round opens from your personal link only.');
    return round;
  };
  return [
    forCandidates({ method: 'get', path: '/rehearsal' }, (who) =>
      rehearsalOf(services, whereIs(services, who.invitation).invited.round),
    ),
    forCandidates({ method: 'post', path: '/rehearsal/score', body: answersBody }, async (who, { body }) => {
      await countScores(`invitation ${who.invitation}`);
      return score(services, body);
    }),
    forAnyone({ method: 'get', path: '/rehearsal/:key', params: keyParams }, ({ params }) =>
      rehearsalOf(services, openRound(params.key)),
    ),
    forAnyone(
      { method: 'post', path: '/rehearsal/:key/score', params: keyParams, body: answersBody },
      async ({ params, body, request }) => {
        openRound(params.key);
        await countScores(request.ip ?? '');
        return score(services, body);
      },
    ),
  ];
}
