import { and, desc, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import { BY_HAND } from '../../core/scoring/components';
import { inPieces } from '../db/inPieces';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { marks, markingTasks } from '../db/schema';

export type Mark = typeof marks.$inferSelect;
export type NewMarkRow = Omit<Mark, 'id' | 'supersedes'>;

const p = sql.placeholder;

const queriesOf = perDatabase((db) => ({
  standing: db
    .select()
    .from(marks)
    .where(
      and(
        eq(marks.sittingId, p('sitting')),
        eq(marks.target, p('target')),
        eq(marks.component, p('component')),
      ),
    )
    .orderBy(desc(marks.id))
    .limit(1)
    .prepare(),
  all: db
    .select()
    .from(marks)
    .where(eq(marks.sittingId, p('sitting')))
    .orderBy(marks.id)
    .prepare(),
  byHand: db
    .select({ target: markingTasks.target })
    .from(markingTasks)
    .where(and(eq(markingTasks.sittingId, p('sitting')), isNotNull(markingTasks.failure)))
    .prepare(),
  add: db
    .insert(marks)
    .values({
      sittingId: p('sittingId'),
      target: p('target'),
      component: p('component'),
      role: p('role'),
      cause: p('cause'),
      supersedes: p('supersedes'),
      response: p('response'),
      staffId: p('staffId'),
      judgementId: p('judgementId'),
      hundredths: p('hundredths'),
      verdict: p('verdict'),
      reasons: p('reasons'),
      level: p('level'),
      at: p('at'),
    })
    .prepare(),
}));

/** The mark that stands for a component: the last one, which supersedes all before it. */
export const standingMark = (db: Db, sitting: number, target: string, component: string): Mark | null =>
  queriesOf(db).standing.get({ sitting, target, component }) ?? null;

/** All marks of a sitting, in the order in which they were given. */
export const allMarks = (db: Db, sitting: number): Mark[] => queriesOf(db).all.all({ sitting });

/**
 * The marks of a sitting that no other supersedes: one for each component by which a part is marked. Where the machine
 * could not score a part, that is the one decided by hand.
 */
export function standingMarks(db: Db, sitting: number): Mark[] {
  const byHand = new Set(
    queriesOf(db)
      .byHand.all({ sitting })
      .map((task) => task.target),
  );
  return standingAmong(allMarks(db, sitting), byHand);
}

/** Of all marks of a sitting, in their order, and the parts that people decide in whole. */
function standingAmong(all: readonly Mark[], byHand: ReadonlySet<string>): Mark[] {
  const newest = new Map<string, Mark>();
  for (const mark of all) newest.set(`${mark.target} ${mark.component}`, mark);
  return [...newest.values()].filter((mark) => {
    if (mark.component === BY_HAND) return byHand.has(mark.target);
    return mark.role !== 'machine' || !byHand.has(mark.target);
  });
}

/** As `standingMarks`, of many sittings at once. */
export function standingMarksOf(db: Db, ids: readonly number[]): ReadonlyMap<number, Mark[]> {
  const all = inPieces(ids, (some) =>
    db.select().from(marks).where(inArray(marks.sittingId, some)).orderBy(marks.id).all(),
  );
  const byHand = inPieces(ids, (some) =>
    db
      .select({ sitting: markingTasks.sittingId, target: markingTasks.target })
      .from(markingTasks)
      .where(and(inArray(markingTasks.sittingId, some), isNotNull(markingTasks.failure)))
      .all(),
  );
  const hands = new Map<number, Set<string>>();
  for (const { sitting, target } of byHand) hands.set(sitting, (hands.get(sitting) ?? new Set()).add(target));
  const rows = new Map<number, Mark[]>(ids.map((id) => [id, []]));
  for (const mark of all) rows.get(mark.sittingId)!.push(mark);
  return new Map([...rows].map(([id, own]) => [id, standingAmong(own, hands.get(id) ?? new Set())]));
}

/** Adds a mark beside the one that it supersedes. Part of a commit. */
export function addMark(db: Db, mark: NewMarkRow, before: Mark | null): void {
  queriesOf(db).add.run({ ...mark, supersedes: before?.id ?? null });
}
