import { showMarks, sumMarks } from '../marks';
import type { AttemptRule } from '../rounds/api';
import type { PartMark } from './resultSheet';

export interface Attempt {
  readonly attempt: number;
  readonly marks: readonly PartMark[];
}

const totalOf = ({ marks }: Attempt) => sumMarks(marks.map((m) => m.hundredths));

/**
 * Of several attempts those that the result is made of, by the round's rule, in the order in which they were made: one,
 * or all of them for `mean`. Of equally good ones the later counts. Empty where there was none.
 */
export function countedAttempts<A extends Attempt>(attempts: readonly A[], rule: AttemptRule): A[] {
  const inOrder = [...attempts].sort((a, b) => a.attempt - b.attempt);
  const counted: Record<AttemptRule, () => A[]> = {
    first: () => inOrder.slice(0, 1),
    latest: () => inOrder.slice(-1),
    mean: () => inOrder,
    best: () => {
      const best = Math.max(...inOrder.map(totalOf));
      return inOrder.filter((a) => totalOf(a) === best).slice(-1);
    },
  };
  return counted[rule]();
}

/** The mean of a part's marks in several attempts, rounded half up to a hundredth, with what it is the mean of. */
function meanMark(own: readonly PartMark[]): PartMark {
  const latest = own.at(-1)!;
  const hundredths = Math.floor(sumMarks(own.map((m) => m.hundredths)) / own.length + 0.5);
  const each = own.map((m) => showMarks(m.hundredths)).join(' and ');
  const reason = `The mean of your ${own.length} attempts, which were marked ${each}. The answer shown is the latest.`;
  return { ...latest, hundredths, verdict: null, levels: null, reasons: [reason, ...latest.reasons] };
}

/**
 * The marks a result is made of: those of the attempt that counts, or part by part the mean of all that count, so that
 * what the sheet shows still adds up. Every attempt has a mark for the same parts.
 */
export function marksOfCounted(counted: readonly Attempt[]): readonly PartMark[] {
  if (counted.length <= 1) return counted[0]?.marks ?? [];
  return counted[0]!.marks.map(({ target }) =>
    meanMark(counted.map(({ marks }) => marks.find((m) => m.target === target)!)),
  );
}
