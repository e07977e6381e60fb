import { and, asc, count, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { wholeForm } from '../../core/forms/drawForm';
import type { MarkingPile, SignOffState } from '../../core/marking/api';
import { byPeople, componentsOf } from '../../core/scoring/components';
import { alias } from 'drizzle-orm/sqlite-core';
import { decisions, invitations, marks, markingTasks, rounds, roundStaff, sittings } from '../db/schema';
import { isReadable, paperOfVersion } from '../papers/papers';
import type { Listing, Read, Reading } from '../reading/read';
import { listRounds } from '../schedule/queries';

const done = sql<number>`sum(${markingTasks.doneAt} is not null)`;
const notDone = sql<number>`sum(${markingTasks.doneAt} is null)`;

/** The piles of rounds that are not signed off: of one part, or of the rounds in which somebody marks. One query. */
export function pilesOf(
  { db }: Pick<Reading, 'db'>,
  of: { readonly round: number; readonly target: string } | 'own',
  staffId: number,
): MarkingPile[] {
  const own = db
    .select({ id: roundStaff.roundId })
    .from(roundStaff)
    .where(and(eq(roundStaff.staffId, staffId), inArray(roundStaff.role, ['assessor', 'lead'])));
  const where =
    of === 'own'
      ? and(isNull(rounds.signedOffAt), inArray(rounds.id, own))
      : and(eq(markingTasks.roundId, of.round), eq(markingTasks.target, of.target));
  const rows = db
    .select({
      round: rounds,
      target: markingTasks.target,
      left: notDone,
      byYou: sql<number>`sum(${markingTasks.doneAt} is not null and ${markingTasks.assessorId} = ${staffId})`,
    })
    .from(markingTasks)
    .innerJoin(rounds, eq(rounds.id, markingTasks.roundId))
    .where(where)
    .groupBy(markingTasks.roundId, markingTasks.target)
    .all();
  return rows.flatMap(({ round, target, left, byYou }) => {
    if (!isReadable(db, round.paperVersionId)) return [];
    const { questions } = wholeForm(paperOfVersion(db, round.paperVersionId)).paper;
    const question = questions.find((one) => one.parts.some((part) => part.target === target));
    if (!question) return [];
    const { marks: of } = question.parts.find((part) => part.target === target)!;
    return [
      {
        round: round.id,
        roundTitle: round.title,
        target,
        itemNumber: question.number,
        title: question.title,
        marks: of,
        byYou,
        left,
      },
    ];
  });
}

/** What waits for an assessor, question by question. */
export const pilesList: Listing<{ readonly staffId: number }, MarkingPile> = {
  name: 'piles',
  list: (reading, { staffId }, { search, sort, descending, from, size }) => {
    const wanted = search.toLowerCase();
    const rows = pilesOf(reading, 'own', staffId).filter((pile) =>
      `${pile.title} ${pile.roundTitle}`.toLowerCase().includes(wanted),
    );
    const by = { item: 'title', round: 'roundTitle', left: 'left' } as const;
    const key = by[sort as keyof typeof by];
    const sign = descending ? -1 : 1;
    rows.sort((a, b) =>
      key === undefined
        ? a.round - b.round || a.itemNumber - b.itemNumber
        : a[key] < b[key]
          ? -sign
          : a[key] > b[key]
            ? sign
            : 0,
    );
    return { rows: rows.slice(from, from + size), count: rows.length };
  },
  cells: {
    item: (pile) => pile.title,
    round: (pile) => pile.roundTitle,
    marks: (pile) => pile.marks / 100,
    byYou: (pile) => pile.byYou,
    left: (pile) => pile.left,
  },
};

interface PileState {
  readonly marked: number;
  readonly left: number;
  readonly mean: number | null;
}

/** How far each part of some rounds is marked, by round and target; the mean of those whose marks are `open`. */
function pileStates(
  { db }: Pick<Reading, 'db'>,
  ids: readonly number[],
  open: readonly number[],
): Map<string, PileState> {
  const of = [...ids];
  const tasks = db
    .select({ round: markingTasks.roundId, target: markingTasks.target, marked: done, left: notDone })
    .from(markingTasks)
    .where(inArray(markingTasks.roundId, of))
    .groupBy(markingTasks.roundId, markingTasks.target)
    .all();
  const later = alias(marks, 'later');
  // What people gave each script for a part; what another mark supersedes does not stand.
  const scripts = db
    .select({
      round: invitations.roundId,
      target: marks.target,
      given: sql<number>`sum(${marks.hundredths})`.as('given'),
    })
    .from(marks)
    .innerJoin(sittings, eq(sittings.id, marks.sittingId))
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .leftJoin(later, eq(later.supersedes, marks.id))
    .where(and(inArray(invitations.roundId, [...open]), isNotNull(marks.staffId), isNull(later.id)))
    .groupBy(marks.sittingId, marks.target)
    .as('scripts');
  const means = db
    .select({ round: scripts.round, target: scripts.target, mean: sql<number>`avg(${scripts.given})` })
    .from(scripts)
    .groupBy(scripts.round, scripts.target)
    .all();
  const states = new Map<string, PileState>();
  for (const { round, target, marked, left } of tasks)
    states.set(`${round} ${target}`, { marked, left, mean: null });
  for (const { round, target, mean } of means) {
    const before = states.get(`${round} ${target}`) ?? { marked: 0, left: 0 };
    states.set(`${round} ${target}`, { ...before, mean });
  }
  return states;
}

/** Of each of these rounds: what is open, what is marked, and whether it is signed off. */
export function signOffStates({ db }: Pick<Reading, 'db'>, ids: readonly number[]): SignOffState[] {
  const of = [...ids];
  const own = db.select().from(rounds).where(inArray(rounds.id, of)).orderBy(asc(rounds.id)).all();
  const counted = new Map(
    db
      .select({
        round: invitations.roundId,
        handedIn: count(sittings.closedAt),
        running: sql<number>`sum(${sittings.startedAt} is not null and ${sittings.closedAt} is null)`,
        beingScored: sql<number>`sum(${sittings.closedAt} is not null and ${sittings.scoredAt} is null)`,
      })
      .from(sittings)
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .where(inArray(invitations.roundId, of))
      .groupBy(invitations.roundId)
      .all()
      .map((row) => [row.round, row]),
  );
  const toDecide = new Map(
    db
      .select({ round: invitations.roundId, n: count() })
      .from(decisions)
      .innerJoin(sittings, eq(sittings.id, decisions.sittingId))
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .where(and(isNull(decisions.decidedAt), inArray(invitations.roundId, of)))
      .groupBy(invitations.roundId)
      .all()
      .map(({ round, n }) => [round, n]),
  );
  const unsigned = own.filter((round) => round.signedOffAt === null).map((round) => round.id);
  const states = pileStates({ db }, ids, unsigned);
  return own.map(({ id, title, paperVersionId, signedOffAt, releasedAt }) => {
    const { handedIn = 0, running = 0, beingScored = 0 } = counted.get(id) ?? {};
    const paper = paperOfVersion(db, paperVersionId);
    const components = componentsOf(paper);
    const piles = wholeForm(paper).paper.questions.flatMap((question) =>
      question.parts.flatMap((part) => {
        const state = states.get(`${id} ${part.target}`);
        if (!state && byPeople(components.get(part.target)!).length === 0) return [];
        const { marked, left, mean } = state ?? { marked: 0, left: 0, mean: null };
        const { title: of, number: itemNumber } = question;
        return [{ title: of, itemNumber, marked, left, mean, marks: part.marks }];
      }),
    );
    return {
      round: id,
      title,
      handedIn,
      running,
      beingScored,
      toDecide: toDecide.get(id) ?? 0,
      unmarked: piles.reduce((sum, pile) => sum + pile.left, 0),
      signedOffAt,
      releasedAt,
      piles,
    };
  });
}

/** The rounds that somebody leads. One whose paper cannot be read says so on its own page, and keeps no other away. */
export const ledRounds: Read<{ readonly staffId: number }, SignOffState[]> = {
  name: 'sign-off',
  run: (reading, { staffId }) => {
    const led = listRounds(reading.db, reading.clock.now(), { staffId, roles: ['lead'] });
    const readable = led.filter(({ paper }) => isReadable(reading.db, paper)).map(({ id }) => id);
    const states = new Map(signOffStates(reading, readable).map((state) => [state.round, state]));
    return readable.map((id) => states.get(id)!);
  },
};

export const markingReads = [ledRounds];
