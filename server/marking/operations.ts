import { emptyDocument } from '../../core/documents/document';
import { message } from '../../core/messages/message';
import { and, asc, eq, inArray, isNull, or } from 'drizzle-orm';
import { plainForm } from '../../core/forms/drawForm';
import type { Component, Credit } from '../../core/kinds/contract';
import { keyKindOf } from '../../core/kinds/keyKinds';
import type { MarkingBench, MarkingPile, MarkingScript, SignOffState } from '../../core/marking/api';
import { marksGiven, type MarksGiven } from '../../core/marking/marksGiven';
import type { Question, ShownPart } from '../../core/papers/candidatePaper';
import { sumMarks } from '../../core/marks';
import { allParts, type PartInPlace } from '../../core/papers/paper';
import { byPeople, componentsOf, withoutMachine } from '../../core/scoring/components';
import type { ScriptPart } from '../../core/scoring/script';
import { markingTasks, rounds, roundStaff } from '../db/schema';
import { badRequest, conflict, notFound } from '../http/errors';
import { openSittings } from '../rounds/operations';
import { record } from '../audit/record';
import { isReadable, paperOfVersion } from '../papers/papers';
import { countOpenDecisions } from '../rounds/decisions';
import { findRound, listRounds } from '../rounds/queries';
import type { Services } from '../services';
import { findSitting } from '../sittings/queries';
import { newestReceipt } from '../sittings/receipts';
import { addMark, standingMark, standingMarks } from './marks';
import { responseHash, scriptPartsOf } from './scoreJob';

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
  const question = plainForm(paper).paper.questions.find((q) => q.parts.some((p) => p.target === target));
  if (!place || !question) throw notFound('noQuestion');
  return { place, question, part: question.parts.find((p) => p.target === target)! };
}

function pileOf(services: Services, tasks: readonly Task[], staffId: number): MarkingPile {
  const { roundId, target } = tasks[0]!;
  const { question, part } = placeOf(services, roundId, target);
  return {
    round: roundId,
    roundTitle: paperOfRound(services, roundId).round.title,
    target,
    itemNumber: question.number,
    title: question.title,
    marks: part.marks,
    byYou: tasks.filter((t) => t.doneAt !== null && t.assessorId === staffId).length,
    left: tasks.filter((t) => t.doneAt === null).length,
  };
}

export function listPiles(services: Services, staffId: number): MarkingPile[] {
  const piles = groupByPile(openTasks(services, staffId));
  return [...piles.values()]
    .map((tasks) => pileOf(services, tasks, staffId))
    .sort((a, b) => a.itemNumber - b.itemNumber);
}

function groupByPile(tasks: Task[]): Map<string, Task[]> {
  const groups = new Map<string, Task[]>();
  for (const task of tasks) {
    const key = `${task.roundId} ${task.target}`;
    groups.set(key, [...(groups.get(key) ?? []), task]);
  }
  return groups;
}

/** Open tasks in the rounds in which somebody marks. */
const openTasks = ({ db }: Services, staffId: number): Task[] =>
  db
    .select({ task: markingTasks })
    .from(markingTasks)
    .innerJoin(rounds, eq(rounds.id, markingTasks.roundId))
    .where(
      and(
        isNull(rounds.signedOffAt),
        inArray(
          rounds.id,
          db
            .select({ id: roundStaff.roundId })
            .from(roundStaff)
            .where(and(eq(roundStaff.staffId, staffId), inArray(roundStaff.role, ['assessor', 'lead']))),
        ),
      ),
    )
    .orderBy(asc(markingTasks.id))
    .all()
    .map((row) => row.task);

/** Takes the next scripts for an assessor, in the order of their codes, which is no order of persons or times. */
function claim(services: Services, tasks: readonly Task[], staffId: number): Task[] {
  const { db, clock } = services;
  const stale = clock.now() - CLAIM_MS;
  const free = (t: Task) => t.assessorId === null || t.assessorId === staffId || (t.claimedAt ?? 0) < stale;
  const script = (t: Task) => findSitting(db, t.sittingId)!.script;
  const own = tasks
    .filter((t) => t.doneAt === null && free(t))
    .sort((a, b) => (script(a) < script(b) ? -1 : 1));
  const mine = own.filter((t) => t.assessorId === staffId);
  const next = [...mine, ...own.filter((t) => t.assessorId !== staffId)].slice(0, AHEAD);
  for (const task of next)
    db.update(markingTasks)
      .set({ assessorId: staffId, claimedAt: clock.now() })
      .where(eq(markingTasks.id, task.id))
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
      ...{ component, hundredths, verdict: verdict ?? 'wrong', reasons },
      of: components.find((one) => one.key === component)?.of ?? 0,
    }));

function scriptOf(services: Services, task: Task): MarkingScript {
  const { part, components } = partOf(services, task);
  return {
    ...{ task: task.id, script: findSitting(services.db, task.sittingId)!.script, kind: part.part.kind },
    ...{ shown: part.shown, response: part.response, components },
    credits: creditsOf(services.db, task, part),
  };
}

export function bench(services: Services, staffId: number, roundId: number, target: string): MarkingBench {
  const { db } = services;
  const { place, question, part } = placeOf(services, roundId, target);
  const mine = and(eq(markingTasks.roundId, roundId), eq(markingTasks.target, target));
  const tasks = db.select().from(markingTasks).where(mine).orderBy(asc(markingTasks.id)).all();
  if (tasks.length === 0) throw notFound('nothingToMark');
  return {
    ...pileOf(services, tasks, staffId),
    ...{ prompt: part.prompt, source: question.source },
    scheme: keyKindOf(part.kind).markScheme(place.part.content) ?? emptyDocument,
    scripts: claim(services, tasks, staffId).map((task) => scriptOf(services, task)),
  };
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
  const { db, clock } = services;
  const mine = and(
    eq(markingTasks.id, taskId),
    or(eq(markingTasks.assessorId, staffId), isNull(markingTasks.assessorId)),
  );
  const task = db.select().from(markingTasks).where(mine).get();
  if (!task) throw conflict('not-yours');
  if (findRound(db, task.roundId)!.signedOffAt !== null) throw conflict('signed-off');
  const { part, components } = partOf(services, task);
  const marks = readGiven(components, given);
  const { sittingId, target } = task;
  const [at, response] = [clock.now(), responseHash(part.response)];
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

export function signOffState(services: Services, roundId: number): SignOffState {
  const { db } = services;
  const { round, paper } = paperOfRound(services, roundId);
  const own = openSittings(services, roundId);
  const tasks = db.select().from(markingTasks).where(eq(markingTasks.roundId, roundId)).all();
  const standing = own.map((s) => standingMarks(db, s.id).filter((m) => m.staffId !== null));
  const components = componentsOf(paper);
  const piles = plainForm(paper)
    .paper.questions.flatMap((q) => q.parts.map((part) => ({ q, part })))
    .filter(
      ({ part: { target } }) =>
        byPeople(components.get(target)!).length > 0 || tasks.some((task) => task.target === target),
    )
    .map(({ q, part }) => {
      const all = tasks.filter((t) => t.target === part.target);
      const given = standing
        .map((marks) => marks.filter((m) => m.target === part.target).map((m) => m.hundredths))
        .filter((marks) => marks.length > 0)
        .map(sumMarks);
      const mean = given.length ? given.reduce((a, b) => a + b, 0) / given.length : null;
      const marked = all.filter((t) => t.doneAt !== null).length;
      return {
        title: q.title,
        itemNumber: q.number,
        marked,
        left: all.length - marked,
        mean,
        marks: part.marks,
      };
    });
  return {
    round: roundId,
    title: round.title,
    handedIn: own.filter((s) => s.closedAt !== null).length,
    running: own.filter((s) => s.startedAt !== null && s.closedAt === null).length,
    beingScored: own.filter((s) => s.closedAt !== null && s.scoredAt === null).length,
    toDecide: countOpenDecisions(services, roundId),
    unmarked: tasks.filter((t) => t.doneAt === null).length,
    signedOffAt: round.signedOffAt,
    releasedAt: round.releasedAt,
    piles,
  };
}

export const signOffStates = (services: Services, staffId: number): SignOffState[] =>
  listRounds(services.db, services.clock.now(), { staffId, roles: ['lead'] })
    // A round whose paper cannot be read says so on its own page; it keeps no other from being signed off.
    .filter((round) => isReadable(services.db, round.paper))
    .map((round) => signOffState(services, round.id));

/** Freezes the marks of a round. Refused while anything is running, being scored or unmarked. */
export function signOff(services: Services, staffId: number, roundId: number): void {
  const { db, clock } = services;
  const state = signOffState(services, roundId);
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
