import { and, asc, desc, eq, isNotNull, isNull, lte, sql } from 'drizzle-orm';
import type { KeptEntry } from '../../core/journal/entry';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { invitations, journal, rounds, sittings, timeEvents } from '../db/schema';
import type { TimeEvent } from '../../core/timing/sittingTime';
import type { ClosedBy } from '../../core/sittings/api';

export type Sitting = typeof sittings.$inferSelect;
export type NewEntry = Omit<typeof journal.$inferInsert, 'arrival'>;

export type NewForm = Pick<typeof sittings.$inferInsert, 'invitationId' | 'attempt' | 'seed' | 'script'>;

export interface NewTimeEvent {
  readonly sittingId: number;
  readonly at: number;
  readonly event: TimeEvent;
  readonly staffId: number | null;
  readonly reason: string;
}

export interface Projection {
  readonly startedAt: number | null;
  readonly deadlineAt: number | null;
  readonly closedAt: number | null;
  readonly closedBy: ClosedBy | null;
}

export interface FoundSitting {
  readonly sitting: Sitting;
  readonly roundId: number;
  readonly paperId: number;
}

const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  return {
    newest: db
      .select({ sitting: sittings, roundId: rounds.id, paperId: rounds.paperId })
      .from(sittings)
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .innerJoin(rounds, eq(rounds.id, invitations.roundId))
      .where(and(eq(sittings.invitationId, p('invitation')), isNotNull(sittings.startedAt)))
      .orderBy(desc(sittings.attempt))
      .limit(1)
      .prepare(),
    one: db
      .select()
      .from(sittings)
      .where(eq(sittings.id, p('id')))
      .prepare(),
    overdue: db
      .select({ id: sittings.id, invitation: sittings.invitationId, roundId: invitations.roundId })
      .from(sittings)
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .where(and(isNull(sittings.closedAt), lte(sittings.deadlineAt, p('before'))))
      .prepare(),
    entries: db
      .select()
      .from(journal)
      .where(eq(journal.sittingId, p('sitting')))
      .orderBy(asc(journal.arrival))
      .prepare(),
    form: db
      .insert(sittings)
      .values({
        ...{ invitationId: p('invitationId'), attempt: p('attempt'), seed: p('seed'), script: p('script') },
      })
      .prepare(),
    event: db
      .insert(timeEvents)
      .values({
        ...{ sittingId: p('sittingId'), at: p('at'), event: p('event'), staffId: p('staffId') },
        reason: p('reason'),
      })
      .prepare(),
    project: db
      .update(sittings)
      .set({
        startedAt: sql`${p('startedAt')}`,
        deadlineAt: sql`${p('deadlineAt')}`,
        closedAt: sql`${p('closedAt')}`,
        closedBy: sql`${p('closedBy')}`,
      })
      .where(eq(sittings.id, p('id')))
      .prepare(),
    seal: db
      .update(sittings)
      .set({ receiptHash: sql`${p('receiptHash')}`, scoredAt: null, holder: null })
      .where(eq(sittings.id, p('id')))
      .prepare(),
    insert: db
      .insert(journal)
      .values({
        ...{ sittingId: p('sittingId'), device: p('device'), seq: p('seq'), about: p('about') },
        ...{ target: p('target'), value: p('value'), clientAt: p('clientAt'), serverAt: p('serverAt') },
        standing: p('standing'),
      })
      // The same entry again is passed over, so that a batch may be sent as often as the network wants.
      .onConflictDoNothing()
      .prepare(),
  };
});

/** What the journal's hot path asks; prepared once a database. */
export function sittingQueries(db: Db) {
  const queries = queriesOf(db);
  return {
    /** The sitting that was started last, running or closed. */
    newestOf: (invitation: number): FoundSitting | null => queries.newest.get({ invitation }) ?? null,
    addForm: (form: NewForm): void => void queries.form.run({ ...form }),
    addEvent: (event: NewTimeEvent): void => void queries.event.run({ ...event }),
    /** The columns of a sitting that follow from its time. */
    project: (id: number, change: Projection): void => void queries.project.run({ ...change, id }),
    /** Closed: what it was closed with, nobody holds it any more, and it is to be scored anew. */
    seal: (id: number, receiptHash: string): void => void queries.seal.run({ id, receiptHash }),
    overdue: (before: number) => queries.overdue.all({ before }),
    addEntry: (entry: NewEntry): void => void queries.insert.run(entry),
    entriesOf: (sitting: number): KeptEntry[] =>
      queries.entries
        .all({ sitting })
        .map(({ arrival, value, clientAt, device, seq, about, target, standing }) => ({
          ...{ device, seq, about, target, standing },
          order: arrival,
          value: JSON.parse(value) as unknown,
          at: clientAt,
        })),
  };
}

export const findSitting = (db: Db, id: number): Sitting | null => queriesOf(db).one.get({ id }) ?? null;
