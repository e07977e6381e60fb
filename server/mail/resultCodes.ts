import { randomInt } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { MINUTE_MS } from '../../core/timing/deadline';
import type { Db } from '../db/open';
import { resultCodes } from '../db/schema';
import { sha256 } from '../secrets';
import { sameDigits, sixDigits } from '../sixDigits';

/** How long a code can be used. */
export const CODE_MS = 15 * MINUTE_MS;
/** Tries that one code bears: with six digits, nobody hits it by chance. */
export const TRIES = 5;

const hashOf = (invitationId: number, code: string) => sha256(`${invitationId} ${code}`);

/** Makes the code that shows the result of an invitation once, in place of an earlier one. Only its hash is stored. */
export function makeResultCode(db: Db, invitationId: number, at: number): string {
  const code = sixDigits(randomInt(1_000_000));
  const values = { hash: hashOf(invitationId, code), madeAt: at, tries: 0 };
  db.insert(resultCodes)
    .values({ invitationId, ...values })
    .onConflictDoUpdate({ target: resultCodes.invitationId, set: values })
    .run();
  return code;
}

export type CodeCheck = 'right' | 'wrong' | 'ended';

/** Tries a code: the right one is used up by it. Part of a commit, and committed whatever comes of it. */
export function tryResultCode(db: Db, invitationId: number, given: string, now: number): CodeCheck {
  const own = eq(resultCodes.invitationId, invitationId);
  const found = db.select().from(resultCodes).where(own).get();
  if (!found || now >= found.madeAt + CODE_MS || found.tries >= TRIES) return 'ended';
  // As it is written in the letter.
  const code = sixDigits(Number(given.normalize('NFKC').replace(/\D/g, '')));
  if (sameDigits(given, code) && hashOf(invitationId, code) === found.hash) {
    db.delete(resultCodes).where(own).run();
    return 'right';
  }
  db.update(resultCodes)
    .set({ tries: found.tries + 1 })
    .where(own)
    .run();
  return found.tries + 1 >= TRIES ? 'ended' : 'wrong';
}
