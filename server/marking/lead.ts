import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import type { GapData, ItemSettings, LeadScript, Settlement } from '../../core/marking/api';
import type { StandardUse } from '../../core/marking/mark';
import type { MarksGiven } from '../../core/marking/marksGiven';
import { showMarks } from '../../core/marks';
import { record } from '../audit/record';
import { tellCandidateOf } from '../candidates/tellCandidates';
import type { Db } from '../db/open';
import {
  clarificationReads,
  clarifications,
  gaps,
  judgements,
  markingHolds,
  markingTasks,
  phrases,
  setAsides,
  staff,
  standards,
} from '../db/schema';
import { badRequest, conflict, notFound } from '../http/errors';
import { allocateAgain, allocateRound } from './allocation';
import { readGiven } from './give';
import { changeMarking, itemOf, markingOf, type ItemRef } from './items';
import {
  addJudgement,
  addMarksOf,
  compareMarks,
  findJudgement,
  meanMarks,
  totalOfJudgement,
  type Judgement,
} from './judgements';
import { partOf, sittingOfScript, type Task } from './scripts';
import { markedHash } from './scoreJob';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasSessions } from '../http/sessions';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasCommits, HasSecret {}

/** Refused once the marks of an item are signed off. */
function openItem(db: Db, ref: ItemRef) {
  const item = itemOf(db, ref);
  const marking = markingOf(db, ref, item.judged);
  if (item.round.signedOffAt !== null || marking.signedOffAt !== null) throw conflict('signed-off');
  return { item, marking };
}

const tasksOf = (db: Db, { round, target }: ItemRef, sittingId: number): Task[] =>
  db
    .select()
    .from(markingTasks)
    .where(
      and(
        eq(markingTasks.roundId, round),
        eq(markingTasks.target, target),
        eq(markingTasks.sittingId, sittingId),
      ),
    )
    .all();

function leadScript(services: HasDb, ref: ItemRef, task: Task, sides: readonly Judgement[]): LeadScript {
  const { db } = services;
  const { question, part: asked, scheme, modelAnswer, judged } = itemOf(db, ref);
  const { sitting, part, components } = partOf(services, task);
  return {
    script: sitting.script,
    kind: part.part.kind,
    shown: part.shown,
    response: part.response,
    prompt: asked.prompt,
    source: question.source,
    scheme,
    modelAnswer,
    components,
    marks: judged,
    tolerance: markingOf(db, ref, judged).tolerance,
    sides: sides.map(({ given, comment, notes }) => ({ given, comment, notes })),
    task: task.id,
  };
}

const openGaps = (db: Db, { round, target }: ItemRef) =>
  db
    .select()
    .from(gaps)
    .where(and(eq(gaps.roundId, round), eq(gaps.target, target), isNull(gaps.closedAt)))
    .orderBy(asc(gaps.id))
    .all();

function findGap(db: Db, round: number, id: number) {
  const gap = db
    .select()
    .from(gaps)
    .where(and(eq(gaps.id, id), eq(gaps.roundId, round)))
    .get();
  if (!gap) throw notFound('noGap');
  return gap;
}

/** A gap with both marks and both sets of notes. */
export function gapData(services: HasDb, round: number, id: number): GapData {
  const { db } = services;
  const gap = findGap(db, round, id);
  const ref = { round, target: gap.target };
  const open = openGaps(db, ref);
  const at = open.findIndex((one) => one.id === id);
  const sides = [findJudgement(db, gap.first), findJudgement(db, gap.second)];
  const task = tasksOf(db, ref, gap.sittingId).find((one) => one.role === 'first')!;
  const next = open[at + 1] ?? open.find((one) => one.id !== id);
  return {
    ...leadScript(services, ref, task, sides),
    id,
    round,
    target: gap.target,
    title: itemOf(db, ref).question.title,
    place: at + 1,
    of: open.length,
    next: next?.id ?? null,
  };
}

/** Settles a gap with a reason: as one of both marks, their mean, or criterion by criterion. */
export function settleGap(
  services: HasClock & HasDb & HasHub,
  staffId: number,
  { round, id }: { readonly round: number; readonly id: number },
  { given, comment, reason }: Settlement,
): void {
  const { db, clock } = services;
  const gap = findGap(db, round, id);
  openItem(db, { round, target: gap.target });
  if (gap.closedAt !== null) throw conflict('settled-already');
  const task = tasksOf(db, { round, target: gap.target }, gap.sittingId).find((one) => one.role === 'first')!;
  const { part, components } = partOf(services, task);
  const sides = [findJudgement(db, gap.first), findJudgement(db, gap.second)] as const;
  const marks =
    given === 'first'
      ? sides[0].given
      : given === 'second'
        ? sides[1].given
        : given === 'mean'
          ? meanMarks(components, sides)
          : readGiven(components, given);
  const at = clock.now();
  db.transaction(() => {
    const settlement = addJudgement(db, {
      sittingId: gap.sittingId,
      target: gap.target,
      role: 'settlement',
      staffId,
      given: marks,
      comment,
      notes: [],
      reason,
      response: markedHash(db, gap.sittingId, part),
      at,
    });
    addMarksOf(db, settlement, 'settlement');
    db.update(gaps).set({ closedAt: at, settlement: settlement.id }).where(eq(gaps.id, id)).run();
    record(services, { staffId, act: 'settled-gap', subject: `round ${round}, ${gap.target}`, reason });
  });
  tellCandidateOf(services, gap.sittingId);
}

/** Says how an item is marked; what its share of double marking asks for is shared out at once. */
export async function changeSettings(
  services: Needs,
  staffId: number,
  ref: ItemRef,
  settings: ItemSettings,
): Promise<void> {
  const { db, clock } = services;
  const { item } = openItem(db, ref);
  if (settings.tolerance > item.judged) throw badRequest('marksNotPossible', 'tolerance');
  db.transaction(() => {
    changeMarking(db, ref, { marks: item.judged, ...settings });
    const { doublePercent, tolerance, standardEvery } = settings;
    const told = `double ${doublePercent} %, tolerance ${tolerance}, one in ${standardEvery}`;
    record(services, {
      staffId,
      act: 'changed-marking',
      subject: `round ${ref.round}, ${ref.target}`,
      reason: told,
    });
    // Another tolerance opens gaps, and closes others.
    const at = clock.now();
    const both = db
      .select()
      .from(markingTasks)
      .where(
        and(
          eq(markingTasks.roundId, ref.round),
          eq(markingTasks.target, ref.target),
          eq(markingTasks.role, 'second'),
        ),
      )
      .all();
    const open = openGaps(db, ref);
    if (open.length > 0)
      db.update(gaps)
        .set({ closedAt: at })
        .where(
          inArray(
            gaps.id,
            open.map((gap) => gap.id),
          ),
        )
        .run();
    for (const task of both.filter((one) => one.doneAt !== null)) {
      const { components } = partOf(services, task);
      const of = { roundId: ref.round, sittingId: task.sittingId, target: ref.target };
      compareMarks(db, { ...of, components, tolerance: settings.tolerance, at });
    }
  });
  await allocateAgain(services, ref, []);
}

/** Holds an assessor's marking of an item, or of a whole round while they are absent; what they had goes to others. */
export async function holdMarking(
  services: Needs,
  staffId: number,
  { round, target }: ItemRef,
  { assessor, held, reason }: { readonly assessor: number; readonly held: boolean; readonly reason: string },
): Promise<void> {
  const { db, clock } = services;
  if (target !== '') openItem(db, { round, target });
  const own = and(
    eq(markingHolds.roundId, round),
    eq(markingHolds.target, target),
    eq(markingHolds.staffId, assessor),
    isNull(markingHolds.endedAt),
  );
  const before = db.select().from(markingHolds).where(own).get();
  if (held === (before !== undefined)) return;
  const subject = `round ${round}${target && `, ${target}`}, assessor ${assessor}`;
  db.transaction(() => {
    if (held)
      db.insert(markingHolds)
        .values({ roundId: round, target, staffId: assessor, reason, at: clock.now() })
        .run();
    else db.update(markingHolds).set({ endedAt: clock.now() }).where(own).run();
    record(services, { staffId, act: held ? 'held-marking' : 'ended-hold', subject, reason });
  });
  const again = held ? [assessor] : [];
  if (target === '') await allocateRound(services, round, again);
  else await allocateAgain(services, { round, target }, again);
}

/** Answers what an assessor asked about a script: it is in their queue again, with the answer. */
export function answerAside(
  services: HasClock & HasDb,
  staffId: number,
  { round, id, answer }: { readonly round: number; readonly id: number; readonly answer: string },
): void {
  const { db, clock } = services;
  const found = db
    .select({ aside: setAsides, task: markingTasks })
    .from(setAsides)
    .innerJoin(markingTasks, eq(markingTasks.id, setAsides.taskId))
    .where(and(eq(setAsides.id, id), eq(markingTasks.roundId, round)))
    .get();
  if (!found) throw notFound('noAside');
  if (found.aside.answeredAt !== null) throw conflict('answered-already');
  const answered = { answer, answeredBy: staffId, answeredAt: clock.now() };
  db.update(setAsides).set(answered).where(eq(setAsides.id, id)).run();
}

/** Adds to the mark scheme of an item: everybody on it is shown it at the next response. */
export function clarify(services: HasClock & HasDb, staffId: number, ref: ItemRef, text: string): void {
  const { db, clock } = services;
  openItem(db, ref);
  db.insert(clarifications)
    .values({ roundId: ref.round, target: ref.target, staffId, text, at: clock.now() })
    .run();
}

export function readClarification(
  { db, clock, sessions }: HasClock & HasDb & HasSessions,
  staffId: number,
  id: number,
): void {
  const found = db.select().from(clarifications).where(eq(clarifications.id, id)).get();
  if (!found || !sessions.hasRole(staffId, found.roundId, ['assessor', 'lead']))
    throw notFound('noClarification');
  db.insert(clarificationReads)
    .values({ clarificationId: id, staffId, at: clock.now() })
    .onConflictDoNothing()
    .run();
}

/** A script whose agreed marks are to be recorded. */
export function scriptForStandard(services: HasDb, ref: ItemRef, code: string): LeadScript {
  const sitting = sittingOfScript(services.db, ref.round, code);
  const task = tasksOf(services.db, ref, sitting.id).find((one) => one.role === 'first');
  if (!task) throw notFound('noScript');
  return leadScript(services, ref, task, []);
}

export interface NewStandard {
  readonly script: string;
  readonly use: StandardUse;
  readonly given: MarksGiven;
  readonly comment: string;
  readonly reason: string;
}

/**
 * Records agreed marks with their reasons. They are the script's marks from then on: what nobody has given of it yet, nobody
 * has to give for the result.
 */
export async function addStandard(
  services: Needs,
  staffId: number,
  ref: ItemRef,
  { script, use, given, comment, reason }: NewStandard,
): Promise<void> {
  const { db, clock } = services;
  openItem(db, ref);
  const sitting = sittingOfScript(db, ref.round, script);
  const own = and(
    eq(standards.roundId, ref.round),
    eq(standards.target, ref.target),
    eq(standards.sittingId, sitting.id),
  );
  const before = db
    .select({ given: judgements.given, name: staff.name })
    .from(standards)
    .innerJoin(judgements, eq(judgements.id, standards.judgementId))
    .innerJoin(staff, eq(staff.id, judgements.staffId))
    .where(own)
    .get();
  if (before) {
    const values = { name: before.name, marks: showMarks(totalOfJudgement(before)) };
    throw conflict('standard-already', { values });
  }
  const tasks = tasksOf(db, ref, sitting.id);
  const task = tasks.find((one) => one.role === 'first');
  if (!task) throw notFound('noScript');
  const { part, components } = partOf(services, task);
  const marks = readGiven(components, given);
  db.transaction(() => {
    const judgement = addJudgement(db, {
      sittingId: sitting.id,
      target: ref.target,
      role: 'agreed',
      staffId,
      given: marks,
      comment,
      notes: [],
      reason,
      response: markedHash(db, sitting.id, part),
      at: clock.now(),
    });
    addMarksOf(db, judgement, 'settlement');
    const values = { roundId: ref.round, target: ref.target, sittingId: sitting.id, use };
    db.insert(standards)
      .values({ ...values, judgementId: judgement.id, at: clock.now() })
      .run();
    for (const one of tasks.filter(({ doneAt }) => doneAt === null)) {
      db.delete(setAsides).where(eq(setAsides.taskId, one.id)).run();
      db.delete(markingTasks).where(eq(markingTasks.id, one.id)).run();
    }
    const gap = and(eq(gaps.sittingId, sitting.id), eq(gaps.target, ref.target), isNull(gaps.closedAt));
    db.update(gaps).set({ closedAt: clock.now(), settlement: judgement.id }).where(gap).run();
    record(services, { staffId, act: 'agreed-marks', subject: `round ${ref.round}, ${ref.target}`, reason });
  });
  await allocateAgain(services, ref, []);
}

export function addPhrase(
  { db }: HasDb,
  staffId: number,
  { round, text, shared }: { readonly round: number; readonly text: string; readonly shared: boolean },
): void {
  db.insert(phrases).values({ staffId, roundId: round, text, shared }).run();
}

/** Takes one's own phrase away. */
export function removePhrase({ db }: HasDb, staffId: number, id: number): void {
  db.delete(phrases)
    .where(and(eq(phrases.id, id), eq(phrases.staffId, staffId)))
    .run();
}
