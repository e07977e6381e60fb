import { addExact, minusExact, negative, timesExact, type Exact } from '../numbers/exact';

/** A point of a plane, or the way from one point to another, in grid units and exact. */
export interface Point {
  readonly x: Exact;
  readonly y: Exact;
}

export const plus = (a: Point, b: Point): Point => ({ x: addExact(a.x, b.x), y: addExact(a.y, b.y) });

/** The way from `a` to `b`. */
export const way = (a: Point, b: Point): Point => ({ x: minusExact(b.x, a.x), y: minusExact(b.y, a.y) });

export const times = (a: Point, factor: Exact): Point => ({
  x: timesExact(a.x, factor),
  y: timesExact(a.y, factor),
});

export const dot = (a: Point, b: Point): Exact => addExact(timesExact(a.x, b.x), timesExact(a.y, b.y));

/** Twice the signed area of the triangle that two ways span: 0 where they are parallel. */
export const cross = (a: Point, b: Point): Exact =>
  addExact(timesExact(a.x, b.y), negative(timesExact(a.y, b.x)));

/** The square of a length: lengths themselves are seldom exact. */
export const lengthSquared = (a: Point): Exact => dot(a, a);

export const samePoint = (a: Point, b: Point): boolean => lengthSquared(way(a, b)).over === 0n;
