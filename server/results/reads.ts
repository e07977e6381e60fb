import { roundMarked } from '../marking/roundMarked';
import { and, count, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { meanOf, varianceOf } from '../../core/measures/mean';
import {
  resultFilters,
  type ResultFilter,
  type ResultRow,
  type ScoreDistribution,
  type StaffSheet,
} from '../../core/results/api';
import { bandOf } from '../../core/results/bands';
import { barsOf } from '../../core/results/distribution';
import { isComplete, maximumOf } from '../../core/results/attempts';
import { findInvited } from '../candidates/queries';
import { inPieces } from '../db/inPieces';
import { invitations, observations, people, resultChecks, sittings, verdicts } from '../db/schema';
import { notFound } from '../http/errors';
import { peopleLike } from '../people/people';
import type { Listing, Read, Reading } from '../reading/read';
import { findRound } from '../schedule/queries';
import { resultsOfAll } from './attempts';
import { checksOf } from './checks';
import { pageOfResults } from './resultPage';
import { sheetOf } from './operations';

export interface ResultsOf {
  readonly round: number;
  /** Without names: nobody is found by their name either. */
  readonly blind: boolean;
}

interface Wanted {
  readonly search?: string;
  /** These invitations alone. */
  readonly only?: readonly number[];
}

/** Everybody of a round who has handed in, with their marks: a fixed number of queries, whatever the rows. */
function rowsOf(
  { db }: Reading,
  { round: id, blind }: ResultsOf,
  { search = '', only }: Wanted = {},
): ResultRow[] {
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  const { marked, bands } = roundMarked(db, round);
  const invited = db
    .select({ invitation: invitations.id, name: people.name, reference: people.reference })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .where(
      and(
        eq(invitations.roundId, id),
        blind ? undefined : peopleLike(search),
        only && inArray(invitations.id, [...only]),
      ),
    )
    .all();
  const ids = invited.map((one) => one.invitation);
  const closed = inPieces(ids, (some) =>
    db
      .select()
      .from(sittings)
      .where(and(inArray(sittings.invitationId, some), isNotNull(sittings.closedAt)))
      .orderBy(sittings.id)
      .all(),
  );
  const byInvitation = new Map<number, typeof closed>();
  for (const sitting of closed)
    byInvitation.set(sitting.invitationId, [...(byInvitation.get(sitting.invitationId) ?? []), sitting]);
  const results = resultsOfAll(db, round, marked, ids);
  const noted = new Map(
    inPieces(
      closed.map((one) => one.id),
      (some) =>
        db
          .select({ sitting: observations.sittingId, n: count() })
          .from(observations)
          .where(inArray(observations.sittingId, some))
          .groupBy(observations.sittingId)
          .all(),
    ).map((row) => [row.sitting, row.n]),
  );
  const asked = new Set(
    inPieces(ids, (some) =>
      db
        .select({ id: resultChecks.invitationId })
        .from(resultChecks)
        .where(and(inArray(resultChecks.invitationId, some), isNull(resultChecks.answeredAt)))
        .all(),
    ).map((row) => row.id),
  );
  return invited.flatMap(({ invitation, name, reference }) => {
    const own = byInvitation.get(invitation);
    if (!own) return [];
    const { counted, total: scored } = results.get(invitation)!;
    const full = isComplete(counted, marked);
    const last = counted.at(-1)?.sitting ?? own.at(-1)!;
    if (blind && !last.script.toLowerCase().includes(search.toLowerCase())) return [];
    return [
      {
        invitation,
        name: blind ? null : name,
        reference: blind ? null : reference,
        script: last.script,
        handedInAt: last.closedAt!,
        attempts: own.length,
        total: full ? scored : null,
        scored,
        band: full ? (bandOf(bands ?? [], scored)?.title ?? null) : null,
        observations: own.reduce((sum, one) => sum + (noted.get(one.id) ?? 0), 0),
        isVoid: counted.length === 0,
        checkOpen: asked.has(invitation),
      },
    ];
  });
}

const FILTERS: Record<ResultFilter, (row: ResultRow) => boolean> = {
  complete: (row) => row.total !== null,
  'being marked': (row) => row.total === null && !row.isVoid,
  observed: (row) => row.observations > 0,
  'check asked': (row) => row.checkOpen,
  void: (row) => row.isVoid,
};

const collator = new Intl.Collator('en');
const SORTS: Record<string, (a: ResultRow, b: ResultRow) => number> = {
  name: (a, b) => collator.compare(a.name ?? a.script, b.name ?? b.script),
  reference: (a, b) => collator.compare(a.reference ?? a.script, b.reference ?? b.script),
  handedInAt: (a, b) => a.handedInAt - b.handedInAt,
  total: (a, b) => (a.total ?? -1) - (b.total ?? -1),
  attempts: (a, b) => a.attempts - b.attempts,
  observations: (a, b) => a.observations - b.observations,
};

/** As many names as one statement may have (SQLite allows 32,766); an export of more reads the whole round. */
const MOST_AT_ONCE = 1000;

/** The results of a round; a filter is one of `resultFilters`, or the title of a band. */
export const resultsList: Listing<ResultsOf, ResultRow> = {
  name: 'results',
  filters: ({ db }, { round: id }) => {
    const round = findRound(db, id);
    const bands = round ? (roundMarked(db, round).bands ?? []) : [];
    return [...resultFilters, ...bands.map(({ title }) => title)];
  },
  list: (reading, of, query) => {
    const { search, sort, descending, filter, from, size } = query;
    const round = findRound(reading.db, of.round);
    if (!round) throw notFound('noRound');
    const page = of.blind ? null : pageOfResults(reading.db, of.round, round.settings.counts, query);
    if (page && page.ids.length <= MOST_AT_ONCE) {
      const own = new Map(rowsOf(reading, of, { only: page.ids }).map((row) => [row.invitation, row]));
      return { rows: page.ids.flatMap((id) => own.get(id) ?? []), count: page.count };
    }
    const keep = Object.hasOwn(FILTERS, filter)
      ? FILTERS[filter as ResultFilter]
      : (row: ResultRow) => filter === '' || row.band === filter;
    const order = SORTS[sort] ?? SORTS.name!;
    const rows = rowsOf(reading, of, { search }).filter(keep);
    rows.sort((a, b) => (descending ? -order(a, b) : order(a, b)) || a.invitation - b.invitation);
    return { rows: rows.slice(from, from + size), count: rows.length };
  },
  cells: {
    name: (row) => row.name,
    reference: (row) => row.reference,
    script: (row) => row.script,
    handedInAt: (row) => new Date(row.handedInAt),
    total: (row) => (row.total === null ? null : row.total / 100),
    band: (row) => row.band,
    attempts: (row) => row.attempts,
    observations: (row) => row.observations,
  },
};

/** Candidates by marks and by band, of those whose marks are complete. */
export const distributionRead: Read<{ readonly round: number }, ScoreDistribution> = {
  name: 'distribution',
  run: (reading, { round: id }) => {
    const round = findRound(reading.db, id);
    if (!round) throw notFound('noRound');
    const { marked, bands: own } = roundMarked(reading.db, round);
    const [of, bands] = [maximumOf(marked), own ?? []];
    const totals = rowsOf(reading, { round: id, blind: true }).flatMap(({ total }) =>
      total === null ? [] : [total],
    );
    const bars = barsOf(
      of,
      bands.map(({ from }) => from),
    );
    const steps = bars.map((at, i) => ({
      at,
      count: totals.filter((one) => one >= at && one < (bars[i + 1] ?? Infinity)).length,
    }));
    return {
      round: round.title,
      of,
      n: totals.length,
      mean: totals.length === 0 ? null : meanOf(totals),
      deviation: totals.length < 2 ? null : Math.sqrt(varianceOf(totals)),
      steps,
      bands: [...bands]
        .sort((a, b) => a.from - b.from)
        .map(({ title, from }) => ({
          title,
          from,
          count: totals.filter((one) => bandOf(bands, one)?.title === title).length,
        })),
    };
  },
};

/** A candidate's sheet for staff: everything, whatever candidates are shown; blind, the script's code instead of a name. */
export const staffSheetRead: Read<
  { readonly round: number; readonly invitation: number; readonly blind: boolean },
  StaffSheet & { readonly sitting: number }
> = {
  name: 'staff-sheet',
  run: (reading, { round: id, invitation, blind }) => {
    const { db } = reading;
    const invited = findInvited(db, invitation);
    if (invited?.round.id !== id) throw notFound('noCandidate');
    const { round, person } = invited;
    const by = roundMarked(db, round);
    const { attempts, counted, kept } = resultsOfAll(db, round, by.marked, [invitation]).get(invitation)!;
    if (counted.length === 0) throw notFound('noScript');
    const confirmed = isComplete(counted, by.marked);
    const sheet = sheetOf(reading, { round, person, by, kept, counted, attempts, confirmed, whole: true });
    const { sitting } = counted.at(-1)!;
    const { script } = sitting;
    return {
      sheet: blind ? { ...sheet, candidate: { name: script, reference: script } } : sheet,
      script,
      checks: checksOf(reading, invitation).checks,
      sitting: sitting.id,
    };
  },
};

/** The verdict on a sitting that stands; null where none was given. */
export const verdictOn = ({ db }: Pick<Reading, 'db'>, sitting: number) =>
  db
    .select()
    .from(verdicts)
    .where(and(eq(verdicts.sittingId, sitting), isNull(verdicts.endedAt)))
    .orderBy(desc(verdicts.id))
    .limit(1)
    .get() ?? null;
