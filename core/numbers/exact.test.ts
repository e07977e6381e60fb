import { describe, expect, it } from 'vitest';
import {
  exactOf,
  magnitude,
  roundExact,
  roundToSignificant,
  showExact,
  withinDistance,
  withinShareOf,
} from './exact';

describe('exact figures', () => {
  it('compare where binary fractions do not', () => {
    // 0.1 + 0.2 = 0.3: the binary sum differs from 0.3 by 5.6e-17
    expect(withinDistance(exactOf('0.3'), exactOf('0.2'), exactOf('0.1'))).toBe(true);
    expect(withinDistance(exactOf('0.31'), exactOf('0.2'), exactOf('0.1'))).toBe(false);
  });

  it('take a relative tolerance of the key, also of a negative one, its limit included', () => {
    expect(withinShareOf(exactOf('-101'), exactOf('-100'), exactOf('0.01'))).toBe(true);
    expect(withinShareOf(exactOf('101.1'), exactOf('100'), exactOf('0.01'))).toBe(false);
  });

  it.each([
    ['71.25', 1, '71.3'], // 171 / 240 = 0.7125
    ['-71.25', 1, '−71.3'],
    ['0.049', 1, '0.0'],
    ['3', 2, '3.00'],
  ])('round %s to %i places, half away from zero', (value, places, shown) => {
    expect(showExact(roundExact(exactOf(value), places), '.', places)).toBe(shown);
  });

  it.each([
    ['12345', 2, '12000'],
    ['0.04567', 3, '0.0457'],
    ['9.99', 2, '10'],
    ['149', 1, '100'],
    ['-0.0345', 2, '−0.035'],
    ['0', 3, '0'],
  ])('round %s to %i figures', (value, figures, shown) => {
    expect(showExact(roundToSignificant(exactOf(value), figures), '.')).toBe(shown);
  });

  it.each([
    ['345', 2],
    ['1', 0],
    ['999', 2],
    ['1000', 3],
    ['0.0345', -2],
    ['0.1', -1],
    ['0', null],
  ])('know the first digit of %s', (value, power) => expect(magnitude(exactOf(value))).toBe(power));

  it('are shown with the sign of the locale, and are no figures by failing', () => {
    expect(showExact(exactOf('71.25'), ',')).toBe('71,25');
    for (const text of ['', '1,5', '1e5', 'x']) expect(() => exactOf(text)).toThrow(RangeError);
  });
});
