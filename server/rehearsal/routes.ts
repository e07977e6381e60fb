import { eq } from 'drizzle-orm';
import Joi from 'joi';
import type { RehearsalView } from '../../core/rehearsal/api';
import { whereIs } from '../arrival/operations';
import { papers, rounds } from '../db/schema';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { conflict, notFound } from '../http/errors';
import type { Services } from '../services';

/** The key under which the rehearsal's paper is published. */
export const REHEARSAL_PAPER = 'rehearsal';

const keyParams = Joi.object<{ key: string }>({
  key: Joi.string()
    .pattern(/^[a-z0-9-]{3,60}$/)
    .required(),
});

type Round = typeof rounds.$inferSelect;

/**
 * The rehearsal with its keys and all: it is worked and scored on the device, nothing of it comes back, and its
 * questions are for everybody.
 */
function rehearsalOf({ db, config }: Services, round: Round): RehearsalView {
  const paper = db.select().from(papers).where(eq(papers.key, REHEARSAL_PAPER)).all().at(-1);
  if (!paper) throw notFound('A rehearsal');
  const { checks } = round.settings;
  return {
    organisation: config.organisation,
    round: { title: round.title, opensAt: round.opensAt, closesAt: round.closesAt, timeZone: round.timeZone },
    checks,
    paper: paper.document,
  };
}

export function rehearsalEndpoints(services: Services): Endpoint[] {
  const { db } = services;
  return [
    forCandidates({ method: 'get', path: '/rehearsal' }, (who) =>
      rehearsalOf(services, whereIs(services, who.invitation).invited.round),
    ),
    forAnyone({ method: 'get', path: '/rehearsal/:key', params: keyParams }, ({ params }) => {
      const round = db.select().from(rounds).where(eq(rounds.key, params.key)).get();
      if (!round) throw notFound('This round');
      if (!round.settings.openRehearsal)
        throw conflict('link-only', 'The rehearsal of this round opens from your personal link only.');
      return rehearsalOf(services, round);
    }),
  ];
}
