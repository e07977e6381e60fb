import { and, eq, inArray } from 'drizzle-orm';
import type { MarkingProgress } from '../../core/arrival/api';
import { allParts, type FullPaper } from '../../core/papers/paper';
import type { Db } from '../db/open';
import { markingTasks } from '../db/schema';
import { formById } from '../forms/forms';
import type { Sitting } from '../sittings/queries';

/** How far the marking of a handed-in script is, as its candidate is told. */
export function markingProgress(db: Db, sitting: Sitting, paper: FullPaper): MarkingProgress {
  const { questions } = formById(db, sitting.formId).paper;
  // Whatever was answered, their marks are decided.
  const ruled = new Set(
    allParts(paper).flatMap(({ target, part }) => (part.ruling === undefined ? [] : [target])),
  );
  const tasks = db
    .select()
    .from(markingTasks)
    .where(and(eq(markingTasks.sittingId, sitting.id), inArray(markingTasks.role, ['first', 'second'])))
    .all()
    .filter(({ target }) => !ruled.has(target));
  const scoring = sitting.scoredAt === null || sitting.settledAt === null;
  const reading = questions.flatMap(({ title, parts }) => {
    const own = tasks.filter((task) => parts.some((part) => part.target === task.target));
    if (own.every((task) => task.doneAt !== null)) return [];
    // Before it is shared out nobody has it yet, and somebody will.
    const assessors = Math.max(1, new Set(own.map((task) => task.assessorId)).size);
    return [{ title, assessors }];
  });
  return {
    scored: scoring ? 0 : questions.length - reading.length,
    questions: questions.length,
    reading,
    scoring,
  };
}
