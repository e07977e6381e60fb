import { and, eq, inArray, isNull } from 'drizzle-orm';
import { record } from '../audit/record';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import { markingInterests, markingTasks, setAsides } from '../db/schema';
import type { HasSecret } from '../db/serverSecret';
import { conflict } from '../http/errors';
import type { HasClock } from '../machine/clock';
import { allocateOpen } from './allocation';
import { findTask, partOf } from './scripts';

/** What is needed here of the server. */
interface Needs extends HasClock, HasCommits, HasDb, HasSecret {}

/**
 * An assessor knows whoever wrote a script: all that they have yet to mark of it goes to others, and nothing of it comes to
 * them again. Nobody is told who wrote it. A second mark that nobody else can give is not asked for any more; what nobody at
 * all can mark stays open, for the lead to see.
 */
export async function declareInterest(services: Needs, staffId: number, taskId: number): Promise<void> {
  const { db, clock, commits } = services;
  const task = findTask(db, taskId);
  if (task?.assessorId !== staffId) throw conflict('not-yours');
  if (task.doneAt !== null) throw conflict('given-already');
  const { sitting } = partOf(services, task);
  const own = and(
    eq(markingTasks.sittingId, sitting.id),
    eq(markingTasks.assessorId, staffId),
    isNull(markingTasks.doneAt),
  );
  const open = db.select().from(markingTasks).where(own).all();
  await commits.run(() => {
    db.insert(markingInterests)
      .values({ sittingId: sitting.id, staffId, at: clock.now() })
      .onConflictDoNothing()
      .run();
    for (const one of open) {
      db.delete(setAsides).where(eq(setAsides.taskId, one.id)).run();
      const isTurn = one.role === 'first' || one.role === 'second';
      // What was only to compare their marks is no work for anybody else.
      if (!isTurn) db.delete(markingTasks).where(eq(markingTasks.id, one.id)).run();
      else
        db.update(markingTasks)
          .set({ assessorId: null, draft: null })
          .where(eq(markingTasks.id, one.id))
          .run();
    }
    const subject = `round ${task.roundId}, script ${sitting.script}`;
    record(services, { staffId, act: 'declared-interest', subject });
  });
  for (const target of new Set(open.map((one) => one.target))) {
    await allocateOpen(services, { round: task.roundId, target });
    await commits.run(() => markOnce(db, sitting.id, target));
  }
}

/** Where one of two marks of a script can be given by nobody, the other is its mark. Part of a commit. */
function markOnce(db: HasDb['db'], sittingId: number, target: string): void {
  const turns = db
    .select()
    .from(markingTasks)
    .where(
      and(
        eq(markingTasks.sittingId, sittingId),
        eq(markingTasks.target, target),
        inArray(markingTasks.role, ['first', 'second']),
      ),
    )
    .all();
  const nobodys = turns.find((one) => one.assessorId === null && one.doneAt === null);
  const other = turns.find((one) => one !== nobodys);
  if (!nobodys || !other || (other.assessorId === null && other.doneAt === null)) return;
  db.delete(setAsides).where(eq(setAsides.taskId, nobodys.id)).run();
  db.delete(markingTasks).where(eq(markingTasks.id, nobodys.id)).run();
  db.update(markingTasks).set({ role: 'first' }).where(eq(markingTasks.id, other.id)).run();
}
