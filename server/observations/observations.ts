import { asc, desc, eq } from 'drizzle-orm';
import { firstBrokenLink, firstLink, linkOf, type Observation } from '../../core/observations/observation';
import type { Db } from '../db/open';
import { observations, sittings } from '../db/schema';
import { sha256 } from '../secrets';

const scriptOf = (db: Db, sittingId: number) =>
  db.select({ script: sittings.script }).from(sittings).where(eq(sittings.id, sittingId)).get()!.script;

/** Adds an observation to the chain of its sitting; part of whatever commit it is made in. */
export function observe(db: Db, sittingId: number, observation: Observation): void {
  const last = db
    .select({ hash: observations.hash })
    .from(observations)
    .where(eq(observations.sittingId, sittingId))
    .orderBy(desc(observations.id))
    .limit(1)
    .get();
  const before = last?.hash ?? firstLink(scriptOf(db, sittingId), sha256);
  const hash = linkOf(before, observation, sha256);
  db.insert(observations)
    .values({ sittingId, ...observation, hash })
    .run();
}

export const observationsOf = (db: Db, sittingId: number) =>
  db
    .select()
    .from(observations)
    .where(eq(observations.sittingId, sittingId))
    .orderBy(asc(observations.id))
    .all();

/** The place of the first observation of a sitting that was altered or follows a missing one; null where all is well. */
export const brokenObservation = (db: Db, sittingId: number): number | null =>
  firstBrokenLink(firstLink(scriptOf(db, sittingId), sha256), observationsOf(db, sittingId), sha256);
