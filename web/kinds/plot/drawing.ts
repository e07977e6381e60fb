import { missingOf } from '../../../core/kinds/plot/candidate';
import {
  drawnOf,
  mostPoints,
  type Drawn,
  type ObjectShown,
  type Place,
  type PlotResponse,
} from '../../../core/kinds/plot/response';

const same = ([ax, ay]: Place, [bx, by]: Place) => ax === bx && ay === by;

/** What setting a place does to an object: a point more, a side, or a shape closed; null where it is full. */
export function withPlace(object: ObjectShown, drawn: Drawn, place: Place): Drawn | null {
  const { points } = drawn;
  const [first] = points;
  if (object.sort === 'polygon' && points.length >= 3 && !drawn.closed && same(first!, place))
    return { ...drawn, closed: true };
  const full = points.length >= mostPoints(object) || (object.sort === 'polygon' && drawn.closed);
  if (object.sort === 'half-plane' && points.length === 2) return { ...drawn, side: place };
  // One point alone is moved by setting it again.
  if (object.sort === 'point') return { ...drawn, points: [place] };
  if (full || points.some((one) => same(one, place))) return null;
  return { ...drawn, points: [...points, place] };
}

export const withObject = (response: PlotResponse, key: string, drawn: Drawn): PlotResponse => ({
  objects: { ...response.objects, [key]: drawn },
});

export const withoutObject = ({ objects }: PlotResponse, key: string): PlotResponse => ({
  objects: Object.fromEntries(Object.entries(objects).filter(([one]) => one !== key)),
});

/** The object to go on with once one is complete: the next that is not. */
export function nextOpen(objects: readonly ObjectShown[], response: PlotResponse, current: string): string {
  const at = objects.findIndex(({ key }) => key === current);
  const round = [...objects.slice(at), ...objects.slice(0, at)];
  return round.find((one) => missingOf(one, drawnOf(response, one.key)) !== null)?.key ?? current;
}
