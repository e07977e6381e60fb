import { and, asc, desc, eq, gt, inArray, isNotNull, isNull, lte, max, sql } from 'drizzle-orm';
import type { EntryAbout } from '../../core/journal/entry';
import type { ClosedBy } from '../../core/sittings/api';
import type { TimeEvent } from '../../core/timing/sittingTime';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import {
  currentAnswers,
  heads,
  holds,
  invitations,
  journal,
  rounds,
  sittings,
  timeEvents,
} from '../db/schema';

export type Sitting = typeof sittings.$inferSelect;
export type HoldRow = typeof holds.$inferSelect;
type FollowedHold = Pick<HoldRow, 'whole' | 'chain' | 'broken' | 'opening' | 'rows' | 'bytes'>;
export type HeadRow = typeof heads.$inferSelect;
export type JournalRow = typeof journal.$inferSelect;
export type NewEntry = Omit<JournalRow, 'arrival'>;
export type CurrentAnswer = typeof currentAnswers.$inferSelect;

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
  readonly paperVersionId: number;
}

interface HoldKey {
  readonly sitting: number;
  readonly hold: number;
}

const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  const set = (name: string) => sql`${p(name)}`;
  const ownHold = and(eq(holds.sittingId, p('sitting')), eq(holds.number, p('hold')));
  const ownHeads = and(eq(heads.sittingId, p('sitting')), eq(heads.hold, p('hold')));
  const ownEntries = and(eq(journal.sittingId, p('sitting')), eq(journal.hold, p('hold')));
  return {
    newest: db
      .select({ sitting: sittings, roundId: rounds.id, paperVersionId: rounds.paperVersionId })
      .from(sittings)
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .innerJoin(rounds, eq(rounds.id, invitations.roundId))
      .where(and(eq(sittings.invitationId, p('invitation')), isNotNull(sittings.startedAt)))
      .orderBy(desc(sittings.attempt))
      .limit(1)
      .prepare(),
    allOf: db
      .select()
      .from(sittings)
      .where(eq(sittings.invitationId, p('invitation')))
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
    event: db
      .insert(timeEvents)
      .values({
        sittingId: p('sittingId'),
        at: p('at'),
        event: p('event'),
        staffId: p('staffId'),
        reason: p('reason'),
      })
      .prepare(),
    project: db
      .update(sittings)
      .set({
        startedAt: set('startedAt'),
        deadlineAt: set('deadlineAt'),
        closedAt: set('closedAt'),
        closedBy: set('closedBy'),
      })
      .where(eq(sittings.id, p('id')))
      .prepare(),
    holds: db
      .select()
      .from(holds)
      .where(eq(holds.sittingId, p('sitting')))
      .orderBy(asc(holds.number))
      .prepare(),
    followed: db
      .update(holds)
      .set({
        whole: set('whole'),
        chain: set('chain'),
        broken: set('broken'),
        opening: set('opening'),
        rows: set('rows'),
        bytes: set('bytes'),
      })
      .where(ownHold)
      .prepare(),
    head: db
      .insert(heads)
      .values({
        sittingId: p('sittingId'),
        hold: p('hold'),
        number: p('number'),
        chain: p('chain'),
        arrivedAt: p('arrivedAt'),
        heard: p('heard'),
        checked: p('checked'),
      })
      .onConflictDoUpdate({
        target: [heads.sittingId, heads.hold, heads.number, heads.chain],
        set: {
          heard: sql`max(${heads.heard}, excluded.heard)`,
          checked: sql`max(${heads.checked}, excluded.checked)`,
        },
      })
      .prepare(),
    headChecked: db
      .update(heads)
      .set({ checked: true })
      .where(and(ownHeads, eq(heads.number, p('number')), eq(heads.chain, p('chain'))))
      .prepare(),
    heads: db.select().from(heads).where(ownHeads).prepare(),
    headsAt: db
      .select()
      .from(heads)
      .where(and(ownHeads, eq(heads.number, p('number'))))
      .prepare(),
    claimed: db
      .update(sittings)
      .set({ claimedHandInAt: set('at') })
      .where(eq(sittings.id, p('id')))
      .prepare(),
    grant: db
      .insert(holds)
      .values({
        sittingId: p('sittingId'),
        number: p('number'),
        token: p('token'),
        grantedAt: p('grantedAt'),
        agent: p('agent'),
        store: p('store'),
        opening: p('opening'),
        whole: p('whole'),
        chain: p('chain'),
        broken: p('broken'),
      })
      .prepare(),
    entries: db
      .select()
      .from(journal)
      .where(ownEntries)
      .orderBy(asc(journal.number), asc(journal.variant))
      .prepare(),
    entriesAfter: db
      .select()
      .from(journal)
      .where(and(ownEntries, gt(journal.number, p('after')), eq(journal.variant, 0)))
      .orderBy(asc(journal.number))
      .prepare(),
    turnRows: db
      .select({
        hold: journal.hold,
        number: journal.number,
        about: journal.about,
        target: journal.target,
        arrivedAt: journal.arrivedAt,
      })
      .from(journal)
      .where(
        and(
          eq(journal.sittingId, p('sitting')),
          inArray(journal.about, ['place', 'answer']),
          isNull(journal.aside),
          gt(journal.hold, 0),
        ),
      )
      .prepare(),
    variants: db
      .select()
      .from(journal)
      .where(and(ownEntries, eq(journal.number, p('number'))))
      .orderBy(asc(journal.variant))
      .prepare(),
    last: db
      .select({ number: max(journal.number) })
      .from(journal)
      .where(ownEntries)
      .prepare(),
    lastArrival: db
      .select({ at: max(journal.arrivedAt) })
      .from(journal)
      .where(ownEntries)
      .prepare(),
    insert: db
      .insert(journal)
      .values({
        sittingId: p('sittingId'),
        hold: p('hold'),
        number: p('number'),
        variant: p('variant'),
        about: p('about'),
        target: p('target'),
        value: p('value'),
        patch: p('patch'),
        restored: p('restored'),
        claimedAt: p('claimedAt'),
        arrivedAt: p('arrivedAt'),
        aside: p('aside'),
      })
      .prepare(),
    current: db
      .select()
      .from(currentAnswers)
      .where(eq(currentAnswers.sittingId, p('sitting')))
      .prepare(),
    currentAbout: db
      .select()
      .from(currentAnswers)
      .where(and(eq(currentAnswers.sittingId, p('sitting')), eq(currentAnswers.about, p('about'))))
      .prepare(),
    slot: db
      .select()
      .from(currentAnswers)
      .where(
        and(
          eq(currentAnswers.sittingId, p('sitting')),
          eq(currentAnswers.about, p('about')),
          eq(currentAnswers.target, p('target')),
        ),
      )
      .prepare(),
    setCurrent: db
      .insert(currentAnswers)
      .values({
        sittingId: p('sittingId'),
        about: p('about'),
        target: p('target'),
        hold: p('hold'),
        number: p('number'),
        depth: p('depth'),
        value: p('value'),
      })
      .onConflictDoUpdate({
        target: [currentAnswers.sittingId, currentAnswers.about, currentAnswers.target],
        set: {
          hold: sql`excluded.hold`,
          number: sql`excluded.number`,
          depth: sql`excluded.depth`,
          value: sql`excluded.value`,
        },
      })
      .prepare(),
  };
});

/** What the hot path of saving asks; prepared once a database. */
export function sittingQueries(db: Db) {
  const queries = queriesOf(db);
  return {
    /** The sitting that was started last, running or closed. */
    newestOf: (invitation: number): FoundSitting | null => queries.newest.get({ invitation }) ?? null,
    allOf: (invitation: number): Sitting[] => queries.allOf.all({ invitation }),
    addEvent: (event: NewTimeEvent): void => void queries.event.run({ ...event }),
    /** The columns of a sitting that follow from its time. */
    project: (id: number, change: Projection): void => void queries.project.run({ ...change, id }),
    overdue: (before: number) => queries.overdue.all({ before }),
    holdsOf: (sitting: number): HoldRow[] => queries.holds.all({ sitting }),
    followHold: (key: HoldKey, row: FollowedHold): void =>
      void queries.followed.run({ ...key, ...row, broken: row.broken ? 1 : 0 }),
    addHead: (row: HeadRow): void => void queries.head.run({ ...row }),
    headChecked: (key: HoldKey, number: number, chain: string): void =>
      void queries.headChecked.run({ ...key, number, chain }),
    headsAt: (key: HoldKey, number: number): HeadRow[] => queries.headsAt.all({ ...key, number }),
    claimHandIn: (id: number, at: number): void => void queries.claimed.run({ id, at }),
    addHold: (row: HoldRow): void => void queries.grant.run({ ...row }),
    headsOf: (key: HoldKey): HeadRow[] => queries.heads.all({ ...key }),
    entriesOf: (key: HoldKey): JournalRow[] => queries.entries.all({ ...key }),
    entriesAfter: (key: HoldKey, after: number): JournalRow[] => queries.entriesAfter.all({ ...key, after }),
    /** Where the candidate went and what was answered, without the values. */
    turnRows: (sitting: number) => queries.turnRows.all({ sitting }),
    variantsOf: (key: HoldKey, number: number): JournalRow[] => queries.variants.all({ ...key, number }),
    lastOf: (key: HoldKey): number => queries.last.get({ ...key })?.number ?? 0,
    lastArrivalOf: (key: HoldKey): number => queries.lastArrival.get({ ...key })?.at ?? 0,
    addEntry: (entry: NewEntry): void => void queries.insert.run({ ...entry }),
    currentOf: (sitting: number): CurrentAnswer[] => queries.current.all({ sitting }),
    currentAbout: (sitting: number, about: EntryAbout): CurrentAnswer[] =>
      queries.currentAbout.all({ sitting, about }),
    currentAt: (sitting: number, about: EntryAbout, target: string): CurrentAnswer | null =>
      queries.slot.get({ sitting, about, target }) ?? null,
    setCurrent: (row: CurrentAnswer): void => void queries.setCurrent.run({ ...row }),
  };
}

export type SittingQueries = ReturnType<typeof sittingQueries>;

export const findSitting = (db: Db, id: number): Sitting | null => queriesOf(db).one.get({ id }) ?? null;
