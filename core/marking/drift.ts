import type { Estimate } from '../measures/estimate';
import { meanEstimate } from '../measures/mean';
import type { Hundredths } from '../marks';

/** A mark as it was given, in the order of time. */
export interface MarkInTime {
  readonly at: number;
  /**
   * By how much it lies above what it is compared with: the agreed mark of a standardisation script, or the mark of another
   * assessor without that one's own severity. Null where there is nothing to compare with.
   */
  readonly above: Hundredths | null;
}

/** How severe somebody was over time; in hundredths of a mark, above 0 for lenient. */
export interface Drift {
  /** By tenth of all that they have marked, the first marks first. */
  readonly byTenth: readonly Estimate[];
  /** By day, as `dayOf` names it. */
  readonly byDay: readonly { readonly day: string; readonly severity: Estimate }[];
}

const TENTHS = 10;

const meanAbove = (marks: readonly MarkInTime[]): Estimate =>
  meanEstimate(marks.flatMap(({ above }) => (above === null ? [] : [above])));

/**
 * The mean deviation of one assessor's marks by tenth of their pile and by day, each with Student's interval of 95 %. Tenths
 * count every mark, compared or not, so that a tenth is always the same share of the work.
 */
export function driftOf(marks: readonly MarkInTime[], dayOf: (at: number) => string): Drift {
  const inOrder = marks.toSorted((a, b) => a.at - b.at);
  const tenthOf = (i: number) => Math.floor((TENTHS * i) / inOrder.length);
  const days = [...new Set(inOrder.map(({ at }) => dayOf(at)))];
  return {
    byTenth: Array.from({ length: TENTHS }, (_, tenth) =>
      meanAbove(inOrder.filter((_one, i) => tenthOf(i) === tenth)),
    ),
    byDay: days.map((day) => ({ day, severity: meanAbove(inOrder.filter(({ at }) => dayOf(at) === day)) })),
  };
}
