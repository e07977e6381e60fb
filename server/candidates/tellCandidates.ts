import { eq } from 'drizzle-orm';
import { invitations, sittings } from '../db/schema';
import type { HasDb } from '../db/open';
import type { HasHub } from '../events/hub';

/** Something of all candidates of a round has changed: whoever of them has a page open sees it. */
export function tellCandidates({ db, hub }: HasDb & HasHub, roundId: number): void {
  const own = db
    .select({ id: invitations.id })
    .from(invitations)
    .where(eq(invitations.roundId, roundId))
    .all();
  for (const { id } of own) hub.tell(`invitation ${id}`);
}

/** Something of the marking of one sitting has changed: its candidate sees it. */
export function tellCandidateOf({ db, hub }: HasDb & HasHub, sittingId: number): void {
  const own = db
    .select({ invitation: sittings.invitationId })
    .from(sittings)
    .where(eq(sittings.id, sittingId))
    .get();
  if (own) hub.tell(`invitation ${own.invitation}`);
}
