import { message } from '../../messages/message';
import {
  exactOf,
  roundExact,
  roundToSignificant,
  sameExact,
  withinDistance,
  withinShareOf,
} from '../../numbers/exact';
import type { NumberRead } from '../../numbers/readNumber';
import type { Content, Credit, ScoringInput } from '../contract';
import { creditOf, share, wholeComponent } from '../shared/credits';
import type { NumberAsked, NumberKey } from './content';
import { readTyped } from './readTyped';
import type { Demand, NumberResponse } from './response';

function meets(demand: Demand, { value, places, figures }: NumberRead, figure: string): boolean {
  const key = exactOf(figure);
  if (demand.by === 'places')
    return places === demand.places && sameExact(value, roundExact(key, demand.places));
  // Noughts at the end of a whole number may only hold the place: 1200 is 1234 to two figures.
  const { figures: asked } = demand;
  if (figures === null || figures.least > asked || asked > figures.most) return false;
  return sameExact(value, roundToSignificant(key, asked));
}

/** The accepted figure that a reading matches; of several the one with the most marks. Exact, never by strings. */
export function bestMatch({ asked, key }: Content<NumberAsked, NumberKey>, read: NumberRead) {
  const near = (figure: string) => {
    if (asked.demand) return meets(asked.demand, read, figure);
    if (!key.tolerance) return sameExact(read.value, exactOf(figure));
    const within = key.tolerance.by === 'distance' ? withinDistance : withinShareOf;
    return within(read.value, exactOf(figure), exactOf(key.tolerance.within));
  };
  if (key.also.some((figure) => sameExact(read.value, exactOf(figure)))) return { percent: 100, note: '' };
  const hits = key.accepted.filter(({ figure }) => near(figure));
  return hits.length === 0 ? null : hits.reduce((a, b) => (b.percent > a.percent ? b : a));
}

export function scoreNumber({
  content,
  response,
  place,
}: ScoringInput<NumberAsked, NumberKey, NumberResponse, null>): Credit[] {
  const [component] = wholeComponent(place.marks);
  const reading = readTyped(content.asked, response.typed, place.locale);
  if ('problem' in reading) return [creditOf(component, share(0, 1), [message('number.notAFigure')])];
  const match = bestMatch(content, reading.read);
  if (!match) return [creditOf(component, share(0, 1), [message('number.noMatch')])];
  const reasons = match.note ? [message('author.text', { text: match.note })] : [];
  return [creditOf(component, share(match.percent, 100), reasons)];
}
