import { and, asc, eq } from 'drizzle-orm';
import { keyKindOf } from '../../core/kinds/keyKinds';
import type { Item } from '../../core/papers/paper';
import type { Db } from '../db/open';
import { keyCorrections } from '../db/schema';

export type Correction = typeof keyCorrections.$inferSelect;

/** One more answer that counts as right, in one component of a part. */
export interface AcceptedAnswer {
  readonly part: string;
  readonly component: string;
  readonly answer: string;
}

/** An item as it is judged with one more answer accepted; null where its kind cannot. */
export function acceptIn(item: Item, { part: letter, component, answer }: AcceptedAnswer): Item | null {
  const part = item.parts.find((one) => one.key === letter);
  if (!part) return null;
  const key = keyKindOf(part.kind).accept(part.content, component, answer);
  if (key === null) return null;
  const corrected = { ...part, content: { ...part.content, key } };
  return { ...item, parts: item.parts.map((one) => (one === part ? corrected : one)) };
}

/** The corrections of an immutable version, in the order in which they were made. */
const correctionsOf = (db: Db, { key, version }: Item): Correction[] =>
  db
    .select()
    .from(keyCorrections)
    .where(and(eq(keyCorrections.item, key), eq(keyCorrections.version, version)))
    .orderBy(asc(keyCorrections.id))
    .all();

/** An item version with all that was accepted beside it. */
export const withCorrections = (db: Db, item: Item): Item =>
  correctionsOf(db, item).reduce((made, correction) => acceptIn(made, correction) ?? made, item);
