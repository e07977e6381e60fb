import { and, desc, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/open';
import { links } from '../db/schema';
import { newSecret, sha256 } from '../http/secrets';

/** Each sending makes a link of its own; of those that were made for one person the newest stay valid. */
const MOST = 20;

/** Makes a secret link for an invitation. Only its hash is stored: the link stands in the letter alone. */
export function makeLink(db: Db, invitationId: number, at: number): string {
  const secret = newSecret();
  const own = eq(links.invitationId, invitationId);
  const old = db
    .select({ id: links.id })
    .from(links)
    .where(own)
    .orderBy(desc(links.id))
    .offset(MOST - 1)
    .limit(1_000);
  db.delete(links)
    .where(and(own, inArray(links.id, old)))
    .run();
  db.insert(links)
    .values({ invitationId, hash: sha256(secret), madeAt: at })
    .run();
  return secret;
}

/** A link that never reached anybody. */
export const dropLink = (db: Db, secret: string): void =>
  void db
    .delete(links)
    .where(eq(links.hash, sha256(secret)))
    .run();

/** The invitation to which a secret link leads. */
export const findByLink = (db: Db, secret: string): number | null =>
  db
    .select({ id: links.invitationId })
    .from(links)
    .where(eq(links.hash, sha256(secret)))
    .get()?.id ?? null;
