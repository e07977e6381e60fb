import { eq, max } from 'drizzle-orm';
import { sumMarks } from '../../core/marks';
import { buildCandidatePaper } from '../../core/papers/candidatePaper';
import { progressOfPaper } from '../../core/sittings/progress';
import { journal } from '../db/schema';
import { findPaper } from '../rounds/queries';
import type { Services } from '../services';
import type { FoundSitting } from '../sittings/queries';
import { deskOf } from '../sittings/receipt';

/** What was worked out last, by sitting: the fold of a journal is only done again when something has been added. */
const known = new WeakMap<object, Map<number, { arrival: number; share: number }>>();

/** Share (0..1) of the paper's marks whose parts are done. */
export function marksDoneOf({ db }: Services, { sitting, paperId }: FoundSitting): number {
  const cache = known.get(db) ?? new Map<number, { arrival: number; share: number }>();
  known.set(db, cache);
  const last = db
    .select({ arrival: max(journal.arrival) })
    .from(journal)
    .where(eq(journal.sittingId, sitting.id))
    .get();
  const arrival = last?.arrival ?? 0;
  const before = cache.get(sitting.id);
  if (before?.arrival === arrival) return before.share;
  const paper = buildCandidatePaper(findPaper(db, paperId)!.document, sitting.seed);
  const open = sumMarks(progressOfPaper(deskOf({ db }, sitting.id), paper).map((p) => p.open));
  const share = 1 - open / paper.marks;
  cache.set(sitting.id, { arrival, share });
  return share;
}
