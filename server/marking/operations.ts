import type { RoughWork } from '../../core/kit/notes';
import { sittingQueries } from '../sittings/queries';
import { deskOf } from '../sittings/values';
import { emptyDocument } from '../../core/documents/document';
import { message } from '../../core/messages/message';
import { and, asc, eq, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import { wholeForm } from '../../core/forms/drawForm';
import type { Component, Credit } from '../../core/kinds/contract';
import { keyKindOf } from '../../core/kinds/keyKinds';
import type { MarkingTableData, MarkingScript } from '../../core/marking/api';
import { marksGiven, type MarksGiven } from '../../core/marking/marksGiven';
import type { Question, ShownPart } from '../../core/papers/candidatePaper';
import { allParts, type PartInPlace } from '../../core/papers/paper';
import { byPeople, withoutMachine } from '../../core/scoring/components';
import type { ScriptPart } from '../../core/scoring/script';
import { markingTasks, rounds, sittings } from '../db/schema';
import { badRequest, conflict, notFound } from '../http/errors';
import { record } from '../audit/record';
import { paperOfVersion } from '../papers/papers';
import { findRound } from '../schedule/queries';
import type { Services } from '../services';
import { filesOfPart, pagesUnseen } from '../sittings/pages';
import { findSitting } from '../sittings/queries';
import { newestReceipt } from '../sittings/receipts';
import { addMark, standingMark, standingMarks } from './marks';
import { pilesOf, signOffStates } from './reads';
import { markedHash, scriptPartsOf } from './scoreJob';

type Task = typeof markingTasks.$inferSelect;

/** Scripts given to an assessor at a time: the one in view and the next, already loaded. */
const AHEAD = 2;
/** A script taken but not marked goes back to the pile after this. */
const CLAIM_MS = 30 * 60_000;

const paperOfRound = ({ db }: Services, roundId: number) => {
  const round = findRound(db, roundId);
  if (!round) throw notFound('noRound');
  return { round, paper: paperOfVersion(db, round.paperVersionId) };
};

interface Place {
  readonly place: PartInPlace;
  readonly question: Question;
  readonly part: ShownPart;
}

function placeOf(services: Services, roundId: number, target: string): Place {
  const { paper } = paperOfRound(services, roundId);
  const place = allParts(paper).find((p) => p.target === target);
  const question = wholeForm(paper).paper.questions.find((q) => q.parts.some((p) => p.target === target));
  if (!place || !question) throw notFound('noQuestion');
  return { place, question, part: question.parts.find((p) => p.target === target)! };
}

/** Takes the next scripts for an assessor, in the order of their codes, which is no order of persons or times. */
function claim({ db, clock }: Services, roundId: number, target: string, staffId: number): Task[] {
  const now = clock.now();
  const mine = sql`${markingTasks.assessorId} = ${staffId}`;
  const free = or(isNull(markingTasks.assessorId), mine, lt(markingTasks.claimedAt, now - CLAIM_MS));
  const pile = and(eq(markingTasks.roundId, roundId), eq(markingTasks.target, target));
  const next = db
    .select({ task: markingTasks })
    .from(markingTasks)
    .innerJoin(sittings, eq(sittings.id, markingTasks.sittingId))
    .where(and(pile, isNull(markingTasks.doneAt), free))
    // Those that one has already come first.
    .orderBy(sql`case when ${mine} then 0 else 1 end`, asc(sittings.script))
    .limit(AHEAD)
    .all()
    .map((row) => row.task);
  const ids = next.map((task) => task.id);
  if (ids.length > 0)
    db.update(markingTasks)
      .set({ assessorId: staffId, claimedAt: now })
      .where(inArray(markingTasks.id, ids))
      .run();
  return next;
}

/** The part of a task as it was handed in, and what people decide of it. */
function partOf(
  services: Services,
  task: Task,
): { readonly part: ScriptPart; readonly components: readonly Component[] } {
  const sitting = findSitting(services.db, task.sittingId)!;
  const parts = scriptPartsOf(services, sitting, newestReceipt(services.db, sitting.id)!);
  const part = parts.find(({ target }) => target === task.target)!;
  const all = task.failure === null ? part.components : withoutMachine(part.components);
  return { part, components: byPeople(all) };
}

/** What the machine gave a part, so that people see it beside what they decide. */
const creditsOf = (db: Services['db'], { sittingId, target }: Task, { components }: ScriptPart): Credit[] =>
  standingMarks(db, sittingId)
    .filter((mark) => mark.target === target && mark.role === 'machine')
    .map(({ component, hundredths, verdict, reasons }) => ({
      component,
      hundredths,
      verdict: verdict ?? 'wrong',
      reasons,
      of: components.find((one) => one.key === component)?.of ?? 0,
    }));

/** The rough work of a sitting; null where nothing was put down. */
function roughWorkOf(db: Services['db'], sittingId: number): RoughWork | null {
  const { text = '', drawing = [] } = deskOf(sittingQueries(db).currentAbout(sittingId, 'rough-work'))
    .roughWork as Partial<RoughWork>;
  return text.trim() === '' && drawing.length === 0 ? null : { text, drawing };
}

function scriptOf(services: Services, task: Task): MarkingScript {
  const { part, components } = partOf(services, task);
  return {
    task: task.id,
    script: findSitting(services.db, task.sittingId)!.script,
    kind: part.part.kind,
    shown: part.shown,
    response: part.response,
    right:
      task.failure === null ? null : part.kind.rightResponse(part.part.content, part.arrangement, part.place),
    components,
    credits: creditsOf(services.db, task, part),
    roughWork: paperOfRound(services, task.roundId).paper.showRoughWork
      ? roughWorkOf(services.db, task.sittingId)
      : null,
  };
}

export function markingTable(
  services: Services,
  staffId: number,
  roundId: number,
  target: string,
): MarkingTableData {
  const { place, question, part } = placeOf(services, roundId, target);
  const pile = pilesOf(services, { round: roundId, target }, staffId)[0];
  if (!pile) throw notFound('nothingToMark');
  const scheme = keyKindOf(part.kind).markScheme(place.part.content) ?? emptyDocument;
  return {
    ...pile,
    prompt: part.prompt,
    source: question.source,
    scheme,
    scripts: claim(services, roundId, target, staffId).map((task) => scriptOf(services, task)),
  };
}

/** The sitting of a task whose pages somebody may look at; its address says nothing of the person. */
export function pagesOfTask(
  { db, sessions }: Services,
  staffId: number,
  taskId: number,
  hash: string,
): number {
  const task = db.select().from(markingTasks).where(eq(markingTasks.id, taskId)).get();
  if (!task || !sessions.hasRole(staffId, task.roundId, ['assessor', 'lead'])) throw notFound('noPage');
  const lead = sessions.hasRole(staffId, task.roundId, ['lead']);
  if (!lead && task.assessorId !== staffId) throw notFound('noPage');
  const named = filesOfPart(db, task.sittingId, task.target).some((file) => file.hash === hash);
  if (!named || pagesUnseen(db, task.sittingId, [{ hash }]).length > 0) throw notFound('noPage');
  return task.sittingId;
}

export interface NewMark {
  readonly given: MarksGiven;
  readonly comment: string;
}

/** Reads what an assessor gave: every component has to be decided, and by what it has. */
function readGiven(components: readonly Component[], given: MarksGiven) {
  let read;
  try {
    read = marksGiven(components, given);
  } catch (error) {
    throw badRequest('marksNotPossible', String(error));
  }
  if (read.missing.length > 0) throw badRequest('marksMissing', { missing: read.missing.map((c) => c.key) });
  return read.marks;
}

/** Keeps an assessor's marks, one a component. Marks that are signed off cannot be changed here. */
export function giveMark(
  services: Services,
  staffId: number,
  taskId: number,
  { given, comment }: NewMark,
): void {
  const { db, clock, sessions } = services;
  const mine = and(
    eq(markingTasks.id, taskId),
    or(eq(markingTasks.assessorId, staffId), isNull(markingTasks.assessorId)),
  );
  const task = db.select().from(markingTasks).where(mine).get();
  if (!task || !sessions.hasRole(staffId, task.roundId, ['assessor', 'lead'])) throw conflict('not-yours');
  if (findRound(db, task.roundId)!.signedOffAt !== null) throw conflict('signed-off');
  const { part, components } = partOf(services, task);
  const marks = readGiven(components, given);
  const { sittingId, target } = task;
  const [at, response] = [clock.now(), markedHash(db, sittingId, part)];
  db.transaction(() => {
    marks.forEach(({ component, hundredths, level }, i) => {
      const before = standingMark(db, sittingId, target, component);
      const cause = before !== null && before.response !== response ? 'response changed' : 'marking';
      const mark = { sittingId, target, component, response, staffId, hundredths, level, at, cause } as const;
      // One comment for the part: it stands with the first of its marks.
      const said = { comment: i === 0 ? comment : '', role: 'first', verdict: null, reasons: [] } as const;
      addMark(db, { ...mark, ...said }, before);
    });
    db.update(markingTasks).set({ doneAt: at, assessorId: staffId }).where(eq(markingTasks.id, taskId)).run();
  });
}

/** Freezes the marks of a round. Refused while anything is running, being scored or unmarked. */
export function signOff(services: Services, staffId: number, roundId: number): void {
  const { db, clock } = services;
  const state = signOffStates(services, [roundId])[0]!;
  const open = {
    openRunning: state.running,
    openDecisions: state.toDecide,
    openScoring: state.beingScored,
    openMarking: state.unmarked,
    openNothing: state.handedIn === 0 ? 1 : 0,
    // An answer that was accepted holds for all scripts: their marks are not frozen before it is so.
    openRescore: services.jobs.pending('rescore'),
  };
  const reasons = Object.entries(open).flatMap(([key, count]) =>
    count > 0 ? [message(`error.${key}`, { count })] : [],
  );
  if (reasons.length > 0) throw conflict('not-finished', { reasons });
  const change = db
    .update(rounds)
    .set({ signedOffAt: clock.now(), signedOffBy: staffId })
    .where(and(eq(rounds.id, roundId), isNull(rounds.signedOffAt)))
    .run();
  if (change.changes > 0) record(services, { staffId, act: 'signed-off', subject: `round ${roundId}` });
}
