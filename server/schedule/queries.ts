import { and, count, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Role, RoundRow } from '../../core/rounds/api';
import type { Db } from '../db/open';
import { invitations, rounds, roundStaff, sittings } from '../db/schema';
import { titleOfVersion } from '../papers/papers';

export const findRound = (db: Db, id: number) =>
  db.select().from(rounds).where(eq(rounds.id, id)).get() ?? null;

const windowAt = (now: number, opensAt: number, closesAt: number) =>
  now < opensAt ? 'later' : now < closesAt ? 'open' : 'over';

/** Whose rounds: those in which somebody of the staff has one of these roles. */
export interface RoundsOf {
  readonly staffId: number;
  readonly roles: readonly Role[];
}

export function listRounds(db: Db, now: number, { staffId, roles }: RoundsOf, only?: number): RoundRow[] {
  const own = db
    .select({ id: roundStaff.roundId })
    .from(roundStaff)
    .where(and(eq(roundStaff.staffId, staffId), inArray(roundStaff.role, [...roles])));
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
    .where(and(inArray(rounds.id, own), only === undefined ? undefined : eq(rounds.id, only)))
    .groupBy(rounds.id)
    .orderBy(desc(rounds.opensAt))
    .all();
  return rows.map(({ round, ...counts }) => ({
    id: round.id,
    title: round.title,
    paper: round.paperVersionId,
    paperTitle: titleOfVersion(db, round.paperVersionId),
    opensAt: round.opensAt,
    closesAt: round.closesAt,
    timeZone: round.timeZone,
    window: windowAt(now, round.opensAt, round.closesAt),
    signedOffAt: round.signedOffAt,
    releasedAt: round.releasedAt,
    ...counts,
  }));
}
