import { showMarks, sumMarks, type Hundredths } from '../marks';
import { message, type Message } from '../messages/message';
import type { AttemptRule } from '../rounds/api';
import type { ComponentMark } from './componentMark';

export interface Attempt {
  readonly attempt: number;
  readonly marks: readonly ComponentMark[];
  readonly total: Hundredths;
}

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
      const best = Math.max(...inOrder.map((a) => a.total));
      return inOrder.filter((a) => a.total === best).slice(-1);
    },
  };
  return counted[rule]();
}

export interface CountedMarks {
  readonly marks: readonly ComponentMark[];
  /** Of which attempts a part's mark is the mean, by target. */
  readonly remarks: Readonly<Record<string, readonly Message[]>>;
}

const marksOn = ({ marks }: Attempt, target: string) => marks.filter((m) => m.target === target);

/** What a mean of marks is the mean of. */
const remarkOf = (each: readonly Hundredths[]): Message =>
  message('sheet.meanOf', { count: each.length, marks: each.map(showMarks).join(', ') });

/**
 * The mean of a part's marks in several attempts, rounded half up to a hundredth once a part, and spread over the latest
 * attempt's components by what each is worth: verdicts and levels of one attempt would not be those of the mean.
 */
function meanMarks(counted: readonly Attempt[], target: string): [ComponentMark[], Message] {
  const each = counted.map((attempt) => sumMarks(marksOn(attempt, target).map((m) => m.hundredths)));
  const mean = Math.floor(sumMarks(each) / each.length + 0.5);
  const latest = marksOn(counted.at(-1)!, target);
  const means = latest.map(({ component }) => {
    const own = counted.flatMap((a) => marksOn(a, target).filter((m) => m.component === component));
    return Math.floor(sumMarks(own.map((m) => m.hundredths)) / each.length);
  });
  // What rounding down has left goes to the first components, a hundredth each.
  let left = mean - sumMarks(means);
  const marks = latest.map((mark, i) => {
    const more = left > 0 ? 1 : 0;
    left -= more;
    return { ...mark, hundredths: means[i]! + more, verdict: null, level: null };
  });
  return [marks, remarkOf(each)];
}

/**
 * The marks a result is made of: those of the attempt that counts, or part by part the mean of all that count, so that
 * what the sheet shows still adds up. Every attempt has marks for the same parts.
 */
export function marksOfCounted(counted: readonly Attempt[]): CountedMarks {
  if (counted.length <= 1) return { marks: counted[0]?.marks ?? [], remarks: {} };
  const targets = [...new Set(counted[0]!.marks.map((m) => m.target))];
  const means = targets.map((target) => [target, meanMarks(counted, target)] as const);
  return {
    marks: means.flatMap(([, [marks]]) => marks),
    remarks: Object.fromEntries(means.map(([target, [, remark]]) => [target, [remark]])),
  };
}
