import { message, type Message } from '../../messages/message';
import { exact, type Exact } from '../../numbers/exact';
import type { Credit, ScoringInput } from '../contract';
import { creditOf, share, wholeComponent } from '../shared/credits';
import { shareOfSeveral } from '../shared/severalRight';
import type { ChoiceArrangement, ChoiceAsked, ChoiceKey } from './content';
import type { ChoiceResponse } from './response';

const NOTHING = share(0, 1);
/** Nothing is said where the verdict says it all. */
type Found = readonly [share: Exact, reason: Message | null];

function oneRight({ penalty }: ChoiceAsked, { right }: ChoiceKey, chosen: string): Found {
  if (right.includes(chosen)) return [share(1, 1), null];
  if (!penalty) return [NOTHING, null];
  return [exact(BigInt(-penalty.over), BigInt(penalty.under)), message('choice.cost')];
}

function severalRight(
  { options, rule }: ChoiceAsked,
  { right }: ChoiceKey,
  chosen: ReadonlySet<string>,
): Found {
  const hits = right.filter((key) => chosen.has(key)).length;
  const misses = chosen.size - hits;
  const reason =
    misses > 0
      ? message('choice.hitsAndMisses', { count: hits, misses })
      : message('choice.hits', { count: hits });
  return [shareOfSeveral(rule, { options: options.length, right: right.length, hits, misses }), reason];
}

/** Rules for one and for several right options: `2-domain.md`, “Scoring rules”. */
export function scoreChoice({
  content: { asked, key },
  response,
  place,
}: ScoringInput<ChoiceAsked, ChoiceKey, ChoiceResponse, ChoiceArrangement>): Credit[] {
  const [component] = wholeComponent(place.marks);
  const chosen = new Set(response.chosen);
  const most = asked.mode === 'one' ? 1 : (asked.choose ?? asked.options.length);
  // The page allows no more; what breaks its limit earns nothing.
  if (chosen.size > most) return [creditOf(component, NOTHING, [message('choice.tooMany', { count: most })])];
  const [found, reason] =
    asked.mode === 'one' ? oneRight(asked, key, response.chosen[0]!) : severalRight(asked, key, chosen);
  return [creditOf(component, found, reason ? [reason] : [])];
}
