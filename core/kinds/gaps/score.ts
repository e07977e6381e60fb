import { message } from '../../messages/message';
import { matchesText, normaliseText } from '../../text/compareText';
import type { Component, Content, Credit, ScoringInput } from '../contract';
import { creditOf, share, unansweredCredit, weightedComponents } from '../shared/credits';
import { isSameOption } from '../shared/entries';
import type { GapRule, GapsAsked, GapsKey } from './content';
import { filledIn, isOneWord } from './filled';
import type { GapsResponse } from './response';

/** One component a gap, by the weights of the author. */
export const gapComponents = ({ gaps }: GapsAsked, marks: number): Component[] =>
  weightedComponents(
    gaps.map(({ key, weight }, i) => ({ key, name: message('gaps.component', { gap: i + 1 }), weight })),
    marks,
  );

/** The share of a gap's marks that an answer earns, in per cent: that of the accepted variant that earns most. */
export function percentOf(rule: GapRule, given: string): number {
  if (rule.by === 'list') return isSameOption(rule.right, given) ? 100 : 0;
  const fitting = rule.accepted.filter(({ text }) => matchesText(given, text, rule));
  return Math.max(0, ...fitting.map(({ percent }) => percent));
}

/** Has nothing been entered, or nothing that can be seen? */
const isBlank = (given: string) => normaliseText(given, { ignoreCase: false, ignoreAccents: false }) === '';

export function scoreGaps({
  content: { asked, key },
  response,
  place,
}: ScoringInput<GapsAsked, GapsKey, GapsResponse, null>): Credit[] {
  return gapComponents(asked, place.marks).map((component, i) => {
    const gap = asked.gaps[i]!;
    const given = filledIn(response, gap.key);
    if (isBlank(given)) return unansweredCredit(component);
    // The page says that one word belongs here; what breaks its limit earns nothing.
    if (gap.by === 'typing' && gap.oneWord && !isOneWord(given))
      return creditOf(component, share(0, 1), [message('gaps.oneWordOnly', { gap: i + 1 })]);
    return creditOf(component, share(percentOf(key.gaps[gap.key]!, given), 100), []);
  });
}

export const isRightIn = ({ key }: Content<GapsAsked, GapsKey>, gap: string, given: string): boolean =>
  percentOf(key.gaps[gap]!, given) === 100;
