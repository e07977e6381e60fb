import { sql } from 'drizzle-orm';
import type { LastKnown } from './clock';
import type { Db } from '../db/open';

/**
 * The time of the newest row, as far as it is found without looking through everything: what everything that happens
 * leaves a row in, and the heads of sittings that are open.
 */
export function lastKnown(db: Db): LastKnown {
  const { newest } = db.get<{ newest: number | null }>(sql`
    select max(at) as newest from (
      select * from (select at from time_events order by id desc limit 1)
      union all select * from (select at from audit order by id desc limit 1)
      union all select * from (select at from letters order by id desc limit 1)
      union all select max(created_at) from candidate_sessions
      union all select max(seen_at) from staff_sessions
      union all select max(max(coalesce(settled_at, 0)), max(coalesce(scored_at, 0))) from sittings
      union all select max(heads.arrived_at) from heads
        join sittings on sittings.id = heads.sitting_id
        where sittings.started_at is not null and sittings.closed_at is null
    )`);
  const { open } = db.get<{ open: number }>(
    sql`select count(*) as open from sittings where started_at is not null and closed_at is null`,
  );
  return { newest: newest ?? 0, open: open > 0 };
}
