import { scaledTotal } from '../corrections/judgedMarks';
import { sumMarks, type Hundredths } from '../marks';
import type { CandidatePaper } from '../papers/candidatePaper';
import type { WithdrawnRule } from '../papers/ruling';
import type { ComponentMark } from './componentMark';

/** A section's total: penalties can take it to nothing, never below. */
export const floored = (marks: readonly Hundredths[]): Hundredths => Math.max(0, sumMarks(marks));

/** How a paper's marks become a total. */
export interface Counting {
  /** Any copy: forms differ in what is drawn for them and in its order, never in what they are worth. */
  readonly copy: CandidatePaper;
  /** What a whole form is worth. */
  readonly of: Hundredths;
  readonly withdrawn: WithdrawnRule;
}

/** What the parts of a script are worth that were withdrawn. */
function withdrawnIn({ copy }: Counting, marks: readonly Pick<ComponentMark, 'target' | 'verdict'>[]) {
  const gone = new Set(marks.filter(({ verdict }) => verdict === 'withdrawn').map(({ target }) => target));
  if (gone.size === 0) return 0;
  const parts = copy.questions.flatMap((question) => question.parts);
  return sumMarks(parts.filter(({ target }) => gone.has(target)).map((part) => part.marks));
}

export interface Total {
  readonly hundredths: Hundredths;
  /** What it is out of. */
  readonly of: Hundredths;
  /** Before it was scaled, and out of what; null where it was not. */
  readonly scaledFrom: { readonly hundredths: Hundredths; readonly of: Hundredths } | null;
}

/**
 * The total of a script: of its sections, each never below 0. Where a part was withdrawn, by the round's rule: out of less,
 * or scaled to all of it.
 */
export function totalOf(
  counting: Counting,
  marks: readonly Pick<ComponentMark, 'target' | 'hundredths' | 'verdict'>[],
): Total {
  const { copy, of, withdrawn } = counting;
  const sectionOf = new Map(copy.questions.flatMap((q) => q.parts.map((p) => [p.target, q.section])));
  const own = (key: string) => marks.filter((m) => sectionOf.get(m.target) === key).map((m) => m.hundredths);
  const sum = sumMarks(copy.sections.map(({ key }) => floored(own(key))));
  const gone = withdrawnIn(counting, marks);
  if (gone === 0) return { hundredths: sum, of, scaledFrom: null };
  const left = of - gone;
  if (withdrawn === 'lowered') return { hundredths: sum, of: left, scaledFrom: null };
  return {
    hundredths: scaledTotal(sum, left, of),
    of,
    scaledFrom: { hundredths: sum, of: left },
  };
}
