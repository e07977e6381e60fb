import { describe, expect, it } from 'vitest';
import { decimal, parseDecimal, roundTo, roundToFigures, showDecimal, within, withinShare } from './decimal';

describe('parseDecimal', () => {
  it.each([
    ['71,25', 7125n, 2],
    ['71.25', 7125n, 2],
    ['1 840', 1840n, 0],
    ['−0,5', -5n, 1],
    ['-3', -3n, 0],
    ['.5', 5n, 1],
  ])('reads %s', (typed, digits, places) => expect(parseDecimal(typed)).toEqual({ digits, places }));

  it.each([
    ['', 'empty'],
    ['12a', 'letters'],
    ['1.2.3', 'two-separators'],
    ['1-2', 'sign'],
    ['-', 'unfinished'],
    ['1'.repeat(31), 'too-long'],
  ])('tells what is wrong with %j', (typed, error) => expect(parseDecimal(typed)).toBe(error));
});

describe('comparing and rounding', () => {
  it('compares exactly where floats do not', () => {
    // 0.1 + 0.2 = 0.3: the binary sum differs from 0.3 by 5.6e-17
    expect(within(decimal('0.3'), decimal('0.2'), decimal('0.1'))).toBe(true);
    expect(within(decimal('0.31'), decimal('0.2'), decimal('0.1'))).toBe(false);
  });

  it('takes relative tolerance of the key, also a negative one', () => {
    expect(withinShare(decimal('-101'), decimal('-100'), decimal('0.01'))).toBe(true);
    expect(withinShare(decimal('101.1'), decimal('100'), decimal('0.01'))).toBe(false);
  });

  it.each([
    ['71.25', 1, '71.3'], // 171 / 240 = 0.7125
    ['-71.25', 1, '−71.3'],
    ['0.049', 1, '0.0'],
    ['3', 2, '3.00'],
  ])('rounds %s to %i places', (value, places, shown) => {
    expect(showDecimal(roundTo(decimal(value), places))).toBe(shown);
  });

  it.each([
    ['12345', 2, '12000'],
    ['0.04567', 3, '0.0457'],
    ['9.99', 2, '10.0'],
    ['149', 1, '100'],
  ])('rounds %s to %i figures', (value, figures, shown) => {
    expect(showDecimal(roundToFigures(decimal(value), figures))).toBe(shown);
  });
});
