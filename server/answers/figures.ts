import type { PartFigures } from '../../core/answers/api';
import { sumMarks } from '../../core/marks';
import { itemFigures, type PartMarks } from '../../core/measures/itemFigures';
import { isFullyMarked, markedComponents } from '../../core/results/componentMark';
import { markedPaper } from '../../core/results/attempts';
import { standingMarksOf, type Mark } from '../marking/marks';
import { paperOfVersion } from '../papers/papers';
import type { Reading } from '../reading/read';
import { findRound } from '../schedule/queries';
import { notFound } from '../http/errors';
import { scriptsOf } from '../sittings/scriptsOf';
import { answeredParts } from './table';

/**
 * How each part of a round did, by the marks that were given, whatever was decided of it since. A script counts for a part
 * once that part is marked.
 */
export function partFigures(reading: Reading, roundId: number): PartFigures[] {
  const round = findRound(reading.db, roundId);
  if (!round) throw notFound('noRound');
  const paper = paperOfVersion(reading.db, round.paperVersionId);
  const { components, of, rulings, copy } = markedPaper(paper, round.settings.withdrawn);
  const worth = new Map(copy.questions.flatMap((q) => q.parts.map((part) => [part.target, part.marks])));
  const found = new Map<string, PartMarks[]>([...components.keys()].map((target) => [target, []]));
  const scored = scriptsOf(reading.db, roundId).filter(({ scoredAt }) => scoredAt !== null);
  const all = standingMarksOf(
    reading.db,
    scored.map(({ id }) => id),
  );
  for (const marks of all.values()) {
    const total = isFullyMarked(components, marks, of)
      ? sumMarks(marks.map((mark) => mark.hundredths))
      : null;
    const byTarget = new Map<string, Mark[]>();
    for (const mark of marks) byTarget.set(mark.target, [...(byTarget.get(mark.target) ?? []), mark]);
    for (const [target, own] of byTarget) {
      const asked = markedComponents(components.get(target) ?? [], own);
      if (!asked.every(({ key }) => own.some((mark) => mark.component === key))) continue;
      const hundredths = sumMarks(own.map((mark) => mark.hundredths));
      const answered = own.some(({ verdict }) => verdict !== 'unanswered');
      found.get(target)?.push({ hundredths, rest: total === null ? null : total - hundredths, answered });
    }
  }
  return answeredParts(reading, roundId).map((part) => ({
    ...part,
    of: worth.get(part.target)!,
    ruling: rulings.get(part.target) ?? null,
    ...itemFigures(found.get(part.target) ?? [], worth.get(part.target)!),
  }));
}
