import { and, asc, eq } from 'drizzle-orm';
import { changedItem } from '../../core/corrections/change';
import type { Item } from '../../core/papers/paper';
import type { Db } from '../db/open';
import { keyCorrections } from '../db/schema';

export type Correction = typeof keyCorrections.$inferSelect;
type Version = Pick<Item, 'key' | 'version'>;

/** The corrections of an item version, in the order in which they were made, those that take another back among them. */
export const correctionsOf = (db: Db, { key, version }: Version): Correction[] =>
  db
    .select()
    .from(keyCorrections)
    .where(and(eq(keyCorrections.item, key), eq(keyCorrections.version, version)))
    .orderBy(asc(keyCorrections.id))
    .all();

/**
 * Does a correction count for how scripts are judged? A key at once, so that who hands in now is marked by it. A ruling, and
 * the end of one, when its job is done: what released results keep is known then.
 */
function counts(correction: Correction, all: readonly Correction[]): boolean {
  const about =
    correction.takesBack === null ? correction : all.find((one) => one.id === correction.takesBack);
  return about?.change?.type === 'ruling' ? correction.finishedAt !== null : true;
}

/** Of the corrections of an item version those that count and were not taken back. */
export function standingOf(all: readonly Correction[], isCounted = counts): Correction[] {
  const counted = all.filter((one) => isCounted(one, all));
  const gone = new Set(counted.flatMap(({ takesBack }) => (takesBack === null ? [] : [takesBack])));
  return counted.filter(({ id, change }) => change !== null && !gone.has(id));
}

/** An item version with these corrections. One that does not fit any more, as after another key, changes nothing. */
export const itemWith = (item: Item, standing: readonly Pick<Correction, 'part' | 'change'>[]): Item =>
  standing.reduce((before, { part, change }) => {
    const made = change === null ? { item: before } : changedItem(before, part, change);
    return 'item' in made ? made.item : before;
  }, item);

/** An item version with all that was corrected of it. */
export const withCorrections = (db: Db, item: Item): Item =>
  itemWith(item, standingOf(correctionsOf(db, item)));
