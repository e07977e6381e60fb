import { and, asc, desc, eq, inArray, isNotNull, isNull, notExists, or } from 'drizzle-orm';
import type {
  Aside,
  Clarification,
  MarkedScript,
  MarkingScript,
  MarkingTableData,
  Phrase,
} from '../../core/marking/api';
import { krippendorffAlpha } from '../../core/marking/alpha';
import { roundEstimate } from '../../core/measures/estimate';
import type { Db } from '../db/open';
import {
  clarificationReads,
  clarifications,
  judgements,
  markingTasks,
  phrases,
  setAsides,
  sittings,
} from '../db/schema';
import { notFound } from '../http/errors';
import { openHold } from './allocation';
import { itemOf, markingOf, type Item, type ItemRef } from './items';
import { totalOfJudgement } from './judgements';
import { markedTwice, pilesOf } from './reads';
import { toldTo } from './standardTold';
import type { HasClock } from '../machine/clock';
import { creditsOf, partOf, roughWorkOf, sittingOfPage, taskFor, type Task } from './scripts';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';

/** Scripts sent to an assessor at a time: the one in view and the next, already loaded. */
const AHEAD = 3;

const ofAssessor = ({ round, target }: ItemRef, staffId: number) =>
  and(eq(markingTasks.roundId, round), eq(markingTasks.target, target), eq(markingTasks.assessorId, staffId));

/** What an assessor asked of a task last: open while it waits for the lead. */
export function asideOf(db: Db, taskId: number): (Aside & { readonly open: boolean }) | null {
  const row = db
    .select()
    .from(setAsides)
    .where(eq(setAsides.taskId, taskId))
    .orderBy(desc(setAsides.id))
    .limit(1)
    .get();
  if (!row || (row.answer === null && row.answeredAt !== null)) return null;
  const { id, reason, note, answer } = row;
  return { id, reason, note, answer, open: row.answeredAt === null };
}

/** The next scripts of an assessor: the practice set first, then in an order of chance; not what is with the lead. */
function queueOf(db: Db, ref: ItemRef, staffId: number): Task[] {
  const withLead = db
    .select({ id: setAsides.id })
    .from(setAsides)
    .where(and(eq(setAsides.taskId, markingTasks.id), isNull(setAsides.answeredAt)));
  const taken = (task: Task) => (task.draft !== null ? 0 : 1);
  return db
    .select()
    .from(markingTasks)
    .where(and(ofAssessor(ref, staffId), isNull(markingTasks.doneAt), notExists(withLead)))
    .orderBy(asc(markingTasks.position))
    .limit(AHEAD)
    .all()
    .sort((a, b) => taken(a) - taken(b));
}

function scriptOf(services: HasDb, task: Task, { paper }: Item): MarkingScript {
  const { db } = services;
  const { sitting, part, components } = partOf(services, task);
  const aside = asideOf(db, task.id);
  return {
    task: task.id,
    script: sitting.script,
    kind: part.part.kind,
    shown: part.shown,
    response: part.response,
    right:
      task.failure === null && task.undecided.length === 0
        ? null
        : part.kind.rightResponse(part.part.content, part.arrangement, part.place),
    components,
    credits: creditsOf(db, sitting.id, part),
    roughWork: paper.showRoughWork ? roughWorkOf(db, sitting.id) : null,
    draft: task.draft,
    seen: task.judgementId,
    takenBack: task.doneAt === null && task.judgementId !== null,
    aside: aside && { id: aside.id, reason: aside.reason, note: aside.note, answer: aside.answer },
    practice: task.role === 'practice',
  };
}

const markedIn = (db: Db, ref: ItemRef, staffId: number) =>
  db
    .select({ task: markingTasks.id, script: sittings.script, judgement: judgements })
    .from(markingTasks)
    .innerJoin(judgements, eq(judgements.id, markingTasks.judgementId))
    .innerJoin(sittings, eq(sittings.id, markingTasks.sittingId))
    .where(
      and(
        ofAssessor(ref, staffId),
        isNotNull(markingTasks.doneAt),
        // Scripts with agreed marks are not told apart here; those of practice are no marks.
        inArray(markingTasks.role, ['first', 'second', 'standard']),
      ),
    )
    .orderBy(desc(judgements.id));

const markedRow = ({
  task,
  script,
  judgement,
}: ReturnType<ReturnType<typeof markedIn>['all']>[number]): MarkedScript => ({
  task,
  script,
  total: totalOfJudgement(judgement),
  at: judgement.at,
  words: [judgement.comment, ...judgement.notes.map(({ text }) => text)].filter(Boolean).join(' · '),
});

/** All scripts of an item that an assessor has marked, the newest first. */
export const markedBy = ({ db }: HasDb, ref: ItemRef, staffId: number): MarkedScript[] =>
  markedIn(db, ref, staffId).all().map(markedRow);

function clarificationsFor(db: Db, { round, target }: ItemRef, staffId: number): Clarification[] {
  const read = new Set(
    db
      .select({ id: clarificationReads.clarificationId })
      .from(clarificationReads)
      .where(eq(clarificationReads.staffId, staffId))
      .all()
      .map(({ id }) => id),
  );
  const times = db
    .select({ at: markingTasks.doneAt })
    .from(markingTasks)
    .where(and(ofAssessor({ round, target }, staffId), isNotNull(markingTasks.doneAt)))
    .all();
  return db
    .select()
    .from(clarifications)
    .where(and(eq(clarifications.roundId, round), eq(clarifications.target, target)))
    .orderBy(asc(clarifications.id))
    .all()
    .map(({ id, text, at }) => ({
      id,
      text,
      at,
      isNew: !read.has(id),
      touches: times.filter((one) => one.at! < at).length,
    }));
}

/** One's own phrases, of whatever round, and those that others share in this one. */
export const phrasesFor = (db: Db, staffId: number, round: number): Phrase[] =>
  db
    .select()
    .from(phrases)
    .where(or(eq(phrases.staffId, staffId), and(eq(phrases.shared, true), eq(phrases.roundId, round))))
    .orderBy(asc(phrases.text))
    .all()
    .map(({ id, text, shared, staffId: by }) => ({ id, text, shared, own: by === staffId }));

/**
 * How far two marks agree, for an assessor: of the responses that are closed to them. Until the sign-off one's own marks
 * can be changed, and a figure that moves with them would give away the other's.
 */
function agreementFor(db: Db, ref: ItemRef, { staffId, isFinal }: { staffId: number; isFinal: boolean }) {
  const closed = markedTwice(db, ref).filter(({ assessors }) => isFinal || !assessors.includes(staffId));
  return roundEstimate(
    krippendorffAlpha(
      'interval',
      closed.map(({ pair }) => pair),
      0,
    ),
  );
}

export function markingTable(services: HasClock & HasDb, staffId: number, ref: ItemRef): MarkingTableData {
  const { db } = services;
  const item = itemOf(db, ref);
  const pile = pilesOf(services, { ...ref }, staffId)[0];
  if (!pile) throw notFound('nothingToMark');
  const held = openHold(db, ref, staffId);
  const isFinal = (item.round.signedOffAt ?? markingOf(db, ref, item.judged).signedOffAt) !== null;
  return {
    ...pile,
    prompt: item.part.prompt,
    source: item.question.source,
    scheme: item.scheme,
    modelAnswer: item.modelAnswer,
    agreement: agreementFor(db, ref, { staffId, isFinal }),
    clarifications: clarificationsFor(db, ref, staffId),
    phrases: phrasesFor(db, staffId, ref.round),
    held: held?.reason ?? null,
    scripts: held ? [] : queueOf(db, ref, staffId).map((task) => scriptOf(services, task, item)),
    last: markedIn(db, ref, staffId).limit(1).all().map(markedRow)[0] ?? null,
    told: toldTo(services, staffId, ref),
  };
}

/** The sitting of a task whose pages somebody may look at. */
export function pagesOfTask(
  services: HasDb & HasSessions,
  staffId: number,
  taskId: number,
  hash: string,
): number {
  const task = taskFor(services, staffId, taskId);
  if (!task) throw notFound('noPage');
  return sittingOfPage(services.db, task, hash);
}
