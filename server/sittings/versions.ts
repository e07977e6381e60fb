import { and, asc, eq } from 'drizzle-orm';
import type { AnswerVersion } from '../../core/sittings/api';
import type { Db } from '../db/open';
import { journal } from '../db/schema';
import { sittingQueries } from './queries';
import { valueOf } from './values';

/** Writing that rests for so long has come to a version worth looking at. */
const REST_MS = 20_000;
const MOST = 30;
/** So many ends of writing are looked at: each may stand on a row of patches. */
const MOST_ENDS = 60;

/**
 * Versions of an answer to look through: where writing rested, and the last of each hold; newest first, without those
 * that are alike.
 */
export function versionsOf(db: Db, sitting: number, target: string): AnswerVersion[] {
  const own = and(eq(journal.sittingId, sitting), eq(journal.about, 'answer'), eq(journal.target, target));
  const rows = db
    .select({
      hold: journal.hold,
      number: journal.number,
      at: journal.claimedAt,
      aside: journal.aside,
      arrivedAt: journal.arrivedAt,
    })
    .from(journal)
    .where(own)
    .orderBy(asc(journal.hold), asc(journal.number))
    .all()
    .filter((row) => row.aside === null);
  const latest = sittingQueries(db).holdsOf(sitting).at(-1)?.number;
  const ends = rows.filter((row, i) => {
    const next = rows[i + 1];
    return !next || next.hold !== row.hold || next.at - row.at >= REST_MS;
  });
  const versions: AnswerVersion[] = [];
  let before: string | null = null;
  for (const { hold, number, at, arrivedAt } of ends.slice(-MOST_ENDS)) {
    const value = valueOf(sittingQueries(db), sitting, { hold, number });
    if (!value || value.text === before) continue;
    before = value.text;
    versions.push({
      hold,
      number,
      at: Math.min(at, arrivedAt),
      elsewhere: hold !== latest,
      value: JSON.parse(value.text) as unknown,
    });
  }
  return versions.reverse().slice(0, MOST);
}
