import { and, count, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Role, RoundRow } from '../../core/rounds/api';
import type { Db } from '../db/open';
import { invitations, people, rounds, roundStaff, sittings } from '../db/schema';
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

export function listRounds(db: Db, now: number, { staffId, roles }: RoundsOf): RoundRow[] {
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
    .where(inArray(rounds.id, own))
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

export const invitedOf = (db: Db, roundId: number) =>
  db
    .select({ invitation: invitations, person: people })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .where(eq(invitations.roundId, roundId))
    .orderBy(people.name)
    .all();
