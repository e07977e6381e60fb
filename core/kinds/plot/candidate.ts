import { message, type Message, type Say } from '../../messages/message';
import { exactOf, showExact } from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { isOnAxis } from '../shared/axis';
import { drawnOf, mostPoints, type Drawn, type ObjectShown, type Place } from './response';
import type { PlotResponse, PlotShown } from './response';

const same = ([ax, ay]: Place, [bx, by]: Place) => ax === bx && ay === by;

/** What an object still needs; null where it is complete. */
export function missingOf(
  { text, sort, count }: ObjectShown,
  { points, closed, side }: Drawn,
): Message | null {
  const more = (needed: number) => message('plot.morePoints', { text, count: needed - points.length });
  if (sort === 'points' && count === null) return points.length === 0 ? more(1) : null;
  if (sort === 'polygon') {
    if (points.length < 3) return more(3);
    return closed ? null : message('plot.close', { text });
  }
  const needed = mostPoints({ sort, count });
  if (points.length < needed) return more(needed);
  if (needed === 2 && sort !== 'points' && same(points[0]!, points[1]!))
    return message('plot.samePoints', { text });
  return sort === 'half-plane' && side === null ? message('plot.side', { text }) : null;
}

function progress({ objects }: PlotShown, response: PlotResponse): Progress {
  if (objects.every(({ key }) => drawnOf(response, key).points.length === 0))
    return {
      state: 'empty',
      missing: message('plot.empty', { text: objects.map((o) => o.text).join(', ') }),
    };
  for (const object of objects) {
    const missing = missingOf(object, drawnOf(response, object.key));
    if (missing) return { state: 'part', missing };
  }
  return { state: 'done', missing: null };
}

/** Which limit of the page a drawing breaks; null where it breaks none. */
export function brokenBy(
  { x, y }: Pick<PlotShown, 'x' | 'y'>,
  object: ObjectShown,
  { points, side }: Drawn,
): Message | null {
  if (points.length > mostPoints(object)) return message('plot.tooMany', { text: object.text });
  const isInside = ([across, up]: Place) => isOnAxis(x, exactOf(across)) && isOnAxis(y, exactOf(up));
  return [...points, ...(side ? [side] : [])].every(isInside) ? null : message('plot.outside');
}

function misfit(shown: PlotShown, response: PlotResponse) {
  for (const [key, drawn] of Object.entries(response.objects)) {
    const object = shown.objects.find((one) => one.key === key);
    const broken = object ? brokenBy(shown, object, drawn) : message('plot.unknown');
    if (broken) return broken;
  }
  return null;
}

/** Coordinates as people read them, in the round's locale: (1.5, −2); with a semicolon where the comma is decimal. */
export function showPlace([across, up]: Place, locale: string): string {
  const { decimal } = numberFormatOf(locale);
  const [x, y] = [across, up].map((value) => showExact(exactOf(value), decimal));
  return `(${x}${decimal === ',' ? ';' : ','} ${y})`;
}

/** One object in words, as “line s through (−3, −2) and (1, 2)”. */
export function tellObject(shown: PlotShown, { text, sort }: ObjectShown, drawn: Drawn, say: Say): string {
  const points = drawn.points.map((one) => showPlace(one, shown.locale)).join(' · ');
  if (sort !== 'half-plane') return say(message(`plot.tell-${sort}`, { text, points }));
  const side = drawn.side ? showPlace(drawn.side, shown.locale) : '…';
  return say(message(`plot.tell-${drawn.boundary}`, { text, points, side }));
}

/** Does the candidate decide how many points there are? Then one too many makes the object wrong. */
const isOpen = ({ sort, count }: ObjectShown): boolean => sort === 'points' && count === null;

export const plot: CandidateKind<PlotShown, PlotResponse> = {
  ...plainCandidate,
  name: 'plot',
  empty: () => ({ objects: {} }),
  misfit,
  fitting: ({ objects }, response) => ({
    objects: Object.fromEntries(
      objects.flatMap(({ key }) => (response.objects[key] ? [[key, response.objects[key]]] : [])),
    ),
  }),
  progress,
  guessing: ({ objects }) => (objects.some(isOpen) ? 'within' : 'free'),
  rule: ({ objects }) => {
    if (objects.some(isOpen)) return message('plot.ruleOpen');
    return objects.length > 1 ? message('plot.rule') : null;
  },
  describe: (shown, response, say) => ({
    form: 'list',
    text: shown.objects
      .map((object) => ({ object, drawn: drawnOf(response, object.key) }))
      .filter(({ drawn }) => drawn.points.length > 0)
      .map(({ object, drawn }) => tellObject(shown, object, drawn, say))
      .join('\n'),
  }),
};
