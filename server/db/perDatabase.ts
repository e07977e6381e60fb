import type { Db } from './open';

/** Makes something once for each database, as its prepared statements, and keeps it as long as that is open. */
export function perDatabase<T>(make: (db: Db) => T): (db: Db) => T {
  const made = new WeakMap<Db, { readonly it: T }>();
  return (db) => {
    const known = made.get(db) ?? { it: make(db) };
    made.set(db, known);
    return known.it;
  };
}
