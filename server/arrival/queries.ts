import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { arrivals, candidates, invitations, rounds, sittings } from '../db/schema';
import { findPaper } from '../rounds/queries';

export interface Invited {
  readonly invitation: typeof invitations.$inferSelect;
  readonly candidate: typeof candidates.$inferSelect;
  readonly round: typeof rounds.$inferSelect;
}

export function findInvited(db: Db, invitationId: number): Invited | null {
  const found = db
    .select({ invitation: invitations, candidate: candidates, round: rounds })
    .from(invitations)
    .innerJoin(candidates, eq(candidates.id, invitations.candidateId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(eq(invitations.id, invitationId))
    .get();
  return found ?? null;
}

export const paperOf = (db: Db, invited: Invited) => findPaper(db, invited.round.paperId)!.document;

export const findByLink = (db: Db, linkHash: string) =>
  db.select({ id: invitations.id }).from(invitations).where(eq(invitations.linkHash, linkHash)).get() ?? null;

export const sittingsOf = (db: Db, invitationId: number) =>
  db
    .select()
    .from(sittings)
    .where(eq(sittings.invitationId, invitationId))
    .orderBy(desc(sittings.attempt))
    .all();

export type Arrival = typeof arrivals.$inferSelect;

export const findArrival = (db: Db, invitationId: number, attempt: number): Arrival | null =>
  db
    .select()
    .from(arrivals)
    .where(and(eq(arrivals.invitationId, invitationId), eq(arrivals.attempt, attempt)))
    .get() ?? null;

export const arrivalsOf = (db: Db, invitationId: number): Arrival[] =>
  db.select().from(arrivals).where(eq(arrivals.invitationId, invitationId)).all();

/** Notes one step of the arrival; steps done before stay. */
export function noteArrival(db: Db, invitationId: number, attempt: number, change: Partial<Arrival>): void {
  db.insert(arrivals)
    .values({ ...change, invitationId, attempt })
    .onConflictDoUpdate({ target: [arrivals.invitationId, arrivals.attempt], set: change })
    .run();
}

/** The sitting that can be worked on: prepared or running. */
export const openSitting = (db: Db) =>
  db
    .select()
    .from(sittings)
    .where(and(eq(sittings.invitationId, sql.placeholder('invitation')), isNull(sittings.closedAt)))
    .orderBy(desc(sittings.attempt))
    .limit(1)
    .prepare();
