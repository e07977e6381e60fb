import { desc, eq } from 'drizzle-orm';
import { letters } from '../server/db/schema';
import { makeLink } from '../server/mail/links';
import type { HasConfig } from '../server/config';
import type { HasDb } from '../server/db/open';
import type { HasClock } from '../server/machine/clock';

/** A link for whoever was invited by a letter to this address, beside those that they have; null where there is no letter. */
export function linkOf({ db, clock, config }: HasConfig & HasClock & HasDb, email: string): string | null {
  const own = db.select().from(letters).where(eq(letters.to, email)).orderBy(desc(letters.id)).all();
  const invitation = own.find(({ facts }) => facts.kind === 'invitation')?.invitationId;
  return invitation === undefined ? null : `${config.publicUrl}/i/${makeLink(db, invitation, clock.now())}`;
}
