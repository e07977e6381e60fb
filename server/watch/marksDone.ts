import { sumMarks } from '../../core/marks';
import { progressOfPaper } from '../../core/sittings/progress';
import { formById } from '../forms/forms';
import type { Services } from '../services';
import { sittingQueries, type FoundSitting } from '../sittings/queries';
import { deskOf } from '../sittings/values';

/** Share (0..1) of the paper's marks whose parts are done. */
export function marksDoneOf({ db }: Services, { sitting }: FoundSitting): number {
  const { paper } = formById(db, sitting.formId);
  const desk = deskOf(sittingQueries(db).currentOf(sitting.id));
  const open = sumMarks(progressOfPaper(desk, paper).map((p) => p.open));
  return 1 - open / paper.marks;
}
