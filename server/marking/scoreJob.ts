import { eq } from 'drizzle-orm';
import { runsOfScript, scoreScript, type OutcomesByTarget } from '../../core/scoring/scoreSitting';
import { findInvited, paperOf } from '../arrival/queries';
import { markingTasks, marks, sittings } from '../db/schema';
import type { Services } from '../services';
import { findSitting } from '../sittings/queries';
import { deskOf } from '../sittings/receipt';

/** Scores one handed-in script: objective parts at once, programs in the sandbox, and tasks for what people mark. */
export async function scoreSitting(services: Services, sittingId: number): Promise<void> {
  const { db, clock, sandbox } = services;
  const sitting = findSitting(db, sittingId);
  // Let in again before the job came to it: the next hand-in brings a job of its own.
  if (!sitting || sitting.scoredAt !== null || sitting.closedAt === null) return;
  const invited = findInvited(db, sitting.invitationId)!;
  const paper = paperOf(db, invited);
  const { answers } = deskOf(services, sittingId);
  const outcomes: Record<string, OutcomesByTarget[string]> = {};
  for (const { target, run } of runsOfScript(paper, answers)) outcomes[target] = await sandbox.run(run);
  const { scored, forPeople } = scoreScript(paper, answers, outcomes);
  const at = clock.now();
  db.transaction(() => {
    for (const { target, hundredths, verdict, reasons } of scored)
      db.insert(marks).values({ sittingId, target, hundredths, verdict, reasons, comment: '', at }).run();
    for (const target of forPeople)
      // Scored again after a late arrival: the task is there already, and the response it shows is the new one.
      db.insert(markingTasks)
        .values({ roundId: invited.round.id, sittingId, target })
        .onConflictDoUpdate({
          target: [markingTasks.sittingId, markingTasks.target],
          set: { doneAt: null },
        })
        .run();
    db.update(sittings).set({ scoredAt: at }).where(eq(sittings.id, sittingId)).run();
  });
}
