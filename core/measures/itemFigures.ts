import { correlation } from './correlation';
import { shareOf } from './share';
import type { Estimate } from './estimate';
import { meanEstimate } from './mean';

/** One script's marks of a part, and of all its other parts. */
export interface PartMarks {
  readonly hundredths: number;
  /** Null while something else of the script is not marked. */
  readonly rest: number | null;
  readonly answered: boolean;
}

/** How a part did among those who were asked it. */
export interface ItemFigures {
  /** The mean mark as a share of the maximum: 0 where nobody earned anything, 1 where everybody earned all. */
  readonly facility: Estimate;
  /**
   * Pearson's correlation of the part's mark with the marks of all other parts (the corrected item–total correlation, Lord
   * and Novick 1968, 15.5), of scripts that are marked in full: below 0 where weaker candidates did better.
   */
  readonly itemRest: Estimate;
  /** The share of those who gave no answer. */
  readonly omitted: Estimate;
}

export function itemFigures(marks: readonly PartMarks[], of: number): ItemFigures {
  const whole = marks.flatMap(({ hundredths, rest }) => (rest === null ? [] : [[hundredths, rest] as const]));
  return {
    facility: meanEstimate(marks.map((one) => one.hundredths / of)),
    itemRest: correlation(whole),
    omitted: shareOf(marks.filter(({ answered }) => !answered).length, marks.length),
  };
}
