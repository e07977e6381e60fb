import { eq } from 'drizzle-orm';
import { findInvited } from './queries';
import type { Db } from '../db/open';
import { keyCorrections, letters, packs, sittings } from '../db/schema/index';
import { findRound } from '../schedule/queries';

/** What a job is about, as staff know it; undefined where it is there no more. */
export const subjectsOf = (db: Db) => {
  const round = (id: number) => findRound(db, id)?.title;
  return {
    round,
    /** The code of its script. */
    sitting: (id: number) => db.select().from(sittings).where(eq(sittings.id, id)).get()?.script,
    /** The reference of who was invited. */
    invitation: (id: number) => findInvited(db, id)?.person.reference,
    /** To whom it goes. */
    letter: (id: number) => db.select().from(letters).where(eq(letters.id, id)).get()?.to,
    pack: (id: number) => {
      const pack = db.select().from(packs).where(eq(packs.id, id)).get();
      return pack && round(pack.roundId);
    },
    correction: (id: number) => {
      const correction = db.select().from(keyCorrections).where(eq(keyCorrections.id, id)).get();
      return correction && `${correction.item}/${correction.part}`;
    },
  };
};
