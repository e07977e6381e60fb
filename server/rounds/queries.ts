import { count, desc, eq, sql, and } from 'drizzle-orm';
import type { RoundRow } from '../../core/rounds/api';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { candidates, invitations, marks, papers, rounds, sittings } from '../db/schema';

/** Published papers are immutable: parsed once, kept. */
const paperCache = perDatabase(() => new Map<number, typeof papers.$inferSelect>());

export function findPaper(db: Db, id: number): typeof papers.$inferSelect | null {
  const cache = paperCache(db);
  const known = cache.get(id) ?? db.select().from(papers).where(eq(papers.id, id)).get() ?? null;
  if (known) cache.set(id, known);
  return known;
}

export const findRound = (db: Db, id: number) =>
  db.select().from(rounds).where(eq(rounds.id, id)).get() ?? null;

const windowAt = (now: number, opensAt: number, closesAt: number) =>
  now < opensAt ? 'later' : now < closesAt ? 'open' : 'over';

export function listRounds(db: Db, now: number): RoundRow[] {
  const started = sql<number>`sum(${sittings.startedAt} is not null and ${sittings.closedAt} is null)`;
  const rows = db
    .select({
      round: rounds,
      invited: sql<number>`count(distinct ${invitations.id})`,
      running: sql<number>`coalesce(${started}, 0)`,
      handedIn: count(sittings.closedAt),
    })
    .from(rounds)
    .leftJoin(invitations, eq(invitations.roundId, rounds.id))
    .leftJoin(sittings, eq(sittings.invitationId, invitations.id))
    .groupBy(rounds.id)
    .orderBy(desc(rounds.opensAt))
    .all();
  return rows.map(({ round, ...counts }) => ({
    id: round.id,
    title: round.title,
    paper: round.paperId,
    paperTitle: findPaper(db, round.paperId)!.document.title,
    opensAt: round.opensAt,
    closesAt: round.closesAt,
    timeZone: round.timeZone,
    window: windowAt(now, round.opensAt, round.closesAt),
    signedOffAt: round.signedOffAt,
    releasedAt: round.releasedAt,
    ...counts,
  }));
}

export const invitedOf = (db: Db, roundId: number) =>
  db
    .select({ invitation: invitations, candidate: candidates })
    .from(invitations)
    .innerJoin(candidates, eq(candidates.id, invitations.candidateId))
    .where(eq(invitations.roundId, roundId))
    .orderBy(candidates.name)
    .all();

/** The newest mark of each part of a sitting. */
export const newestMarks = (db: Db, sittingId: number) =>
  db
    .select()
    .from(marks)
    .where(
      and(
        eq(marks.sittingId, sittingId),
        sql`${marks.id} in (select max(id) from marks where sitting_id = ${sittingId} group by target)`,
      ),
    )
    .all();
