import { desc, eq, or, sql, type SQL } from 'drizzle-orm';
import type { Db } from '../db/open';
import { people } from '../db/schema';
import { conflict } from '../http/errors';
import { likeOf } from '../reading/read';

export type Person = typeof people.$inferSelect;

export interface Named {
  readonly name: string;
  readonly email: string;
  /** Null where the next free one is to be given to somebody new. */
  readonly reference: string | null;
}

const FIRST_NUMBER = 2201;

function nextReference(db: Db): string {
  const last = db.select({ id: people.id }).from(people).orderBy(desc(people.id)).limit(1).get();
  for (let number = FIRST_NUMBER + (last?.id ?? 0); ; number++) {
    // Somebody may have been given it by hand.
    const reference = `HR-${number}`;
    if (!db.select().from(people).where(eq(people.reference, reference)).get()) return reference;
  }
}

/** People by a part of their name, address or reference; undefined, for everybody, where nothing is searched for. */
export const peopleLike = (search: string): SQL | undefined =>
  search === ''
    ? undefined
    : or(
        ...[people.name, people.email, people.reference].map(
          (column) => sql`${column} like ${likeOf(search)} escape '\\'`,
        ),
      );

/**
 * The person who is meant: by the reference number where one is given, else by the address; somebody new where neither
 * is known. A person may be invited to any number of rounds. Part of a commit.
 */
export function findOrAddPerson(db: Db, { name, email, reference }: Named): Person {
  const byReference =
    reference === null ? undefined : db.select().from(people).where(eq(people.reference, reference)).get();
  if (byReference && byReference.email !== email)
    throw conflict('reference-taken', { values: { reference: reference! } });
  const known = byReference ?? db.select().from(people).where(eq(people.email, email)).get();
  if (known && reference !== null && known.reference !== reference)
    throw conflict('address-known', { values: { email, reference: known.reference } });
  if (known) return known;
  const values = { name, email, reference: reference ?? nextReference(db) };
  return db.insert(people).values(values).returning().get();
}
