import { and, eq, isNotNull } from 'drizzle-orm';
import type { Db } from '../db/open';
import { invitations, sittings } from '../db/schema';
import type { Sitting } from './queries';

/** The scripts of a round that are handed in. */
export const scriptsOf = (db: Db, roundId: number): Sitting[] =>
  db
    .select({ sitting: sittings })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .where(and(eq(invitations.roundId, roundId), isNotNull(sittings.closedAt)))
    .all()
    .map((row) => row.sitting);
