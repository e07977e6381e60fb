import { and, asc, desc, eq, isNotNull, isNull, lte, sql } from 'drizzle-orm';
import type { KeptEntry } from '../../core/journal/entry';
import type { Db } from '../db/open';
import { invitations, journal, rounds, sittings } from '../db/schema';

export type Sitting = typeof sittings.$inferSelect;
export type NewEntry = Omit<typeof journal.$inferInsert, 'arrival'>;

export interface FoundSitting {
  readonly sitting: Sitting;
  readonly roundId: number;
  readonly paperId: number;
}

function prepare(db: Db) {
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
      .select({ id: sittings.id, invitation: sittings.invitationId })
      .from(sittings)
      .where(and(isNull(sittings.closedAt), lte(sittings.deadlineAt, p('before'))))
      .prepare(),
    entries: db
      .select()
      .from(journal)
      .where(eq(journal.sittingId, p('sitting')))
      .orderBy(asc(journal.arrival))
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
}

const prepared = new WeakMap<Db, ReturnType<typeof prepare>>();

function queriesOf(db: Db): ReturnType<typeof prepare> {
  const queries = prepared.get(db) ?? prepare(db);
  prepared.set(db, queries);
  return queries;
}

/** What the journal's hot path asks; prepared once a database. */
export function sittingQueries(db: Db) {
  const queries = queriesOf(db);
  return {
    /** The sitting that was started last, running or closed. */
    newestOf: (invitation: number): FoundSitting | null => queries.newest.get({ invitation }) ?? null,
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
