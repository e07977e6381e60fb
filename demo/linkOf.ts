import { and, eq } from 'drizzle-orm';
import { invitations, people, rounds } from '../server/db/schema';
import { makeLink } from '../server/mail/links';
import type { HasConfig } from '../server/config';
import type { HasDb } from '../server/db/open';
import type { HasClock } from '../server/machine/clock';

/**
 * A link for the person of this address, beside those that they have: to their first invitation, or to that of a round.
 * Null where they are not invited.
 */
export function linkOf(
  { db, clock, config }: HasConfig & HasClock & HasDb,
  email: string,
  round: string | null = null,
): string | null {
  const invitation = db
    .select({ id: invitations.id })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(and(eq(people.email, email), round === null ? undefined : eq(rounds.key, round)))
    .orderBy(invitations.id)
    .get()?.id;
  return invitation === undefined ? null : `${config.publicUrl}/i/${makeLink(db, invitation, clock.now())}`;
}
