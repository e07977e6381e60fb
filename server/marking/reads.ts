import { roundMarked } from './roundMarked';
import { and, asc, count, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { wholeForm } from '../../core/forms/drawForm';
import { sumMarks } from '../../core/marks';
import type { MarkingPile, SignOffState } from '../../core/marking/api';
import { markedPaper } from '../../core/results/attempts';
import { byPeople, componentsOf } from '../../core/scoring/components';
import type { PairByPeople } from '../../core/marking/agreementOfPeople';
import type { JudgementRole } from '../../core/marking/mark';
import {
  decisions,
  gaps,
  invitations,
  itemMarking,
  judgements,
  markingTasks,
  rounds,
  roundStaff,
  setAsides,
  sittings,
} from '../db/schema';
import type { ItemRef } from './items';
import { totalOfJudgement } from './judgements';
import { isReadable, paperOfVersion } from '../papers/papers';
import type { Listing, Read, Reading } from '../reading/read';
import { listRounds } from '../schedule/queries';

const counts = sql`${markingTasks.role} in ('first', 'second')`;
const done = sql<number>`coalesce(sum(${counts} and ${markingTasks.doneAt} is not null), 0)`;
const notDone = sql<number>`coalesce(sum(${counts} and ${markingTasks.doneAt} is null), 0)`;

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
  // The lists ask for what waits; the table itself opens also where nothing does.
  const rows = db
    .select({
      round: rounds,
      target: markingTasks.target,
      // Scripts with agreed marks count like any others: they are not to be told apart.
      left: sql<number>`sum(${markingTasks.doneAt} is null and ${markingTasks.assessorId} = ${staffId})`,
      byYou: sql<number>`sum(${markingTasks.doneAt} is not null and ${markingTasks.assessorId} = ${staffId})`,
    })
    .from(markingTasks)
    .innerJoin(rounds, eq(rounds.id, markingTasks.roundId))
    .where(where)
    .groupBy(markingTasks.roundId, markingTasks.target)
    .all();
  return rows.flatMap(({ round, target, left, byYou }) => {
    if (!isReadable(db, round.paperVersionId)) return [];
    const paper = paperOfVersion(db, round.paperVersionId);
    const question = wholeForm(paper).paper.questions.find((one) =>
      one.parts.some((part) => part.target === target),
    );
    const isDecided = markedPaper(paper, round.settings.withdrawn).rulings.has(target);
    if (!question || (of === 'own' && isDecided)) return [];
    const { marks } = question.parts.find((part) => part.target === target)!;
    return [
      {
        round: round.id,
        roundTitle: round.title,
        target,
        itemNumber: question.number,
        title: question.title,
        marks,
        byYou,
        left,
      },
    ];
  });
}

/** A response that was marked twice: who marked it, and both totals as they were last given. */
export type MarkedTwice = PairByPeople & { readonly response: number };

export function markedTwice(db: Reading['db'], ref: ItemRef): MarkedTwice[] {
  const bySitting = new Map<number, Partial<Record<JudgementRole, Given>>>();
  for (const one of givenIn(db, ref)) {
    const { sittingId, role } = one.task;
    bySitting.set(sittingId, { ...bySitting.get(sittingId), [role]: one });
  }
  return [...bySitting].flatMap(([response, { first, second }]) => {
    const people = [first?.task.assessorId, second?.task.assessorId] as const;
    if (first === undefined || second === undefined || people[0] == null || people[1] == null) return [];
    return [
      {
        response,
        assessors: [people[0], people[1]],
        pair: [totalOfJudgement(first), totalOfJudgement(second)],
      },
    ];
  });
}

/** Everything that was given of an item and stands as somebody's mark. */
export const givenIn = (db: Reading['db'], { round, target }: ItemRef) =>
  db
    .select({ task: markingTasks, given: judgements.given, at: judgements.at })
    .from(markingTasks)
    // Of a script with agreed marks, what stood when its time for corrections ended.
    .innerJoin(
      judgements,
      eq(judgements.id, sql`coalesce(${markingTasks.comparedId}, ${markingTasks.judgementId})`),
    )
    .where(
      and(eq(markingTasks.roundId, round), eq(markingTasks.target, target), isNotNull(markingTasks.doneAt)),
    )
    .all();

type Given = ReturnType<typeof givenIn>[number];

/** What waits for an assessor, question by question. */
export const pilesList: Listing<{ readonly staffId: number }, MarkingPile> = {
  name: 'piles',
  list: (reading, { staffId }, { search, sort, descending, from, size }) => {
    const wanted = search.toLowerCase();
    const rows = pilesOf(reading, 'own', staffId).filter(
      (pile) =>
        pile.left + pile.byYou > 0 && `${pile.title} ${pile.roundTitle}`.toLowerCase().includes(wanted),
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
  readonly gaps: number;
  readonly asides: number;
  readonly signedOffAt: number | null;
  /** The newest judgement, by which a later one is told; 0 while there is none. */
  readonly newest: number;
}

const UNTOUCHED: PileState = {
  marked: 0,
  left: 0,
  mean: null,
  gaps: 0,
  asides: 0,
  signedOffAt: null,
  newest: 0,
};

/** What a judgement gave in all. */
const totalGivenSql = sql<number>`(select sum(json_extract(value, '$.hundredths')) from json_each(${judgements.given}))`;

/** How far each part of some rounds is marked, by round and target. */
function pileStates({ db }: Pick<Reading, 'db'>, ids: readonly number[]): Map<string, PileState> {
  const of = [...ids];
  const tasks = db
    .select({
      round: markingTasks.roundId,
      target: markingTasks.target,
      marked: done,
      left: notDone,
      newest: sql<number>`coalesce(max(${markingTasks.judgementId}), 0)`,
      mean: sql<
        number | null
      >`avg(case when ${counts} and ${markingTasks.doneAt} is not null then ${totalGivenSql} end)`,
    })
    .from(markingTasks)
    .leftJoin(judgements, eq(judgements.id, markingTasks.judgementId))
    .where(inArray(markingTasks.roundId, of))
    .groupBy(markingTasks.roundId, markingTasks.target)
    .all();
  const open = db
    .select({ round: gaps.roundId, target: gaps.target, n: count() })
    .from(gaps)
    .where(and(inArray(gaps.roundId, of), isNull(gaps.closedAt)))
    .groupBy(gaps.roundId, gaps.target)
    .all();
  const asked = db
    .select({ round: markingTasks.roundId, target: markingTasks.target, n: count() })
    .from(setAsides)
    .innerJoin(markingTasks, eq(markingTasks.id, setAsides.taskId))
    .where(and(inArray(markingTasks.roundId, of), isNull(setAsides.answeredAt)))
    .groupBy(markingTasks.roundId, markingTasks.target)
    .all();
  const signed = db.select().from(itemMarking).where(inArray(itemMarking.roundId, of)).all();
  const nameOf = ({ round, target }: ItemRef) => `${round} ${target}`;
  const [gapsBy, asidesBy] = [open, asked].map((rows) => new Map(rows.map((row) => [nameOf(row), row.n])));
  const signedBy = new Map(
    signed.map(({ roundId, target, signedOffAt }) => [nameOf({ round: roundId, target }), signedOffAt]),
  );
  return new Map(
    tasks.map(({ marked, left, mean, newest, ...ref }) => {
      const name = nameOf(ref);
      const [gapCount, asides] = [gapsBy!.get(name) ?? 0, asidesBy!.get(name) ?? 0];
      const signedOffAt = signedBy.get(name) ?? null;
      return [name, { marked, left, mean, gaps: gapCount, asides, signedOffAt, newest }];
    }),
  );
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
  const states = pileStates({ db }, ids);
  return own.map(({ id, title, paperVersionId, settings, signedOffAt, releasedAt }) => {
    const { handedIn = 0, running = 0, beingScored = 0 } = counted.get(id) ?? {};
    const paper = paperOfVersion(db, paperVersionId);
    const components = componentsOf(paper);
    const { rulings } = markedPaper(paper, settings.withdrawn);
    const piles = wholeForm(paper).paper.questions.flatMap((question) =>
      question.parts.flatMap((part) => {
        const state = states.get(`${id} ${part.target}`);
        // Whatever was answered, its marks are decided: nobody has to mark it.
        if (rulings.has(part.target)) return [];
        if (!state && byPeople(components.get(part.target)!).length === 0) return [];
        const { title: of, number: itemNumber } = question;
        const own = byPeople(components.get(part.target)!);
        const marks = own.length === 0 ? part.marks : sumMarks(own.map((component) => component.of));
        return [{ target: part.target, title: of, itemNumber, marks, ...(state ?? UNTOUCHED) }];
      }),
    );
    return {
      round: id,
      title,
      handedIn,
      running,
      beingScored,
      toDecide: toDecide.get(id) ?? 0,
      newest: Math.max(0, ...piles.map((pile) => pile.newest)),
      unmarked: piles.reduce((sum, pile) => sum + pile.left, 0),
      bandsOpen: roundMarked(db, { id, paperVersionId, settings }).bands === null,
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
