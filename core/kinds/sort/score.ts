import { message } from '../../messages/message';
import type { Component, Content, Credit, ScoringInput } from '../contract';
import { creditOf, share, unansweredCredit, weightedComponents } from '../shared/credits';
import type { SortArrangement, SortAsked, SortKey } from './content';
import { binsOf, chipsIn, type SortResponse } from './response';

/** One component a chip, in the author's order. */
export const chipComponents = ({ chips }: SortAsked, marks: number): Component[] =>
  weightedComponents(
    chips.map(({ key, text, weight }) => ({ key, name: message('author.text', { text }), weight })),
    marks,
  );

/** Is a chip in exactly the bins of the key? */
export function isRightChip({ key }: Content<unknown, SortKey>, chip: string, bins: readonly string[]) {
  const right = binsOf(key, chip);
  return bins.length === right.length && right.every((bin) => bins.includes(bin));
}

/**
 * Chip by chip. What belongs nowhere is right where it is left over and wrong where it was placed; what belongs
 * somewhere and is left over is unanswered. What breaks a limit that the page keeps earns nothing.
 */
export function scoreSort({
  content,
  response,
  place,
}: ScoringInput<SortAsked, SortKey, SortResponse, SortArrangement>): Credit[] {
  const { bins, often } = content.asked;
  const overfull = bins
    .filter(({ key, limit }) => limit !== null && chipsIn(response, key).length > limit)
    .map(({ key }) => key);
  return chipComponents(content.asked, place.marks).map((component) => {
    const placed = binsOf(response, component.key);
    const belongs = binsOf(content.key, component.key).length > 0;
    if (placed.length === 0)
      return belongs ? unansweredCredit(component) : creditOf(component, share(1, 1), []);
    const broken = placed.some((bin) => overfull.includes(bin)) || (!often && placed.length > 1);
    const right = !broken && isRightChip(content, component.key, placed);
    return creditOf(component, share(right ? 1 : 0, 1), []);
  });
}
