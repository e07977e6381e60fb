import { eq, sql } from 'drizzle-orm';
import { runsOfScript, scoreScript, type OutcomesByTarget } from '../../core/scoring/scoreSitting';
import { findInvited, paperOf } from '../arrival/queries';
import { perDatabase } from '../db/perDatabase';
import { markingTasks, marks, sittings } from '../db/schema';
import type { Services } from '../services';
import { findSitting } from '../sittings/queries';
import { deskOf } from '../sittings/receipt';

const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  return {
    mark: db
      .insert(marks)
      .values({
        ...{ sittingId: p('sittingId'), target: p('target'), hundredths: p('hundredths'), at: p('at') },
        ...{ verdict: p('verdict'), reasons: p('reasons'), comment: '' },
      })
      .prepare(),
    task: db
      .insert(markingTasks)
      .values({ roundId: p('roundId'), sittingId: p('sittingId'), target: p('target') })
      // Scored again after a late arrival: the task is there already, and the response it shows is the new one.
      .onConflictDoUpdate({ target: [markingTasks.sittingId, markingTasks.target], set: { doneAt: null } })
      .prepare(),
    scored: db
      .update(sittings)
      .set({ scoredAt: sql`${p('at')}` })
      .where(eq(sittings.id, p('sittingId')))
      .prepare(),
  };
});

/** Scores one handed-in script: objective parts at once, programs in the sandbox, and tasks for what people mark. */
export async function scoreSitting(services: Services, sittingId: number): Promise<void> {
  const { db, clock, sandbox, commits } = services;
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
  const queries = queriesOf(db);
  await commits.run(() => {
    // Let in again while the programs ran: these marks would be of a script that goes on.
    if (findSitting(db, sittingId)?.closedAt !== sitting.closedAt) return;
    for (const { target, hundredths, verdict, reasons } of scored)
      queries.mark.run({ sittingId, target, hundredths, verdict, reasons, at });
    for (const target of forPeople) queries.task.run({ roundId: invited.round.id, sittingId, target });
    queries.scored.run({ sittingId, at });
  });
}
