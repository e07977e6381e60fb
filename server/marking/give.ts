import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import type { Component } from '../../core/kinds/contract';
import type { GivenReply, StandardTold } from '../../core/marking/api';
import type { MarkDraft, Override } from '../../core/marking/mark';
import { marksGiven, type MarksGiven, givenAgain } from '../../core/marking/marksGiven';
import { hasDrifted, isWithin } from '../../core/marking/standardisation';
import { tellCandidateOf } from '../candidates/tellCandidates';
import { judgements, markingTasks, setAsides, standards } from '../db/schema';
import { badRequest, conflict } from '../http/errors';
import { itemOf, markingOf } from './items';
import {
  addJudgement,
  addMarksOf,
  compareMarks,
  findJudgement,
  totalOfJudgement,
  type Judgement,
} from './judgements';
import { addMark, standingMark } from './marks';
import { findTask, partOf, type MarkedPart, type Task } from './scripts';
import { markedHash } from './scoreJob';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasHub, HasSessions {}

/** Reads what was given: every component has to be decided, and by what it has. */
export function readGiven(components: readonly Component[], given: MarksGiven) {
  let read;
  try {
    read = marksGiven(components, given);
  } catch (error) {
    throw badRequest('marksNotPossible', String(error));
  }
  if (read.missing.length > 0) throw badRequest('marksMissing', { missing: read.missing.map((c) => c.key) });
  return read.marks;
}

/** A task of this assessor whose marks can still change. */
function ownTask({ db, sessions }: HasDb & HasSessions, staffId: number, taskId: number): Task {
  const task = findTask(db, taskId);
  if (task?.assessorId !== staffId || !sessions.hasRole(staffId, task.roundId, ['assessor', 'lead']))
    throw conflict('not-yours');
  const { round, judged } = itemOf(db, { round: task.roundId, target: task.target });
  const { signedOffAt } = markingOf(db, { round: task.roundId, target: task.target }, judged);
  if (round.signedOffAt !== null || signedOffAt !== null) throw conflict('signed-off');
  return task;
}

/** Sets credits of the machine right, each with a reason. Part of a commit. */
function override(
  { db, clock }: HasClock & HasDb,
  { sitting, part }: MarkedPart,
  {
    staffId,
    overrides,
  }: { readonly staffId: number; readonly overrides: Readonly<Record<string, Override>> },
): void {
  for (const [component, { hundredths, reason }] of Object.entries(overrides)) {
    const own = part.components.find(({ key, by }) => key === component && by === 'machine');
    if (!own || hundredths > own.of) throw badRequest('marksNotPossible', component);
    const before = standingMark(db, sitting.id, part.target, component);
    if (before?.hundredths === hundredths) continue;
    const given = { sittingId: sitting.id, target: part.target, component, hundredths, staffId };
    const response = markedHash(db, sitting.id, part);
    const reasons = [{ code: 'sheet.override', values: { reason } }];
    const by = { role: 'override', cause: 'marking', judgementId: null, verdict: null, level: null } as const;
    addMark(db, { ...given, ...by, response, reasons, at: clock.now() }, before);
  }
}

/** What an assessor is told of a script with agreed marks that they have just marked. */
function standardFor(
  { db }: HasDb,
  task: Task,
  {
    own,
    script,
    tolerance,
  }: { readonly own: Judgement; readonly script: string; readonly tolerance: number },
): StandardTold | null {
  const of = { round: task.roundId, target: task.target };
  const inItem = and(eq(standards.roundId, of.round), eq(standards.target, of.target));
  const all = db.select().from(standards).where(inItem).all();
  const standard = all.find((one) => one.sittingId === task.sittingId);
  if (!standard) return null;
  const agreed = findJudgement(db, standard.judgementId);
  const within = isWithin({ given: totalOfJudgement(own), agreed: totalOfJudgement(agreed) }, tolerance);
  const practice = task.role === 'practice';
  if (within && !practice) return null;
  const mine = db
    .select({ task: markingTasks, judgement: judgements })
    .from(markingTasks)
    .innerJoin(judgements, eq(judgements.id, markingTasks.judgementId))
    .where(
      and(
        eq(markingTasks.assessorId, task.assessorId!),
        eq(markingTasks.roundId, of.round),
        eq(markingTasks.target, of.target),
        eq(markingTasks.role, 'standard'),
        isNotNull(markingTasks.doneAt),
      ),
    )
    .all()
    .flatMap((row) => {
      const at = all.find((one) => one.sittingId === row.task.sittingId);
      const to = at && totalOfJudgement(findJudgement(db, at.judgementId));
      return to === undefined
        ? []
        : [{ given: totalOfJudgement(row.judgement), agreed: to, at: row.judgement.at }];
    });
  return {
    script,
    practice,
    yours: own.given,
    agreed: agreed.given,
    reason: agreed.reason,
    within,
    drifted: !practice && hasDrifted(mine, tolerance),
  };
}

/** A mark that was given can be given again, unless a lead has settled it, or it was of a script with agreed marks. */
function refuseAgain({ db }: HasDb, task: Task, { components }: MarkedPart): void {
  if (task.doneAt === null) return;
  if (task.role !== 'first' && task.role !== 'second') throw conflict('given-already');
  const standing = standingMark(db, task.sittingId, task.target, components[0]!.key);
  if (standing?.role === 'settlement') throw conflict('settled-already');
}

/** Keeps an assessor's marks of a script. Marks that are signed off cannot be changed here. */
export function giveMark(services: Needs, staffId: number, taskId: number, mark: MarkDraft): GivenReply {
  const { db, clock } = services;
  const task = ownTask(services, staffId, taskId);
  const marked = partOf(services, task);
  refuseAgain(services, task, marked);
  const given = readGiven(marked.components, mark.given);
  const { sittingId, target, role, roundId } = task;
  const at = clock.now();
  const item = itemOf(db, { round: roundId, target });
  const { tolerance } = markingOf(db, { round: roundId, target }, item.judged);
  const reply = db.transaction((): GivenReply => {
    const own = addJudgement(db, {
      sittingId,
      target,
      role,
      staffId,
      given,
      comment: mark.comment,
      notes: mark.notes,
      reason: '',
      response: markedHash(db, sittingId, marked.part),
      at,
    });
    const done = { doneAt: at, judgementId: own.id, draft: null };
    db.update(markingTasks).set(done).where(eq(markingTasks.id, taskId)).run();
    db.update(setAsides)
      .set({ answeredAt: at })
      .where(and(eq(setAsides.taskId, taskId), isNull(setAsides.answeredAt)))
      .run();
    if (role !== 'first' && role !== 'second')
      return { told: standardFor(services, task, { own, script: marked.sitting.script, tolerance }) };
    addMarksOf(db, own, role);
    override(services, marked, { staffId, overrides: mark.overrides });
    compareMarks(db, { roundId, sittingId, target, components: marked.components, tolerance, at });
    return { told: null };
  });
  tellCandidateOf(services, sittingId);
  return reply;
}

/** Keeps a half-made mark, over a reload and on another device. */
export function keepDraft(
  services: HasDb & HasSessions,
  staffId: number,
  taskId: number,
  draft: MarkDraft,
): void {
  const task = ownTask(services, staffId, taskId);
  if (task.doneAt !== null) throw conflict('given-already');
  services.db.update(markingTasks).set({ draft }).where(eq(markingTasks.id, taskId)).run();
}

/** Takes a mark back: the script is first in the queue again, with what was given. A settled one stays. */
export function takeBack(services: Needs, staffId: number, taskId: number): void {
  const { db, clock } = services;
  const task = ownTask(services, staffId, taskId);
  if (task.doneAt === null || task.judgementId === null) return;
  const own = findJudgement(db, task.judgementId);
  const { sittingId, target, roundId } = task;
  const marked = partOf(services, task);
  refuseAgain(services, task, marked);
  const { components } = marked;
  const { judged } = itemOf(db, { round: roundId, target });
  const { tolerance } = markingOf(db, { round: roundId, target }, judged);
  const { comment, notes } = own;
  // What was set right has taken effect by itself.
  const draft = { given: givenAgain(components, own.given), comment, notes, overrides: {} };
  db.transaction(() => {
    db.update(markingTasks).set({ doneAt: null, draft }).where(eq(markingTasks.id, taskId)).run();
    compareMarks(db, { roundId, sittingId, target, components, tolerance, at: clock.now() });
  });
  tellCandidateOf(services, sittingId);
}

/** Gives a script to the lead with a question; it comes back with the answer. */
export function setAside(
  services: HasClock & HasDb & HasSessions,
  staffId: number,
  taskId: number,
  { reason, note }: Pick<typeof setAsides.$inferInsert, 'reason' | 'note'>,
): void {
  const { db, clock } = services;
  const task = ownTask(services, staffId, taskId);
  if (task.doneAt !== null) throw conflict('given-already');
  const open = and(eq(setAsides.taskId, taskId), isNull(setAsides.answeredAt));
  if (db.select().from(setAsides).where(open).get()) return;
  db.insert(setAsides).values({ taskId, staffId, reason, note, at: clock.now() }).run();
}
