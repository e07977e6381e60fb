import { compareExact, exact, minusExact, overExact, timesExact, ZERO, type Exact } from '../numbers/exact';
import { cross, dot, lengthSquared, plus, samePoint, times, way, type Point } from './point';

/** The part of a plane that is seen. */
export interface View {
  readonly from: Point;
  readonly to: Point;
}

/** A line through two different points; a ray begins at `a` and goes through `b`. */
export interface Line {
  readonly a: Point;
  readonly b: Point;
}

const squared = (value: Exact): Exact => timesExact(value, value);

/** Is the straight-line distance of two points no more than a tolerance? Its limit included. */
export const isNear = (a: Point, b: Point, tolerance: Exact): boolean =>
  compareExact(lengthSquared(way(a, b)), squared(tolerance)) <= 0;

/**
 * Is a point no farther from a line than a tolerance? The distance is |d × (p − a)| / |d|; both sides are squared, so
 * that no root is taken.
 */
export function isNearLine(point: Point, { a, b }: Line, tolerance: Exact): boolean {
  const along = way(a, b);
  const off = cross(along, way(a, point));
  return compareExact(squared(off), timesExact(squared(tolerance), lengthSquared(along))) <= 0;
}

/**
 * The two ends of what is seen of a line, or of a ray from `a`; null where nothing is. Clipped side by side (Y.-D. Liang
 * and B. A. Barsky, 1984), in exact fractions.
 */
export function seenOf({ a, b }: Line, view: View, isRay: boolean): readonly [Point, Point] | null {
  const along = way(a, b);
  let low: Exact | null = isRay ? ZERO : null;
  let high: Exact | null = null;
  for (const axis of ['x', 'y'] as const) {
    const [step, start] = [along[axis], a[axis]];
    if (step.over === 0n) {
      if (compareExact(start, view.from[axis]) < 0 || compareExact(start, view.to[axis]) > 0) return null;
      continue;
    }
    const at = (border: Exact) => overExact(minusExact(border, start), step)!;
    const [first, second] = [at(view.from[axis]), at(view.to[axis])].sort(compareExact) as [Exact, Exact];
    if (low === null || compareExact(first, low) > 0) low = first;
    if (high === null || compareExact(second, high) < 0) high = second;
  }
  if (low === null || high === null || compareExact(low, high) > 0) return null;
  return [plus(a, times(along, low)), plus(a, times(along, high))];
}

/**
 * Is a line the same as another, whichever points draw it? No place of either that is seen may be farther from the other
 * than the tolerance; the distance grows towards the ends, so that the two ends decide. Both ways: what is seen of a line
 * that only cuts a corner is near to any line through that corner.
 */
export function isSameLine(given: Line, right: Line, tolerance: Exact, view: View): boolean {
  const isOn = (one: Line, other: Line) =>
    seenOf(one, view, false)?.every((end) => isNearLine(end, other, tolerance)) === true;
  return isOn(given, right) && isOn(right, given);
}

/** The same beginning and the same direction: the far end of each, as far as it is seen, lies on the other ray. */
export function isSameRay(given: Line, right: Line, tolerance: Exact, view: View): boolean {
  if (!isNear(given.a, right.a, tolerance)) return false;
  const isOn = (one: Line, other: Line) => {
    const far = seenOf(one, view, true)?.[1];
    return far !== undefined && isNearLine(far, other, tolerance);
  };
  const forwards = dot(way(given.a, given.b), way(right.a, right.b)).over > 0n;
  return forwards && isOn(given, right) && isOn(right, given);
}

export const isSameSegment = (given: Line, right: Line, tolerance: Exact): boolean =>
  [right, { a: right.b, b: right.a }].some(
    ({ a, b }) => isNear(given.a, a, tolerance) && isNear(given.b, b, tolerance),
  );

/** On which side of a line a point lies: the sign of the area; 0 on the line. */
export const sideOf = (point: Point, { a, b }: Line): number =>
  Math.sign(Number(cross(way(a, b), way(a, point)).over));

/** Are two points on the same side of a line, neither on it? */
export function areOnSameSide(p: Point, q: Point, line: Line): boolean {
  const side = sideOf(p, line);
  return side !== 0 && side === sideOf(q, line);
}

/** The corners where a polygon turns: none twice, none in the middle of a side. */
export function cornersOf(points: readonly Point[]): Point[] {
  const distinct = points.filter((point, i) => !samePoint(point, points.at(i - 1)!));
  return distinct.filter((point, i) => {
    const [before, after] = [distinct.at(i - 1)!, distinct[(i + 1) % distinct.length]!];
    return cross(way(before, point), way(point, after)).over !== 0n;
  });
}

/** The same corners in the same round, whichever comes first and in either direction. */
export function isSamePolygon(given: readonly Point[], right: readonly Point[], tolerance: Exact): boolean {
  const [mine, theirs] = [cornersOf(given), cornersOf(right)];
  const n = mine.length;
  if (n !== theirs.length || n < 3) return false;
  const rounds = [mine, [...mine].reverse()];
  return rounds.some((round) =>
    round.some((_, first) => theirs.every((corner, i) => isNear(round[(first + i) % n]!, corner, tolerance))),
  );
}

export const point = (x: number, y: number): Point => ({ x: exact(BigInt(x)), y: exact(BigInt(y)) });
