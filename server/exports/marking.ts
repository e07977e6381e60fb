import { and, asc, count, eq, sql } from 'drizzle-orm';
import type { AgreementFigures } from '../../core/marking/agreementOfPeople';
import type { JudgementRole } from '../../core/marking/mark';
import type { Estimate } from '../../core/measures/estimate';
import { message } from '../../core/messages/message';
import { say } from '../../core/messages/words';
import { invitations, judgements, sittings, staff } from '../db/schema';
import { totalOfJudgement } from '../marking/judgements';
import { qualityRead } from '../marking/quality';
import { likeOf, type Listing, type Reading } from '../reading/read';
import { findMarked, partsOf } from './marks';

interface OfRound {
  readonly round: number;
}

const inWords = (key: string) => say(message(`list.${key}`));

/** One marking of one response: who, what, when. */
interface GivenRow {
  readonly assessor: string;
  readonly script: string;
  readonly question: string;
  readonly title: string;
  readonly role: JudgementRole;
  readonly total: number;
  readonly at: number;
}

/** Who marked what and when in a round, in the order in which it was given. */
export const markingList: Listing<OfRound, GivenRow> = {
  name: 'marking',
  list: (reading, { round }, { search, from, size }) => {
    const { by } = findMarked(reading, round);
    const parts = new Map(partsOf(by).map((part) => [part.target, part]));
    const pattern = likeOf(search);
    const where = and(
      eq(invitations.roundId, round),
      search === ''
        ? undefined
        : sql`(${staff.name} like ${pattern} escape '\\' or ${sittings.script} like ${pattern} escape '\\')`,
    );
    const given = reading.db
      .select({ given: judgements, assessor: staff.name, script: sittings.script })
      .from(judgements)
      .innerJoin(staff, eq(staff.id, judgements.staffId))
      .innerJoin(sittings, eq(sittings.id, judgements.sittingId))
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .where(where)
      .orderBy(asc(judgements.id))
      .limit(size)
      .offset(from)
      .all();
    const { n } = reading.db
      .select({ n: count() })
      .from(judgements)
      .innerJoin(staff, eq(staff.id, judgements.staffId))
      .innerJoin(sittings, eq(sittings.id, judgements.sittingId))
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .where(where)
      .get()!;
    const rows = given.map(({ given: one, assessor, script }) => ({
      assessor,
      script,
      question: parts.get(one.target)?.number ?? one.target,
      title: parts.get(one.target)?.title ?? '',
      role: one.role,
      total: totalOfJudgement(one),
      at: one.at,
    }));
    return { rows, count: n };
  },
  cells: {
    assessor: (row) => row.assessor,
    script: (row) => row.script,
    question: (row) => row.question,
    item: (row) => row.title,
    marking: (row) => inWords(`role-${row.role}`),
    total: (row) => row.total / 100,
    markedAt: (row) => new Date(row.at),
  },
};

/** One figure of agreement, of one question. */
interface FigureRow {
  readonly question: string;
  readonly title: string;
  readonly figure: string;
  readonly of: string;
  readonly estimate: Estimate;
  /** Of differences, which are in hundredths of a mark. */
  readonly perMark: boolean;
}

type Told = Pick<FigureRow, 'figure' | 'of' | 'estimate' | 'perMark'>;

function figuresOf(agreement: AgreementFigures, nameOf: ReadonlyMap<number, string>): Told[] {
  const everybody = inWords('allAssessors');
  const one = (figure: string, estimate: Estimate, of = everybody, perMark = false): Told => ({
    figure: inWords(`figure-${figure}`),
    of,
    estimate,
    perMark,
  });
  return [
    one('exact', agreement.exact),
    one('adjacent', agreement.adjacent),
    one('absolute', agreement.absolute, everybody, true),
    ...agreement.intraclass.map(({ form, estimate }): Told => ({
      figure: `ICC(${form})`,
      of: everybody,
      estimate,
      perMark: false,
    })),
    one('ordinal', agreement.ordinal),
    one('interval', agreement.interval),
    one('fleiss', agreement.fleiss),
    ...agreement.pairs.flatMap((pair) => {
      const of = pair.assessors.map((id) => nameOf.get(id) ?? String(id)).join(', ');
      return [
        one('exact', pair.exact, of),
        one('plain', pair.plain, of),
        one('linear', pair.linear, of),
        one('kappa', pair.kappa, of),
        one('pearson', pair.pearson, of),
        one('spearman', pair.spearman, of),
        one('difference', pair.difference, of, true),
        one('spread', pair.spread, of, true),
      ];
    }),
  ];
}

function agreementRows(reading: Reading, round: number): FigureRow[] {
  const { by } = findMarked(reading, round);
  const names = new Map(
    reading.db
      .select({ id: staff.id, name: staff.name })
      .from(staff)
      .all()
      .map(({ id, name }) => [id, name]),
  );
  return partsOf(by).flatMap(({ target, number, title }) => {
    const { agreement, twice } = qualityRead.run(reading, { round, target });
    if (twice === 0) return [];
    return figuresOf(agreement, names).map((told) => ({ question: number, title, ...told }));
  });
}

/** How far assessors agree, question by question, each figure with its number and its interval. */
export const agreementList: Listing<OfRound, FigureRow> = {
  name: 'agreement',
  list: (reading, { round }, { search, from, size }) => {
    const wanted = search.toLowerCase();
    const rows = agreementRows(reading, round).filter(({ title, figure, of }) =>
      `${title} ${figure} ${of}`.toLowerCase().includes(wanted),
    );
    return { rows: rows.slice(from, from + size), count: rows.length };
  },
  cells: {
    question: (row) => row.question,
    item: (row) => row.title,
    figure: (row) => row.figure,
    assessors: (row) => row.of,
    n: (row) => row.estimate.n,
    value: (row) => valueOf(row, row.estimate.value),
    low: (row) => valueOf(row, bound(row.estimate, 0)),
    high: (row) => valueOf(row, bound(row.estimate, 1)),
  },
};

const bound = (estimate: Estimate, at: 0 | 1): number | null =>
  estimate.value === null ? null : (estimate.interval?.[at] ?? null);
const valueOf = ({ perMark }: FigureRow, value: number | null): number | null =>
  value === null || !perMark ? value : value / 100;
