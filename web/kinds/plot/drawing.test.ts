import { describe, expect, it } from 'vitest';
import type { Drawn, ObjectShown, Place, Sort } from '../../../core/kinds/plot/response';
import { nothingDrawn } from '../../../core/kinds/plot/response';
import { nextOpen, withObject, withoutObject, withPlace } from './drawing';
import { endsOf, sideOf } from './geometry';

const object = (sort: Sort, count: number | null = null): ObjectShown => ({
  key: sort,
  text: sort,
  sort,
  count,
});
const places = (...some: string[]): Place[] =>
  some.map((one) => {
    const [across, up] = one.split(',');
    return [across!, up!];
  });
const drawn = (sort: Sort, ...some: string[]): Drawn | null =>
  places(...some).reduce<Drawn | null>(
    (made, place) => made && withPlace(object(sort), made, place),
    nothingDrawn,
  );

describe('setting places', () => {
  it('moves a point, fills a line, and refuses a third', () => {
    expect(drawn('point', '0,0', '1,1')!.points).toEqual(places('1,1'));
    expect(drawn('line', '0,0', '1,1')!.points).toEqual(places('0,0', '1,1'));
    expect(drawn('line', '0,0', '1,1', '2,2')).toBeNull();
    expect(drawn('line', '0,0', '0,0')).toBeNull();
  });

  it('takes the third place of a half-plane as its side, again and again', () => {
    expect(drawn('half-plane', '0,0', '1,1', '0,3')!.side).toEqual(['0', '3']);
    expect(drawn('half-plane', '0,0', '1,1', '0,3', '3,0')!.side).toEqual(['3', '0']);
  });

  it('closes a polygon by its first corner, not before it has three', () => {
    expect(drawn('polygon', '0,0', '1,0', '0,0')).toBeNull();
    const closed = drawn('polygon', '0,0', '1,0', '1,1', '0,0')!;
    expect([closed.closed, closed.points.length]).toEqual([true, 3]);
    expect(withPlace(object('polygon'), closed, ['5', '5'])).toBeNull();
  });

  it('goes on with the next object that is not complete, round the list', () => {
    const objects = [object('line'), object('point')];
    const lineDone = withObject({ objects: {} }, 'line', drawn('line', '0,0', '1,1')!);
    expect(nextOpen(objects, lineDone, 'line')).toBe('point');
    expect(nextOpen(objects, withoutObject(lineDone, 'line'), 'point')).toBe('point');
    const bothDone = withObject(lineDone, 'point', drawn('point', '0,0')!);
    expect(nextOpen(objects, bothDone, 'point')).toBe('point');
  });
});

describe('what is seen of lines and sides', () => {
  it('is cut at the borders', () => {
    const [a, b] = [
      { x: 50, y: 50 },
      { x: 60, y: 60 },
    ];
    expect(endsOf(a, b, 100, false)).toEqual([
      { x: 0, y: 0 },
      { x: 100, y: 100 },
    ]);
    expect(endsOf(a, b, 100, true)).toEqual([a, { x: 100, y: 100 }]);
    // The half below the diagonal: a triangle of two corners of the plane and its third.
    expect(sideOf({ x: 0, y: 0 }, { x: 100, y: 100 }, { x: 90, y: 10 }, 100)).toEqual(
      expect.arrayContaining([{ x: 100, y: 0 }]),
    );
  });
});
