import type { Hundredths } from '../../marks';
import { shareOfMarks } from '../../marks';
import type { Score } from '../contract';

export const unanswered: Score = { hundredths: 0, verdict: 'unanswered', reasons: [] };

/** A score for `right` of `all`, with the verdict that follows from it. */
export function scoreShare(
  maximum: Hundredths,
  right: number,
  all: number,
  reasons: readonly string[],
): Score {
  const hundredths = shareOfMarks(maximum, right, all);
  const verdict = right >= all ? 'right' : right > 0 ? 'partly' : 'wrong';
  return { hundredths, verdict, reasons };
}

export const plural = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;
