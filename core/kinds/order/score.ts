import type { Score, ScoringInput } from '../contract';
import { scoreShare, unanswered } from '../shared/scores';
import type { OrderContent, OrderResponse } from './content';

/** Pairs of items whose order agrees with the right one, of all n(n−1)/2. */
function concordantPairs(sequence: readonly string[], right: readonly string[]): number {
  const place = sequence.map((key) => right.indexOf(key));
  let agreeing = 0;
  for (let i = 0; i < place.length; i++)
    for (let j = i + 1; j < place.length; j++) if (place[i]! < place[j]!) agreeing++;
  return agreeing;
}

function neighboursKept(sequence: readonly string[], right: readonly string[]): number {
  return sequence.filter((key, i) => i > 0 && right.indexOf(key) === right.indexOf(sequence[i - 1]!) + 1)
    .length;
}

/**
 * `exact` or nothing; `pairs`: adjacent pairs kept / (n−1); `rank`: (1 + τ) / 2, which is the share of concordant
 * pairs, since τ = (concordant − discordant) / all. Source: M. G. Kendall, Biometrika 30, 1938.
 */
export function scoreOrder({ content, response, maximum }: ScoringInput<OrderContent, OrderResponse>): Score {
  const { sequence } = response;
  const { right, rule } = content;
  if (sequence.length === 0) return unanswered;
  const n = right.length;
  const places = sequence.filter((key, i) => key === right[i]).length;
  const reasons = [`${places} of ${n} stand in their place.`];
  if (rule === 'exact') return scoreShare(maximum, places === n ? 1 : 0, 1, reasons);
  if (rule === 'pairs') return scoreShare(maximum, neighboursKept(sequence, right), n - 1, reasons);
  return scoreShare(maximum, concordantPairs(sequence, right), (n * (n - 1)) / 2, reasons);
}
