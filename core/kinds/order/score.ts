import { message } from '../../messages/message';
import type { Credit, ScoringInput } from '../contract';
import { creditOf, share, wholeComponent } from '../shared/credits';
import type { OrderArrangement, OrderAsked, OrderKey } from './content';
import type { OrderResponse } from './response';

/** Pairs of items whose order agrees with the right one, of all n(n−1)/2. A pair with an unplaced item is none. */
function concordantPairs(sequence: readonly string[], right: readonly string[]): number {
  const place = sequence.map((key) => right.indexOf(key));
  let agreeing = 0;
  for (let i = 0; i < place.length; i++)
    for (let j = i + 1; j < place.length; j++) if (place[i]! < place[j]!) agreeing++;
  return agreeing;
}

const neighboursKept = (sequence: readonly string[], right: readonly string[]): number =>
  sequence.filter((key, i) => i > 0 && right.indexOf(key) === right.indexOf(sequence[i - 1]!) + 1).length;

/**
 * `exact` or nothing; `pairs`: adjacent pairs kept / (n−1); `rank`: (1 + τ) / 2, which is the share of concordant
 * pairs, since τ = (concordant − discordant) / all. Source: M. G. Kendall, Biometrika 30, 1938.
 */
export function scoreOrder({
  content,
  response: { sequence },
  place,
}: ScoringInput<OrderAsked, OrderKey, OrderResponse, OrderArrangement>): Credit[] {
  const [component] = wholeComponent(place.marks);
  const { right } = content.key;
  const n = right.length;
  const places = sequence.filter((key, i) => key === right[i]).length;
  const shares = {
    exact: () => share(places === n ? 1 : 0, 1),
    pairs: () => share(neighboursKept(sequence, right), n - 1),
    rank: () => share(concordantPairs(sequence, right), (n * (n - 1)) / 2),
  };
  return [creditOf(component, shares[content.asked.rule](), [message('order.places', { places, all: n })])];
}
