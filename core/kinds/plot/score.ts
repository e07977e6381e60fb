import { message } from '../../messages/message';
import {
  areOnSameSide,
  isNear,
  isSameLine,
  isSamePolygon,
  isSameRay,
  isSameSegment,
  type Line,
  type View,
} from '../../geometry/plane';
import type { Point } from '../../geometry/point';
import { exactOf, ZERO, type Exact } from '../../numbers/exact';
import type { Component, Content, Credit, ScoringInput } from '../contract';
import { assign } from '../shared/assign';
import { inSteps } from '../shared/axis';
import { creditOf, share, unansweredCredit, weightedComponents } from '../shared/credits';
import { brokenBy, missingOf } from './candidate';
import type { PlotAsked, PlotKey } from './content';
import { drawnOf, type Drawn, type Place, type PlotResponse, type Sort } from './response';

/** One component a named object, all or nothing. */
export const objectComponents = ({ objects }: PlotAsked, marks: number): Component[] =>
  weightedComponents(
    objects.map(({ key, text, weight }) => ({ key, name: message('author.text', { text }), weight })),
    marks,
  );

/** In grid units of both axes. */
const inGrid = ({ x, y }: PlotAsked, [across, up]: Place): Point => ({
  x: inSteps(x, exactOf(across)),
  y: inSteps(y, exactOf(up)),
});

const viewOf = (asked: PlotAsked): View => ({
  from: inGrid(asked, [asked.x.from, asked.y.from]),
  to: inGrid(asked, [asked.x.to, asked.y.to]),
});

interface Compared {
  readonly points: readonly Point[];
  readonly line: Line;
  readonly side: Point | null;
  readonly boundary: Drawn['boundary'];
}

function compared(asked: PlotAsked, { points, side, boundary }: Drawn): Compared {
  const all = points.map((one) => inGrid(asked, one));
  return { points: all, line: { a: all[0]!, b: all[1]! }, side: side && inGrid(asked, side), boundary };
}

function areSamePoints(given: readonly Point[], right: readonly Point[], within: Exact): boolean {
  const near = (i: number, j: number) => isNear(right[i]!, given[j]!, within);
  return (
    given.length === right.length && assign(right.length, given.length, near).every((one) => one !== null)
  );
}

type Test = (given: Compared, right: Compared, within: Exact, view: View) => boolean;

const byPoints: Test = (given, right, within) => areSamePoints(given.points, right.points, within);

const SAME: { readonly [S in Sort]: Test } = {
  point: byPoints,
  points: byPoints,
  line: (given, right, within, view) => isSameLine(given.line, right.line, within, view),
  ray: (given, right, within, view) => isSameRay(given.line, right.line, within, view),
  segment: (given, right, within) => isSameSegment(given.line, right.line, within),
  'half-plane': (given, right, within, view) =>
    given.boundary === right.boundary &&
    isSameLine(given.line, right.line, within, view) &&
    // The side is asked of the key's line: a point that the two lines part belongs to neither.
    areOnSameSide(given.side!, right.side!, right.line),
  polygon: (given, right, within) => isSamePolygon(given.points, right.points, within),
};

export function isRightObject(
  { asked, key }: Content<PlotAsked, PlotKey>,
  object: PlotAsked['objects'][number],
  drawn: Drawn,
): boolean {
  const right = key.objects[object.key];
  if (!right || missingOf(object, drawn) !== null || brokenBy(asked, object, drawn) !== null) return false;
  const within = exactOf(key.tolerance[object.key] ?? '0');
  return SAME[object.sort](compared(asked, drawn), compared(asked, right), within, viewOf(asked));
}

/** Object by object: `2-domain.md`, “Plot”. */
export const scorePlot = ({
  content,
  response,
  place,
}: ScoringInput<PlotAsked, PlotKey, PlotResponse, null>): Credit[] =>
  objectComponents(content.asked, place.marks).map((component, i) => {
    const drawn = drawnOf(response, component.key);
    if (drawn.points.length === 0) return unansweredCredit(component);
    const object = content.asked.objects[i]!;
    const missing = missingOf(object, drawn);
    if (missing) return creditOf(component, ZERO, [message('plot.unfinished')]);
    return creditOf(component, share(isRightObject(content, object, drawn) ? 1 : 0, 1), []);
  });
