import { message } from '../../messages/message';
import {
  exactOf,
  roundExact,
  roundToSignificant,
  sameExact,
  withinDistance,
  withinShareOf,
  type Exact,
} from '../../numbers/exact';
import type { Content, Found, ScoringInput } from '../contract';
import { creditOf, share, unansweredCredit, undecided, wholeComponent } from '../shared/credits';
import type { NumberAsked, NumberKey } from './content';
import { readEntry, type Entry } from './readEntry';
import type { NumberResponse } from './response';

type NumberContent = Content<NumberAsked, NumberKey>;

/** Is a value the key's, as near as is asked for? */
function isNear({ asked: { demand }, key: { tolerance } }: NumberContent, value: Exact, figure: string) {
  const right = exactOf(figure);
  if (demand?.by === 'places') return sameExact(value, roundExact(right, demand.places));
  if (demand) return sameExact(value, roundToSignificant(right, demand.figures));
  if (!tolerance) return sameExact(value, right);
  const within = tolerance.by === 'distance' ? withinDistance : withinShareOf;
  return within(value, right, exactOf(tolerance.within));
}

/** The accepted figure that an entry matches; of several the one with the most marks. Exact, never by strings. */
export function bestMatch(content: NumberContent, entry: Entry) {
  if (entry.is !== 'number' && entry.is !== 'other-form') return null;
  const { value } = entry.read;
  const { also, accepted } = content.key;
  if (also.some((figure) => sameExact(value, exactOf(figure)))) return { percent: 100, note: '' };
  if (entry.is === 'other-form') return null;
  const hits = accepted.filter(({ figure }) => isNear(content, value, figure));
  return hits.length === 0 ? null : hits.reduce((a, b) => (b.percent > a.percent ? b : a));
}

export function scoreNumber({
  content,
  response,
  place,
}: ScoringInput<NumberAsked, NumberKey, NumberResponse, null>): Found[] {
  const [component] = wholeComponent(place.marks);
  const entry = readEntry(content.asked, response.typed, place.locale);
  if (entry.is === 'nothing') return [unansweredCredit(component)];
  // The page said so, and it was left as it is: people look at it.
  if (entry.is === 'unreadable') return [undecided(component, entry.complaint.code)];
  const match = bestMatch(content, entry);
  if (match) {
    const reasons = match.note ? [message('author.text', { text: match.note })] : [];
    return [creditOf(component, share(match.percent, 100), reasons)];
  }
  const why = entry.is === 'other-form' ? entry.complaint : message('number.noMatch');
  return [creditOf(component, share(0, 1), [why])];
}
