import { and, eq, isNull } from 'drizzle-orm';
import type { Component } from '../../core/kinds/contract';
import type { GivenReply, MarkStanding } from '../../core/marking/api';
import type { MarkDraft, MarkSent, Override } from '../../core/marking/mark';
import { marksGiven, type MarksGiven, givenAgain } from '../../core/marking/marksGiven';
import { tellCandidateOf } from '../candidates/tellCandidates';
import { markingTasks, setAsides } from '../db/schema';
import { badRequest, conflict } from '../http/errors';
import { itemOf, markingOf } from './items';
import { addJudgement, addMarksOf, compareMarks, findJudgement, type Judgement } from './judgements';
import { addMark, standingMark } from './marks';
import { endCorrection, standardTold } from './standardTold';
import { findTask, partOf, type MarkedPart, type Task } from './scripts';
import { markedHash } from './scoreJob';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { Db, HasDb } from '../db/open';
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

/** A mark that was given can be given again, unless a lead has settled it, or it was for practice. */
function refuseAgain({ db }: HasDb, task: Task, { components }: MarkedPart): void {
  if (task.doneAt === null) return;
  if (task.role === 'practice') throw conflict('given-already');
  // A script with agreed marks that was slipped in behaves like any other.
  if (task.role === 'standard') return;
  const standing = standingMark(db, task.sittingId, task.target, components[0]!.key);
  if (standing?.role === 'settlement') throw conflict('settled-already');
}

/** Refuses a mark that did not see the one that stands: its assessor is shown both. */
function refuseUnseen(db: Db, task: Task, seen: number | null): void {
  if (task.judgementId === seen || task.judgementId === null) return;
  const { id, given, comment, at } = findJudgement(db, task.judgementId);
  const standing: MarkStanding = { judgement: id, given, comment, at };
  throw conflict('mark-given-elsewhere', { details: standing });
}

/** Is it the very mark that stands, sent once more as its answer was lost? */
function isSame(
  db: Db,
  task: Task,
  { given, comment, notes }: Pick<Judgement, 'given' | 'comment' | 'notes'>,
): boolean {
  if (task.doneAt === null || task.judgementId === null) return false;
  const own = findJudgement(db, task.judgementId);
  return canonicalJson([own.given, own.comment, own.notes]) === canonicalJson([given, comment, notes]);
}

/** Keeps an assessor's marks of a script. Marks that are signed off cannot be changed here. */
export function giveMark(
  services: Needs,
  staffId: number,
  taskId: number,
  { seen, ...mark }: MarkSent,
): GivenReply {
  const { db, clock } = services;
  const task = ownTask(services, staffId, taskId);
  const marked = partOf(services, task);
  const given = readGiven(marked.components, mark.given);
  if (isSame(db, task, { given, comment: mark.comment, notes: mark.notes })) return { told: null };
  refuseAgain(services, task, marked);
  refuseUnseen(db, task, seen);
  const { sittingId, target, role, roundId } = task;
  const at = clock.now();
  const item = itemOf(db, { round: roundId, target });
  const { tolerance } = markingOf(db, { round: roundId, target }, item.judged);
  const reply = db.transaction((): GivenReply => {
    endCorrection(services, task);
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
    // What was marked for practice is compared at once; what was slipped in, when its time for corrections is over.
    if (role === 'practice') return { told: standardTold(services, { ...task, ...done }) };
    if (role === 'standard') return { told: null };
    addMarksOf(db, own, role === 'second' ? 'second' : 'first');
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
    endCorrection(services, task);
    db.update(markingTasks).set({ doneAt: null, draft }).where(eq(markingTasks.id, taskId)).run();
    if (task.role !== 'standard')
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
