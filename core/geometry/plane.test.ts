import { describe, expect, it } from 'vitest';
import { exactOf, ZERO } from '../numbers/exact';
import {
  areOnSameSide,
  cornersOf,
  isNear,
  isSameLine,
  isSamePolygon,
  isSameRay,
  isSameSegment,
  point,
  seenOf,
} from './plane';
import type { Point } from './point';

const view = { from: point(-5, -5), to: point(5, 5) };
const through = (...[ax, ay, bx, by]: [number, number, number, number]) => ({
  a: point(ax, ay),
  b: point(bx, by),
});
const decimals = (x: string, y: string): Point => ({ x: exactOf(x), y: exactOf(y) });
const diagonal = through(0, 0, 1, 1);

describe('the plane', () => {
  it('measures straight distances, limits included', () => {
    // 3-4-5: (0.3, 0.4) is exactly 0.5 from the origin
    expect(isNear(decimals('0.3', '0.4'), point(0, 0), exactOf('0.5'))).toBe(true);
    expect(isNear(decimals('0.3', '0.4'), point(0, 0), exactOf('0.4999999999'))).toBe(false);
    expect(isNear(point(1, 2), point(1, 2), ZERO)).toBe(true);
  });

  it('sees of a line what lies in its part, and of a ray what lies ahead', () => {
    expect(seenOf(diagonal, view, false)).toMatchObject([point(-5, -5), point(5, 5)]);
    expect(seenOf(diagonal, view, true)).toMatchObject([point(0, 0), point(5, 5)]);
    expect(seenOf(through(2, 0, 2, 1), view, false)).toMatchObject([point(2, -5), point(2, 5)]);
    expect(seenOf(through(6, 0, 6, 1), view, false)).toBeNull();
    expect(seenOf(through(0, 9, 9, 0), view, false)).toMatchObject([point(4, 5), point(5, 4)]);
    expect(seenOf(through(0, 12, 12, 0), view, false)).toBeNull();
  });

  it.each([
    ['by other points', through(-3, -3, 4, 4), '0', true],
    ['turned round', through(4, 4, -3, -3), '0', true],
    ['parallel, beside it', through(0, 1, 1, 2), '0', false],
    // y = x + 1 is 1/√2 ≈ 0.7071 away everywhere
    ['parallel, within 0.71', through(0, 1, 1, 2), '0.71', true],
    ['parallel, beyond 0.7', through(0, 1, 1, 2), '0.7', false],
    // y = 1.2x goes off by 0.2·(25/6)/√2 ≈ 0.589 at its end (25/6, 5); y = x from it by 1/√2.44 ≈ 0.640 at (5, 5)
    ['steeper, within 0.65', through(0, 0, 5, 6), '0.65', true],
    ['steeper, beyond 0.63', through(0, 0, 5, 6), '0.63', false],
    // x + y = 9.9 is seen from (4.9, 5) to (5, 4.9) alone, 0.1/√2 ≈ 0.071 from y = x, at right angles to it
    [
      'at right angles, of which little is seen',
      { a: decimals('4.9', '5'), b: decimals('5', '4.9') },
      '0.1',
      false,
    ],
    ['upright', through(0, 0, 0, 1), '1', false],
  ])('knows a line %s', (_, given, tolerance, same) => {
    expect(isSameLine(given, diagonal, exactOf(tolerance), view)).toBe(same);
  });

  it.each([
    ['through a farther point', through(0, 0, 3, 3), true],
    ['the other way', through(0, 0, -1, -1), false],
    ['from another beginning', through(1, 1, 2, 2), false],
    ['in another direction', through(0, 0, 2, 1), false],
  ])('knows a ray %s', (_, given, same) => {
    expect(isSameRay(given, diagonal, ZERO, view)).toBe(same);
  });

  it('knows a segment in either direction, and by both its ends', () => {
    expect(isSameSegment(through(1, 1, 0, 0), diagonal, ZERO)).toBe(true);
    expect(isSameSegment(through(0, 0, 2, 2), diagonal, ZERO)).toBe(false);
    expect(isSameSegment(through(0, 0, 2, 1), diagonal, exactOf('1'))).toBe(true);
  });

  it('tells the sides of a line', () => {
    expect(areOnSameSide(point(0, 3), point(1, 4), diagonal)).toBe(true);
    expect(areOnSameSide(point(0, 3), point(3, 0), diagonal)).toBe(false);
    expect(areOnSameSide(point(2, 2), point(2, 2), diagonal)).toBe(false);
  });

  it('knows a polygon by its corners, from any and either way round', () => {
    const square = [point(0, 0), point(2, 0), point(2, 2), point(0, 2)];
    const turned = [point(2, 2), point(2, 0), point(0, 0), point(0, 2)];
    const more = [point(0, 0), point(1, 0), point(2, 0), point(2, 2), point(2, 2), point(0, 2)];
    const crossed = [point(0, 0), point(2, 2), point(2, 0), point(0, 2)];
    expect([turned, more, crossed].map((one) => isSamePolygon(one, square, ZERO))).toEqual([
      true,
      true,
      false,
    ]);
    expect(cornersOf(more)).toHaveLength(4);
    expect(isSamePolygon(square.slice(0, 3), square, ZERO)).toBe(false);
    expect(isSamePolygon([point(0, 0), point(3, 0), point(2, 2), point(0, 2)], square, exactOf('1'))).toBe(
      true,
    );
    const flat = [point(0, 0), point(1, 1), point(2, 2)];
    expect(isSamePolygon(flat, flat, ZERO)).toBe(false);
  });
});
