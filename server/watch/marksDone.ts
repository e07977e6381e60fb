import { sumMarks } from '../../core/marks';
import { progressOfPaper } from '../../core/sittings/progress';
import { perDatabase } from '../db/perDatabase';
import { formById } from '../forms/forms';
import { sittingQueries, type FoundSitting } from '../sittings/queries';
import { deskOf } from '../sittings/values';
import type { HasDb } from '../db/open';

/** Of those who have handed in nothing changes any more: worked out once. */
const handedIn = perDatabase(() => new Map<string, number>());
const KEPT = 20_000;

function worked({ db }: HasDb, { sitting }: FoundSitting): number {
  const { paper } = formById(db, sitting.formId);
  const desk = deskOf(sittingQueries(db).currentOf(sitting.id));
  const open = sumMarks(progressOfPaper(desk, paper).map((p) => p.open));
  return 1 - open / paper.marks;
}

/** Share (0..1) of the paper's marks whose parts are done. */
export function marksDoneOf(services: HasDb, found: FoundSitting): number {
  const { id, settledAt } = found.sitting;
  if (settledAt === null) return worked(services, found);
  const known = handedIn(services.db);
  // Settled again after late entries or a decision, it is another state.
  const key = `${id} ${settledAt}`;
  const share = known.get(key) ?? worked(services, found);
  if (known.size >= KEPT) known.clear();
  known.set(key, share);
  return share;
}
