import { and, asc, desc, eq, inArray, isNull, or } from 'drizzle-orm';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { responseOrEmpty } from '../../core/kinds/stored';
import { say } from '../../core/messages/words';
import {
  pathOf,
  timeSpent,
  type Explanation,
  type ReplayTarget,
  type ReviewEvent,
  type SittingReview,
  type VerdictOn,
  type WeighedObservation,
} from '../../core/observations/review';
import type { PlainText } from '../../core/kinds/contract';
import type { ShownPart } from '../../core/papers/candidatePaper';
import { MINUTE_MS } from '../../core/timing/deadline';
import { deadlineAt, usedMs, type TimeEvent } from '../../core/timing/sittingTime';
import { findInvited } from '../candidates/queries';
import type { Db } from '../db/open';
import {
  explanations,
  journal,
  messages,
  sittings,
  staff,
  timeEvents,
  verdicts,
  weighings,
} from '../db/schema';
import { formById } from '../forms/forms';
import { notFound } from '../http/errors';
import { brokenObservation, observationsOf } from '../observations/observations';
import type { Read, Reading } from '../reading/read';
import { sittingQueries, type Sitting } from '../sittings/queries';
import { TimeKeeper } from '../sittings/timeKeeper';
import { valueOf } from '../sittings/values';

export interface ReviewOf {
  readonly round: number;
  readonly invitation: number;
  /** Null: the newest one. */
  readonly attempt: number | null;
  readonly staffId: number;
}

const namesOf = (db: Db): ReadonlyMap<number, string> =>
  new Map(
    db
      .select({ id: staff.id, name: staff.name })
      .from(staff)
      .all()
      .map(({ id, name }) => [id, name]),
  );

/** The sitting of a candidate of a round that is reviewed; only a closed one. */
export function reviewedSitting(db: Db, { round, invitation, attempt }: Omit<ReviewOf, 'staffId'>): Sitting {
  const invited = findInvited(db, invitation);
  if (invited?.round.id !== round) throw notFound('noCandidate');
  const own = db
    .select()
    .from(sittings)
    .where(eq(sittings.invitationId, invitation))
    .orderBy(desc(sittings.attempt))
    .all()
    .filter((one) => one.closedAt !== null);
  const found = attempt === null ? own[0] : own.find((one) => one.attempt === attempt);
  if (!found) throw notFound('noScript');
  return found;
}

/** Pauses, breaks, grants and readmissions as stretches of time. */
function timeEventsOf(db: Db, sitting: number): ReviewEvent[] {
  const rows = db
    .select()
    .from(timeEvents)
    .where(eq(timeEvents.sittingId, sitting))
    .orderBy(asc(timeEvents.id))
    .all();
  const until = (i: number, type: TimeEvent['type']) =>
    rows.slice(i + 1).find(({ event }) => event.type === type)?.at ?? rows[i]!.at;
  return rows.flatMap(({ event, at, reason }, i): ReviewEvent[] => {
    const plain = { from: at, to: at, text: reason, minutes: null };
    if (event.type === 'paused') return [{ ...plain, kind: 'pause', to: until(i, 'went on') }];
    if (event.type === 'break began') return [{ ...plain, kind: 'break', to: until(i, 'break ended') }];
    if (event.type === 'granted') return [{ ...plain, kind: 'grant', minutes: event.ms / MINUTE_MS }];
    if (event.type === 'readmitted') return [{ ...plain, kind: 'readmitted', minutes: event.ms / MINUTE_MS }];
    return [];
  });
}

function observed(db: Db, sitting: number, names: ReadonlyMap<number, string>): WeighedObservation[] {
  const rows = observationsOf(db, sitting);
  const ids = rows.map(({ id }) => id);
  const weighed = ids.length
    ? db
        .select()
        .from(weighings)
        .where(inArray(weighings.observationId, ids))
        .orderBy(asc(weighings.id))
        .all()
    : [];
  return rows.map(({ id, kind, from, to, facts }) => {
    const last = weighed.filter((one) => one.observationId === id).at(-1);
    const by = last ? (names.get(last.staffId) ?? null) : null;
    return { id, kind, from, to, facts, weight: last?.weight ?? null, reason: last?.reason ?? '', by };
  });
}

export const explanationsOf = (db: Db, sitting: number): Explanation[] =>
  db
    .select()
    .from(explanations)
    .where(eq(explanations.sittingId, sitting))
    .orderBy(asc(explanations.id))
    .all()
    .map(({ id, observationId, question, askedAt, answer, answeredAt }) => ({
      id,
      observation: observationId,
      question,
      askedAt,
      answer,
      answeredAt,
    }));

function verdictOf(
  db: Db,
  sitting: number,
  staffId: number,
  names: ReadonlyMap<number, string>,
): VerdictOn | null {
  const row = db
    .select()
    .from(verdicts)
    .where(and(eq(verdicts.sittingId, sitting), isNull(verdicts.endedAt)))
    .orderBy(desc(verdicts.id))
    .limit(1)
    .get();
  if (!row) return null;
  return {
    id: row.id,
    verdict: row.verdict,
    reason: row.reason,
    by: names.get(row.staffId) ?? '',
    at: row.at,
    agreedBy: row.agreedBy === null ? null : (names.get(row.agreedBy) ?? ''),
    mayAgree: row.verdict === 'void' && row.agreedAt === null && row.staffId !== staffId,
  };
}

function review({ db }: Reading, of: ReviewOf): SittingReview {
  const sitting = reviewedSitting(db, of);
  const { round, person, invitation } = findInvited(db, of.invitation)!;
  const { questions } = formById(db, sitting.formId).paper;
  const questionOf = (target: string) =>
    questions.find((q) => q.item === target || q.parts.some((part) => part.target === target));
  const [startedAt, closedAt] = [sitting.startedAt!, sitting.closedAt!];
  // A claim of the device about time is never later than its arrival.
  const rows = db
    .select()
    .from(journal)
    .where(and(eq(journal.sittingId, sitting.id), inArray(journal.about, ['place', 'opened', 'answer'])))
    .orderBy(asc(journal.arrival))
    .all()
    .map((row) => ({ ...row, at: Math.min(row.claimedAt, row.arrivedAt) }));
  const seen = rows.flatMap(({ target, at }) => {
    const question = questionOf(target);
    return question ? [{ at, number: question.number, title: question.title }] : [];
  });
  const path = pathOf(seen, { from: startedAt, to: closedAt });
  const said = db
    .select()
    .from(messages)
    .where(
      and(
        eq(messages.roundId, round.id),
        or(eq(messages.invitationId, invitation.id), isNull(messages.invitationId)),
      ),
    )
    .orderBy(asc(messages.id))
    .all()
    .filter(({ at }) => at >= startedAt - 30 * MINUTE_MS && at <= closedAt + 30 * MINUTE_MS)
    .map(({ at, text }): ReviewEvent => ({ kind: 'message', from: at, to: at, text, minutes: null }));
  const answered = questions.flatMap((question) =>
    question.parts.flatMap(({ target }): ReplayTarget[] => {
      const times = rows.filter(
        (row) => row.about === 'answer' && row.target === target && row.aside === null,
      );
      return times.length === 0
        ? []
        : [{ target, number: question.number, title: question.title, times: times.map(({ at }) => at) }];
    }),
  );
  const names = namesOf(db);
  const time = new TimeKeeper(db).of(sitting.id);
  const attempts = db
    .select({ attempt: sittings.attempt, sitting: sittings.id })
    .from(sittings)
    .where(eq(sittings.invitationId, invitation.id))
    .orderBy(asc(sittings.attempt))
    .all();
  return {
    sitting: sitting.id,
    invitation: invitation.id,
    attempt: sitting.attempt,
    attempts,
    name: person.name,
    reference: person.reference,
    script: sitting.script,
    startedAt,
    closedAt,
    usedMs: usedMs(time, closedAt),
    allowedMs: (sitting.deadlineAt ?? deadlineAt(time, closedAt) ?? closedAt) - startedAt,
    timeZone: round.timeZone,
    path,
    spent: timeSpent(path),
    events: [...timeEventsOf(db, sitting.id), ...said].sort((a, b) => a.from - b.from),
    observations: observed(db, sitting.id, names),
    broken: brokenObservation(db, sitting.id),
    explanations: explanationsOf(db, sitting.id),
    verdict: verdictOf(db, sitting.id, of.staffId, names),
    replay: answered,
  };
}

/** A sitting on one line of time. */
export const reviewRead: Read<ReviewOf, SittingReview> = { name: 'review', run: review };

/** A part of the form of a sitting, as the candidate saw it. */
export function partOfForm(db: Db, { formId }: Sitting, target: string): ShownPart {
  const part = formById(db, formId)
    .paper.questions.flatMap((question) => question.parts)
    .find((one) => one.target === target);
  if (!part) throw notFound('noQuestion');
  return part;
}

interface ReplayOf extends Omit<ReviewOf, 'staffId'> {
  readonly target: string;
  readonly at: number;
}

/** An answer as it stood at a time: what the journal held of it then. */
export const replayRead: Read<ReplayOf, PlainText> = {
  name: 'replay',
  run: ({ db }, of) => {
    const sitting = reviewedSitting(db, of);
    const part = partOfForm(db, sitting, of.target);
    const rows = db
      .select()
      .from(journal)
      .where(
        and(eq(journal.sittingId, sitting.id), eq(journal.about, 'answer'), eq(journal.target, of.target)),
      )
      .orderBy(asc(journal.hold), asc(journal.number))
      .all()
      .filter((row) => row.aside === null && Math.min(row.claimedAt, row.arrivedAt) <= of.at);
    const last = rows.at(-1);
    const value = last && valueOf(sittingQueries(db), sitting.id, { hold: last.hold, number: last.number });
    const kind = candidateKindOf(part.kind);
    const stored: unknown = value ? JSON.parse(value.text) : undefined;
    return kind.describe(part.shown, responseOrEmpty(part.kind, part.shown, stored), say);
  },
};
