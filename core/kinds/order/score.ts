import { message } from '../../messages/message';
import type { Credit, ScoringInput } from '../contract';
import { creditOf, share, wholeComponent } from '../shared/credits';
import type { OrderArrangement, OrderAsked, OrderKey } from './content';
import type { OrderResponse } from './response';

/** Where each item belongs; null for one that is not of this question, or that was placed twice: it earns nothing. */
const placesOf = (sequence: readonly string[], right: readonly string[]): (number | null)[] =>
  sequence.map((key) => {
    const isOnce = sequence.indexOf(key) === sequence.lastIndexOf(key);
    return isOnce && right.includes(key) ? right.indexOf(key) : null;
  });

type Places = readonly (number | null)[];

/** Pairs of items whose order agrees with the right one, of all n(n−1)/2. A pair with an unplaced item is none. */
function concordantPairs(places: Places): number {
  let agreeing = 0;
  places.forEach((a, i) => {
    for (const b of places.slice(i + 1)) if (a !== null && b !== null && a < b) agreeing++;
  });
  return agreeing;
}

const neighboursKept = (places: Places): number =>
  places.filter((place, i) => {
    const before = places[i - 1] ?? null;
    return place !== null && before !== null && place === before + 1;
  }).length;

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
  const placed = placesOf(sequence, right);
  const places = placed.filter((place, i) => place === i).length;
  const shares = {
    exact: () => share(places === n && sequence.length === n ? 1 : 0, 1),
    pairs: () => share(neighboursKept(placed), n - 1),
    rank: () => share(concordantPairs(placed), (n * (n - 1)) / 2),
  };
  return [creditOf(component, shares[content.asked.rule](), [message('order.places', { places, all: n })])];
}
