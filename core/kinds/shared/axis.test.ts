import { describe, expect, it } from 'vitest';
import { exact, exactOf, exactText } from '../../numbers/exact';
import {
  indexOf,
  inSteps,
  isOnAxis,
  isSoundAxis,
  placeAt,
  shareAlong,
  stepsOf,
  ticksOf,
  type Axis,
} from './axis';
import { isOf } from '../../validation/shapes';
import { axisSchema } from './schemas';

const axis = (from: string, to: string, step: string, snaps = 1): Axis => ({
  from,
  to,
  step,
  snaps,
  label: 'g',
});

describe('an axis', () => {
  it('has its lines where decimals say, without the errors of binary', () => {
    const tenths = ticksOf(axis('0', '1', '0.1'));
    expect(tenths.map(exactText)).toEqual([
      '0',
      '0.1',
      '0.2',
      '0.3',
      '0.4',
      '0.5',
      '0.6',
      '0.7',
      '0.8',
      '0.9',
      '1',
    ]);
    expect(exactText(stepsOf(axis('-3', '3', '0.5')))).toBe('12');
    expect(ticksOf(axis('-3', '3', '0.5'))).toHaveLength(13);
  });

  it('is sound with a whole number of steps, from one to sixty', () => {
    expect(isSoundAxis(axis('0', '60', '1'))).toBe(true);
    expect(isSoundAxis(axis('0', '61', '1'))).toBe(false);
    expect(isSoundAxis(axis('0', '1', '0.3'))).toBe(false);
    expect(isSoundAxis(axis('1', '1', '1'))).toBe(false);
    expect(isSoundAxis(axis('2', '1', '1'))).toBe(false);
    expect(isSoundAxis(axis('0', '1', '0'))).toBe(false);
    expect(isSoundAxis(axis('0', '-2', '-1'))).toBe(false);
  });

  it('keeps places on it, between its lines where it has such', () => {
    const halves = axis('-3', '3', '0.5', 2);
    expect([placeAt(halves, 0), placeAt(halves, 1), placeAt(halves, 24)]).toEqual(['-3', '-2.75', '3']);
    expect([placeAt(halves, -5), placeAt(halves, 99)]).toEqual(['-3', '3']);
    for (let index = 0; index <= 24; index++)
      expect(indexOf(halves, exactOf(placeAt(halves, index)))).toBe(index);
    // Nearest: −2.8 is 0.2 from the beginning, and a place is 0.25 wide.
    expect(indexOf(halves, exactOf('-2.8'))).toBe(1);
  });

  it('says what is on it, how far along, and how many lines away', () => {
    const plain = axis('-2', '6', '2');
    expect([
      isOnAxis(plain, exactOf('-2')),
      isOnAxis(plain, exactOf('6')),
      isOnAxis(plain, exactOf('6.01')),
    ]).toEqual([true, true, false]);
    expect([shareAlong(plain, '-2'), shareAlong(plain, '0'), shareAlong(plain, '6')]).toEqual([0, 0.25, 1]);
    expect(inSteps(plain, exactOf('3'))).toEqual(exact(3n, 2n));
  });

  it('takes plain decimals alone', () => {
    const read = (from: string) => isOf(axisSchema, axis(from, '9', '1'));
    expect(['1', '-0.5', '123456789.123456789'].map(read)).toEqual([true, true, true]);
    expect(['', '1e3', '.5', '+1', '1,5', ' 1', 'NaN'].map(read)).toEqual(
      [...Array<boolean>(7)].map(() => false),
    );
  });
});
