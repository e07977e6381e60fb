import { and, desc, eq, sql } from 'drizzle-orm';
import { WHOLE_PART } from '../../core/marking/mark';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { marks } from '../db/schema';

export type Mark = typeof marks.$inferSelect;
export type NewMark = Omit<Mark, 'id' | 'supersedes' | 'component'>;

const p = sql.placeholder;

const queriesOf = perDatabase((db) => ({
  standing: db
    .select()
    .from(marks)
    .where(
      and(
        ...[eq(marks.sittingId, p('sitting')), eq(marks.target, p('target'))],
        eq(marks.component, WHOLE_PART),
      ),
    )
    .orderBy(desc(marks.id))
    .limit(1)
    .prepare(),
  add: db
    .insert(marks)
    .values({
      ...{ sittingId: p('sittingId'), target: p('target'), component: WHOLE_PART, role: p('role') },
      ...{ cause: p('cause'), supersedes: p('supersedes'), response: p('response'), staffId: p('staffId') },
      ...{ hundredths: p('hundredths'), verdict: p('verdict'), reasons: p('reasons') },
      // A null would be written as JSON otherwise.
      ...{ levels: sql`${p('levels')}`, comment: p('comment'), at: p('at') },
    })
    .prepare(),
}));

/** The mark that stands for a part: the last one, which supersedes all before it. */
export const standingMark = (db: Db, sitting: number, target: string): Mark | null =>
  queriesOf(db).standing.get({ sitting, target }) ?? null;

/** Adds a mark beside the one that it supersedes. Part of a commit. */
export function addMark(db: Db, mark: NewMark, before: Mark | null): void {
  const levels = mark.levels === null ? null : JSON.stringify(mark.levels);
  queriesOf(db).add.run({ ...mark, levels, supersedes: before?.id ?? null });
}
