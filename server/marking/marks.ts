import { and, desc, eq, inArray, isNotNull, ne, or, sql } from 'drizzle-orm';
import { BY_HAND } from '../../core/scoring/components';
import { inPieces } from '../db/inPieces';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { marks, markingTasks } from '../db/schema';

export type Mark = typeof marks.$inferSelect;
export type NewMarkRow = Omit<Mark, 'id' | 'supersedes' | 'correctionId'> & {
  /** The correction that it follows from. */
  readonly correctionId?: number | null;
};

const p = sql.placeholder;

/** What of a part the machine left to people: the whole of it, or some components. */
const leftToPeople = {
  sitting: markingTasks.sittingId,
  target: markingTasks.target,
  failure: markingTasks.failure,
  undecided: markingTasks.undecided,
};
const isLeft = or(isNotNull(markingTasks.failure), ne(markingTasks.undecided, []));
type Left = Pick<typeof markingTasks.$inferSelect, 'target' | 'failure' | 'undecided'>;

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
    .select(leftToPeople)
    .from(markingTasks)
    .where(and(eq(markingTasks.sittingId, p('sitting')), isLeft))
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
      correctionId: p('correctionId'),
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
export const standingMarks = (db: Db, sitting: number): Mark[] =>
  standingAmong(allMarks(db, sitting), queriesOf(db).byHand.all({ sitting }));

/** Of all marks of a sitting, in their order, and what the machine left to people. */
function standingAmong(all: readonly Mark[], left: readonly Left[]): Mark[] {
  const newest = new Map<string, Mark>();
  for (const mark of all) newest.set(`${mark.target} ${mark.component}`, mark);
  const whole = new Set(left.filter(({ failure }) => failure !== null).map(({ target }) => target));
  const some = new Set(
    left.flatMap(({ target, undecided }) => undecided.map((component) => `${target} ${component}`)),
  );
  return [...newest.values()].filter(({ target, component, role }) => {
    if (component === BY_HAND) return whole.has(target);
    return role !== 'machine' || !(whole.has(target) || some.has(`${target} ${component}`));
  });
}

/** As `standingMarks`, of many sittings at once. */
export function standingMarksOf(db: Db, ids: readonly number[]): ReadonlyMap<number, Mark[]> {
  const all = inPieces(ids, (some) =>
    db.select().from(marks).where(inArray(marks.sittingId, some)).orderBy(marks.id).all(),
  );
  const byHand = inPieces(ids, (some) =>
    db
      .select(leftToPeople)
      .from(markingTasks)
      .where(and(inArray(markingTasks.sittingId, some), isLeft))
      .all(),
  );
  const left = new Map<number, Left[]>(ids.map((id) => [id, []]));
  for (const task of byHand) left.get(task.sitting)!.push(task);
  const rows = new Map<number, Mark[]>(ids.map((id) => [id, []]));
  for (const mark of all) rows.get(mark.sittingId)!.push(mark);
  return new Map([...rows].map(([id, own]) => [id, standingAmong(own, left.get(id)!)]));
}

/** Adds a mark beside the one that it supersedes. Part of a commit. */
export function addMark(db: Db, mark: NewMarkRow, before: Mark | null): void {
  queriesOf(db).add.run({ correctionId: null, ...mark, supersedes: before?.id ?? null });
}
