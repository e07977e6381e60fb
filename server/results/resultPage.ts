import { and, count, eq, sql, type SQL } from 'drizzle-orm';
import type { ListQuery } from '../../core/lists/list';
import type { AttemptRule } from '../../core/rounds/api';
import type { Db } from '../db/open';
import { invitations, people } from '../db/schema';
import { peopleLike } from '../people/people';

const handedIn = sql`exists (select 1 from sittings s where s.invitation_id = ${invitations.id} and s.closed_at is not null)`;
const lastHandIn = sql`(select max(s.closed_at) from sittings s where s.invitation_id = ${invitations.id})`;
const attempts = sql`(select count(*) from sittings s where s.invitation_id = ${invitations.id} and s.closed_at is not null)`;
const observed = sql`(select count(*) from observations o join sittings s on s.id = o.sitting_id
  where s.invitation_id = ${invitations.id} and s.closed_at is not null)`;
const checkOpen = sql`exists (select 1 from result_checks c where c.invitation_id = ${invitations.id} and c.answered_at is null)`;

const SORTS: Readonly<Record<string, SQL>> = {
  '': sql`${people.name} collate nocase`,
  name: sql`${people.name} collate nocase`,
  reference: sql`${people.reference}`,
  attempts,
  observations: observed,
};
const FILTERS: Readonly<Record<string, SQL | undefined>> = {
  '': undefined,
  observed: sql`${observed} > 0`,
  'check asked': checkOpen,
};

export interface ResultPage {
  /** The invitations of this piece, in their order. */
  readonly ids: readonly number[];
  readonly count: number;
}

/**
 * A piece of the results of a round, found, sorted and cut by the database; null where that takes the marks of everybody,
 * as for totals and bands, whose rules are those of `core/results` alone. `rule` says which attempt shows its hand-in.
 */
export function pageOfResults(
  db: Db,
  round: number,
  rule: AttemptRule,
  { search, sort, descending, filter, from, size }: ListQuery,
): ResultPage | null {
  const order = sort === 'handedInAt' && rule === 'latest' ? lastHandIn : SORTS[sort];
  if (!order || !Object.hasOwn(FILTERS, filter)) return null;
  const where = and(eq(invitations.roundId, round), handedIn, peopleLike(search), FILTERS[filter]);
  const query = db
    .select({ id: invitations.id })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .where(where);
  const ids = query
    .orderBy(descending ? sql`${order} desc` : order, invitations.id)
    .limit(size)
    .offset(from)
    .all();
  const all = db
    .select({ n: count() })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .where(where)
    .get()!;
  return { ids: ids.map(({ id }) => id), count: all.n };
}
