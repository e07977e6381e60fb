import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import { record } from '../audit/record';
import { findInvited } from '../candidates/queries';
import { tellCandidates } from '../candidates/tellCandidates';
import { invitations, rounds, sittings } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { findRound } from '../schedule/queries';
import { notifyOnce } from '../mail/notices';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasCommits, HasHub, HasJobs {}

/** So many candidates are written to in one commit: saves go between. */
const PIECE = 50;

/**
 * Gives the results to the candidates. Only what a lead has signed off can be released. The release, its record and the
 * job that writes to everybody are one commit. `staffId` is null where the date did it.
 */
export function release(services: Needs, staffId: number | null, id: number): void {
  const { db, clock, jobs } = services;
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  if (round.signedOffAt === null) throw conflict('not-signed-off');
  db.transaction(() => {
    const change = db
      .update(rounds)
      .set({ releasedAt: clock.now() })
      .where(and(eq(rounds.id, id), isNull(rounds.releasedAt)))
      .run();
    if (change.changes === 0) return;
    record(services, { staffId, act: 'released', subject: `round ${id}` });
    jobs.add('announce-results', id);
  });
  tellCandidates(services, id);
}

/**
 * The job after a release: a letter and a printed sheet for each who has handed in, piece by piece. Done again after a
 * stop it goes on where it was: nobody is written to twice.
 */
export async function announceResults(services: Needs, outbox: Outbox, id: number): Promise<void> {
  const { db, commits, jobs } = services;
  const handedIn = db
    .selectDistinct({ id: invitations.id })
    .from(invitations)
    .innerJoin(sittings, eq(sittings.invitationId, invitations.id))
    .where(and(eq(invitations.roundId, id), isNotNull(sittings.closedAt)))
    .all();
  for (let from = 0; from < handedIn.length; from += PIECE)
    await commits.run(() => {
      for (const one of handedIn.slice(from, from + PIECE))
        if (notifyOnce(services, outbox, findInvited(db, one.id)!, 'result'))
          jobs.add('print-result', one.id);
    });
}

/** Releases the rounds whose date has come and whose marks are signed off. */
export function releaseDue(services: Needs): void {
  const { db, clock } = services;
  const waiting = db
    .select({ id: rounds.id, settings: rounds.settings })
    .from(rounds)
    .where(and(isNull(rounds.releasedAt), isNotNull(rounds.signedOffAt)))
    .all();
  for (const { id, settings } of waiting)
    if (settings.release === 'on a date' && settings.releaseAt! <= clock.now()) release(services, null, id);
}
