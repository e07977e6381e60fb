import { and, eq, gt, isNotNull, isNull } from 'drizzle-orm';
import type { StandardTold } from '../../core/marking/api';
import { CORRECTION_MS, hasDrifted, isWithin, type StandardMark } from '../../core/marking/standardisation';
import type { Db, HasDb } from '../db/open';
import { markingTasks, standards } from '../db/schema';
import { conflict } from '../http/errors';
import type { HasClock } from '../machine/clock';
import { itemOf, markingOf } from './items';
import { findJudgement, totalOfJudgement } from './judgements';
import { findTask, partOf, type Task } from './scripts';

const ofAssessor = ({ assessorId, roundId, target }: Task) =>
  and(
    eq(markingTasks.assessorId, assessorId!),
    eq(markingTasks.roundId, roundId),
    eq(markingTasks.target, target),
  );

/** The judgement of a script with agreed marks that is compared with them: that of the end of its time for corrections. */
export const comparedOf = ({ comparedId, judgementId }: Task): number | null => comparedId ?? judgementId;

/**
 * Is the time over in which a mark is changed as if it had just been given? It lasts until the next script is passed on,
 * and at least half a minute.
 */
function isCorrectionOver({ db, clock }: HasClock & HasDb, task: Task): boolean {
  const { doneAt } = task;
  if (doneAt === null || clock.now() < doneAt + CORRECTION_MS) return false;
  const later = and(ofAssessor(task), gt(markingTasks.doneAt, doneAt));
  if (db.select({ id: markingTasks.id }).from(markingTasks).where(later).limit(1).get()) return true;
  const left = and(ofAssessor(task), isNull(markingTasks.doneAt));
  return !db.select({ id: markingTasks.id }).from(markingTasks).where(left).limit(1).get();
}

/** Before a mark is changed: what stood of a script with agreed marks at the end of its time for corrections stays known. */
export function endCorrection(services: HasClock & HasDb, task: Task): void {
  if (task.role !== 'standard' || task.comparedId !== null || !isCorrectionOver(services, task)) return;
  const compared = { comparedId: task.judgementId };
  services.db.update(markingTasks).set(compared).where(eq(markingTasks.id, task.id)).run();
}

const standardsIn = (db: Db, { roundId, target }: Task) =>
  db
    .select()
    .from(standards)
    .where(and(eq(standards.roundId, roundId), eq(standards.target, target)))
    .all();

/** The marks of an assessor's scripts with agreed marks whose time for corrections is over. */
function comparedMarks(services: HasClock & HasDb, task: Task): StandardMark[] {
  const { db } = services;
  const all = standardsIn(db, task);
  return db
    .select()
    .from(markingTasks)
    .where(and(ofAssessor(task), eq(markingTasks.role, 'standard'), isNotNull(markingTasks.judgementId)))
    .all()
    .filter((one) => one.comparedId !== null || isCorrectionOver(services, one))
    .flatMap((one) => {
      const standard = all.find(({ sittingId }) => sittingId === one.sittingId);
      if (!standard) return [];
      const own = findJudgement(db, comparedOf(one)!);
      const agreed = totalOfJudgement(findJudgement(db, standard.judgementId));
      return [{ given: totalOfJudgement(own), agreed, at: own.at }];
    });
}

/** How a marked script compares with its agreed marks; null where there is nothing to tell. */
export function standardTold(services: HasClock & HasDb, task: Task): StandardTold | null {
  const { db } = services;
  const standard = standardsIn(db, task).find((one) => one.sittingId === task.sittingId);
  const compared = comparedOf(task);
  if (!standard || compared === null) return null;
  const of = { round: task.roundId, target: task.target };
  const { tolerance } = markingOf(db, of, itemOf(db, of).judged);
  const agreed = findJudgement(db, standard.judgementId);
  const own = findJudgement(db, compared);
  const within = isWithin({ given: totalOfJudgement(own), agreed: totalOfJudgement(agreed) }, tolerance);
  const practice = task.role === 'practice';
  if (within && !practice) return null;
  const { sitting, components } = partOf(services, task);
  return {
    task: task.id,
    components,
    script: sitting.script,
    practice,
    yours: own.given,
    agreed: agreed.given,
    reason: agreed.reason,
    within,
    drifted: !practice && hasDrifted(comparedMarks(services, task), tolerance),
  };
}

/** What an assessor has yet to be told of the scripts with agreed marks among theirs. */
export function toldTo(
  services: HasClock & HasDb,
  staffId: number,
  { round, target }: { readonly round: number; readonly target: string },
): StandardTold[] {
  return services.db
    .select()
    .from(markingTasks)
    .where(
      and(
        eq(markingTasks.assessorId, staffId),
        eq(markingTasks.roundId, round),
        eq(markingTasks.target, target),
        eq(markingTasks.role, 'standard'),
        isNotNull(markingTasks.judgementId),
        isNull(markingTasks.toldAt),
      ),
    )
    .all()
    .filter((task) => task.comparedId !== null || isCorrectionOver(services, task))
    .flatMap((task) => standardTold(services, task) ?? []);
}

/** An assessor has read how a script compares: that mark is the one that is compared from now on. */
export function readTold(services: HasClock & HasDb, staffId: number, taskId: number): void {
  const { db, clock } = services;
  const task = findTask(db, taskId);
  if (task?.assessorId !== staffId) throw conflict('not-yours');
  if (task.role !== 'standard' || task.toldAt !== null) return;
  db.transaction(() => {
    endCorrection(services, task);
    db.update(markingTasks).set({ toldAt: clock.now() }).where(eq(markingTasks.id, taskId)).run();
  });
}
