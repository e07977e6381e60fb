import { message } from '../../messages/message';
import type { Component, Credit, ScoringInput } from '../contract';
import { creditOf, share, unansweredCredit, weightedComponents } from '../shared/credits';
import type { MatchArrangement, MatchAsked, MatchKey } from './content';
import type { MatchResponse } from './response';

/** One component a pair, by its entry on the left. */
export const pairComponents = ({ left }: MatchAsked, marks: number): Component[] =>
  weightedComponents(
    left.map(({ key, text, weight }) => ({ key, name: message('author.text', { text }), weight })),
    marks,
  );

/** Pair by pair. What has no partner is right without one and wrong with one. */
export function scoreMatch({
  content: { asked, key },
  response: { pairs },
  place,
}: ScoringInput<MatchAsked, MatchKey, MatchResponse, MatchArrangement>): Credit[] {
  const uses = Object.values(pairs);
  return pairComponents(asked, place.marks).map((component) => {
    const [given, right] = [pairs[component.key], key.pairs[component.key]];
    if (given === undefined)
      return right === undefined ? creditOf(component, share(1, 1), []) : unansweredCredit(component);
    // The page lets a partner be used once; what breaks its limit earns nothing.
    const broken = asked.once && uses.filter((one) => one === given).length > 1;
    return creditOf(component, share(!broken && given === right ? 1 : 0, 1), []);
  });
}
