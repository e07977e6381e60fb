import { and, asc, eq, isNotNull, isNull, lte, sql } from 'drizzle-orm';
import type { KeptEntry } from '../../core/journal/entry';
import type { Db } from '../db/open';
import { invitations, journal, rounds, sittings } from '../db/schema';

export type Sitting = typeof sittings.$inferSelect;

/** What the journal's hot path asks; prepared once. */
export function sittingQueries(db: Db) {
  const p = sql.placeholder;
  const newest = db
    .select({ sitting: sittings, paperId: rounds.paperId })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(and(eq(sittings.invitationId, p('invitation')), isNotNull(sittings.startedAt)))
    .orderBy(sql`${sittings.attempt} desc`)
    .limit(1)
    .prepare();
  const overdue = db
    .select({ id: sittings.id })
    .from(sittings)
    .where(and(isNull(sittings.closedAt), lte(sittings.deadlineAt, p('before'))))
    .prepare();
  const entries = db
    .select()
    .from(journal)
    .where(eq(journal.sittingId, p('sitting')))
    .orderBy(asc(journal.arrival))
    .prepare();
  return {
    /** The sitting that was started last, running or closed. */
    newestOf: (invitation: number) => newest.get({ invitation }) ?? null,
    overdue: (before: number) => overdue.all({ before }).map((row) => row.id),
    entriesOf: (sitting: number): KeptEntry[] =>
      entries.all({ sitting }).map(({ arrival, value, clientAt, device, seq, about, target, standing }) => ({
        ...{ device, seq, about, target, standing },
        order: arrival,
        value: JSON.parse(value) as unknown,
        at: clientAt,
      })),
  };
}

export const findSitting = (db: Db, id: number): Sitting | null =>
  db.select().from(sittings).where(eq(sittings.id, id)).get() ?? null;
