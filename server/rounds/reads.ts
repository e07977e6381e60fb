import { roundMarked } from '../marking/roundMarked';
import { and, asc, count, desc, eq, inArray, isNotNull, isNull, sql, type SQL } from 'drizzle-orm';
import { weakChecks } from '../../core/arrival/checks';
import { isComplete } from '../../core/results/attempts';
import { candidateFilters, type InvitedRow, type RoundRow } from '../../core/rounds/api';
import { arrivals, invitations, people, rounds, roundStaff, sittings } from '../db/schema';
import { notFound } from '../http/errors';
import { peopleLike } from '../people/people';
import { type Listing, type Read, type Reading } from '../reading/read';
import { resultsOfAll } from '../results/attempts';
import { findRound, listRounds, type RoundsOf } from '../schedule/queries';

const dateOrNull = (at: number | null) => (at === null ? null : new Date(at));

/** The rounds in which somebody of the staff has one of some roles, newest first. */
export const roundsList: Listing<RoundsOf, RoundRow> = {
  name: 'rounds',
  filters: () => ['later', 'open', 'over'],
  list: ({ db, clock }, owner, { search, sort, descending, filter, from, size }) => {
    const wanted = search.toLowerCase();
    const rows = listRounds(db, clock.now(), owner).filter(
      (round) =>
        (filter === '' || round.window === filter) &&
        `${round.title} ${round.paperTitle}`.toLowerCase().includes(wanted),
    );
    const by = { title: 'title', paper: 'paperTitle', opensAt: 'opensAt', invited: 'invited' } as const;
    const key = by[sort as keyof typeof by];
    const sign = descending ? -1 : 1;
    if (key !== undefined) rows.sort((a, b) => (a[key] < b[key] ? -sign : a[key] > b[key] ? sign : 0));
    return { rows: rows.slice(from, from + size), count: rows.length };
  },
  cells: {
    title: (row) => row.title,
    paper: (row) => row.paperTitle,
    opensAt: (row) => new Date(row.opensAt),
    closesAt: (row) => new Date(row.closesAt),
    invited: (row) => row.invited,
    running: (row) => row.running,
    handedIn: (row) => row.handedIn,
  },
};

const newest = {
  sitting: sql`${sittings.id} = (select max(s.id) from sittings s where s.invitation_id = ${invitations.id} and s.started_at is not null)`,
  arrival: sql`${arrivals.invitationId} = ${invitations.id} and ${arrivals.attempt} = (select max(a.attempt) from arrivals a where a.invitation_id = ${invitations.id})`,
};

const sorts: Record<string, SQL> = {
  name: sql`${people.name} collate nocase`,
  email: sql`${people.email}`,
  reference: sql`${people.reference}`,
  startedAt: sql`${sittings.startedAt}`,
  handedInAt: sql`${sittings.closedAt}`,
};

const filters: Record<(typeof candidateFilters)[number], SQL> = {
  'not started': isNull(sittings.id),
  'in progress': and(isNotNull(sittings.id), isNull(sittings.closedAt))!,
  'handed in': isNotNull(sittings.closedAt),
  'to settle': and(isNotNull(arrivals.correction), isNull(arrivals.correctionSettledAt))!,
};

/** The candidates of one round: one query for the rows, one for their number, and two for the marks of those rows. */
export const candidatesList: Listing<{ readonly round: number }, InvitedRow> = {
  name: 'candidates',
  filters: () => candidateFilters,
  list: (reading, { round: id }, { search, sort, descending, filter, from, size }) => {
    const { db } = reading;
    const round = findRound(db, id);
    if (!round) throw notFound('noRound');
    const where = and(
      eq(invitations.roundId, id),
      peopleLike(search),
      filters[filter as keyof typeof filters],
    );
    const order = sorts[sort] ?? sorts.name!;
    const rows = db
      .select({ invitation: invitations, person: people, sitting: sittings, arrival: arrivals })
      .from(invitations)
      .innerJoin(people, eq(people.id, invitations.personId))
      .leftJoin(sittings, newest.sitting)
      .leftJoin(arrivals, newest.arrival)
      .where(where)
      .orderBy(descending ? desc(order) : asc(order), asc(invitations.id))
      .limit(size)
      .offset(from)
      .all();
    const { n } = db
      .select({ n: count() })
      .from(invitations)
      .innerJoin(people, eq(people.id, invitations.personId))
      .leftJoin(sittings, newest.sitting)
      .leftJoin(arrivals, newest.arrival)
      .where(where)
      .get()!;
    const totals = totalsOf(
      reading,
      round,
      rows.filter((row) => row.sitting?.closedAt != null).map((row) => row.invitation.id),
    );
    return {
      count: n,
      rows: rows.map(({ invitation, person, sitting, arrival }) => ({
        id: invitation.id,
        name: person.name,
        email: person.email,
        reference: person.reference,
        extraPercent: invitation.extraPercent,
        breakMinutes: invitation.arrangements.breakMinutes,
        startedAt: sitting?.startedAt ?? null,
        deadlineAt: sitting?.deadlineAt ?? null,
        handedInAt: sitting?.closedAt ?? null,
        notes: weakChecks(arrival?.checks ?? [], invitation.arrangements.aids),
        correction: arrival?.correctionSettledAt === null ? arrival.correction : null,
        total: totals.get(invitation.id) ?? null,
      })),
    };
  },
  cells: {
    name: (row) => row.name,
    email: (row) => row.email,
    reference: (row) => row.reference,
    extraPercent: (row) => row.extraPercent,
    breakMinutes: (row) => row.breakMinutes,
    startedAt: (row) => dateOrNull(row.startedAt),
    handedInAt: (row) => dateOrNull(row.handedInAt),
    total: (row) => (row.total === null ? null : row.total / 100),
  },
};

export interface PersonFound {
  readonly round: number;
  readonly roundTitle: string;
  readonly name: string;
  readonly reference: string;
}

/** Whoever is invited to a round that somebody coordinates, by name, address or reference. */
export const peopleList: Listing<{ readonly staffId: number }, PersonFound> = {
  name: 'people',
  list: ({ db }, { staffId }, { search, from, size }) => {
    const own = db
      .select({ id: roundStaff.roundId })
      .from(roundStaff)
      .where(and(eq(roundStaff.staffId, staffId), eq(roundStaff.role, 'coordinator')));
    const where = and(inArray(invitations.roundId, own), peopleLike(search));
    const rows = db
      .select({ round: rounds.id, roundTitle: rounds.title, name: people.name, reference: people.reference })
      .from(invitations)
      .innerJoin(people, eq(people.id, invitations.personId))
      .innerJoin(rounds, eq(rounds.id, invitations.roundId))
      .where(where)
      .orderBy(sorts.name!, desc(rounds.opensAt))
      .limit(size)
      .offset(from)
      .all();
    const { n } = db
      .select({ n: count() })
      .from(invitations)
      .innerJoin(people, eq(people.id, invitations.personId))
      .where(where)
      .get()!;
    return { rows, count: n };
  },
  cells: { name: (row) => row.name, reference: (row) => row.reference, round: (row) => row.roundTitle },
};

/** The totals of candidates whose marks are complete. */
function totalsOf(
  { db }: Reading,
  round: NonNullable<ReturnType<typeof findRound>>,
  invited: readonly number[],
): ReadonlyMap<number, number> {
  if (invited.length === 0) return new Map();
  const { marked } = roundMarked(db, round);
  return new Map(
    [...resultsOfAll(db, round, marked, invited)].flatMap(([invitation, { counted, total }]) =>
      isComplete(counted, marked) ? [[invitation, total] as const] : [],
    ),
  );
}

/** One round as a row, for candidates who have a role in it. */
export const roundRow: Read<RoundsOf & { readonly round: number }, RoundRow | null> = {
  name: 'round',
  run: ({ db, clock }, { round, ...owner }) => listRounds(db, clock.now(), owner, round)[0] ?? null,
};

export const roundReads = [roundRow];
