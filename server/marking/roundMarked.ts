import { desc, eq } from 'drizzle-orm';
import { markedPaper, maximumOf, type MarkedPaper } from '../../core/results/attempts';
import type { Band } from '../../core/results/bands';
import type { FullPaper } from '../../core/papers/paper';
import type { Db } from '../db/open';
import { roundBands, type rounds } from '../db/schema';
import { paperOfVersion } from '../papers/papers';

type Round = typeof rounds.$inferSelect;

/** The bands that a lead has set for a round; null where nobody has. */
export const bandsSet = (db: Db, round: number): typeof roundBands.$inferSelect | null =>
  db
    .select()
    .from(roundBands)
    .where(eq(roundBands.roundId, round))
    .orderBy(desc(roundBands.id))
    .limit(1)
    .get() ?? null;

/**
 * The bands of a round: as a lead has set them, else as the paper has them. Null where they are to be set: for the first
 * time after the marking, or anew as the maximum is another one.
 */
function bandsOf(
  db: Db,
  { id, settings }: Pick<Round, 'id' | 'settings'>,
  { paper, marked }: { readonly paper: FullPaper; readonly marked: MarkedPaper },
): readonly Band[] | null {
  const set = bandsSet(db, id);
  if (set === null && settings.bandsAfterwards) return null;
  const { bands, of } = set ?? { bands: paper.bands, of: marked.of };
  return bands.length === 0 || of === maximumOf(marked) ? bands : null;
}

/** What the results of a round are worked out by. */
export interface RoundMarked {
  readonly paper: FullPaper;
  readonly marked: MarkedPaper;
  /** Null where they are to be set. */
  readonly bands: readonly Band[] | null;
}

/** By the paper as it is judged now, or another one. */
export function roundMarked(
  db: Db,
  round: Pick<Round, 'id' | 'paperVersionId' | 'settings'>,
  paper: FullPaper = paperOfVersion(db, round.paperVersionId),
): RoundMarked {
  const marked = markedPaper(paper, round.settings.withdrawn);
  return { paper, marked, bands: bandsOf(db, round, { paper, marked }) };
}
