import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import { record } from '../audit/record';
import { findInvited } from '../candidates/queries';
import { invitations, rounds, sittings } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { findRound } from '../schedule/queries';
import type { Services } from '../services';
import { notify } from '../mail/notices';

/**
 * Gives the results to the candidates, with a letter to each who has handed in. Only what a lead has signed off can be
 * released. `staffId` is null where the date did it.
 */
export function release(services: Services, outbox: Outbox, staffId: number | null, id: number): void {
  const { db, clock } = services;
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  if (round.signedOffAt === null) throw conflict('not-signed-off');
  const change = db
    .update(rounds)
    .set({ releasedAt: clock.now() })
    .where(and(eq(rounds.id, id), isNull(rounds.releasedAt)))
    .run();
  if (change.changes === 0) return;
  record(services, { staffId, act: 'released', subject: `round ${id}` });
  const handedIn = db
    .selectDistinct({ id: invitations.id })
    .from(invitations)
    .innerJoin(sittings, eq(sittings.invitationId, invitations.id))
    .where(and(eq(invitations.roundId, id), isNotNull(sittings.closedAt)))
    .all();
  db.transaction(() => {
    for (const one of handedIn) {
      services.jobs.add('print-result', one.id);
      notify(services, outbox, findInvited(db, one.id)!, { topic: 'result' });
    }
  });
}

/** Releases the rounds whose date has come and whose marks are signed off. */
export function releaseDue(services: Services, outbox: Outbox): void {
  const { db, clock } = services;
  const waiting = db
    .select({ id: rounds.id, settings: rounds.settings })
    .from(rounds)
    .where(and(isNull(rounds.releasedAt), isNotNull(rounds.signedOffAt)))
    .all();
  for (const { id, settings } of waiting)
    if (settings.release === 'on a date' && settings.releaseAt! <= clock.now())
      release(services, outbox, null, id);
}
