import { sumMarks, type Hundredths } from '../marks';
import type { CandidatePaper } from '../papers/candidatePaper';
import type { ComponentMark } from './componentMark';

/** A section's total: penalties can take it to nothing, never below. */
export const floored = (marks: readonly Hundredths[]): Hundredths => Math.max(0, sumMarks(marks));

/** The total of a script: of its sections, each never below 0. */
export function totalOf(
  paper: CandidatePaper,
  marks: readonly Pick<ComponentMark, 'target' | 'hundredths'>[],
): Hundredths {
  const sectionOf = new Map(paper.questions.flatMap((q) => q.parts.map((p) => [p.target, q.section])));
  const own = (key: string) => marks.filter((m) => sectionOf.get(m.target) === key).map((m) => m.hundredths);
  return sumMarks(paper.sections.map(({ key }) => floored(own(key))));
}
