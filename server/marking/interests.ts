import { and, eq, isNull } from 'drizzle-orm';
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
 * them again. Nobody is told who wrote it. What nobody else can take stays open, for the lead to see.
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
  for (const target of new Set(open.map((one) => one.target)))
    await allocateOpen(services, { round: task.roundId, target });
}
