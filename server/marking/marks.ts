import { and, desc, eq, sql } from 'drizzle-orm';
import { WHOLE_PART } from '../../core/marking/mark';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { marks } from '../db/schema';

export type Mark = typeof marks.$inferSelect;
export type NewMark = Omit<Mark, 'id' | 'supersedes' | 'component'>;

const queriesOf = perDatabase((db) => ({
  standing: db
    .select()
    .from(marks)
    .where(
      and(
        ...[eq(marks.sittingId, sql.placeholder('sitting')), eq(marks.target, sql.placeholder('target'))],
        eq(marks.component, WHOLE_PART),
      ),
    )
    .orderBy(desc(marks.id))
    .limit(1)
    .prepare(),
}));

/** The mark that stands for a part: the last one, which supersedes all before it. */
export const standingMark = (db: Db, sitting: number, target: string): Mark | null =>
  queriesOf(db).standing.get({ sitting, target }) ?? null;

/** Adds a mark beside those before it, naming the one that it supersedes. Part of a commit. */
export function addMark(db: Db, mark: NewMark): void {
  const supersedes = standingMark(db, mark.sittingId, mark.target)?.id ?? null;
  db.insert(marks)
    .values({ ...mark, component: WHOLE_PART, supersedes })
    .run();
}
