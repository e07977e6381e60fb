import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { invitations, links, rounds } from '../db/schema';
import { newSecret, sha256 } from '../secrets';
import { QUERIES_MS } from '../http/sessions';

/**
 * Each sending makes a link of its own. Of those in invitations the newest stay valid, and apart from them the newest of
 * those that were asked for.
 */
const MOST = 20;

/** Makes a secret link for an invitation. Only its hash is stored: the link stands in the letter alone. */
export function makeLink(db: Db, invitationId: number, at: number, { asked = false } = {}): string {
  const secret = newSecret();
  const own = and(eq(links.invitationId, invitationId), eq(links.asked, asked));
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
    .values({ invitationId, hash: sha256(secret), madeAt: at, asked })
    .run();
  return secret;
}

/** A link that never reached anybody. */
export const dropLink = (db: Db, secret: string): void =>
  void db
    .delete(links)
    .where(eq(links.hash, sha256(secret)))
    .run();

/** Links of an invitation that fell into other hands. */
export const revokeLinks = (db: Db, invitationId: number): void =>
  void db.delete(links).where(eq(links.invitationId, invitationId)).run();

const byHash = perDatabase((db) =>
  db
    .select({ id: links.invitationId, closesAt: rounds.closesAt })
    .from(links)
    .innerJoin(invitations, eq(invitations.id, links.invitationId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(eq(links.hash, sql.placeholder('hash')))
    .prepare(),
);

/** The invitation to which a secret link leads; none once the time for queries after the round is over. */
export function findByLink(db: Db, secret: string, now: number): number | null {
  const found = byHash(db).get({ hash: sha256(secret) });
  return found && now < found.closesAt + QUERIES_MS ? found.id : null;
}
