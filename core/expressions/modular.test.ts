import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random';
import { isRational, isSameRational } from './modular';
import { letter, minus, productOf, quotient, sumOf, whole, type Term } from './term';

const [a, b] = [letter('a'), letter('b')];
const pi: Term = { is: 'constant', name: 'pi' };
const power = (base: Term, exponent: Term | number): Term => ({
  is: 'power',
  base,
  exponent: typeof exponent === 'number' ? whole(exponent) : exponent,
});
const same = (one: Term, other: Term) =>
  isSameRational(one, other, new Set(['a', 'b']), seededRandom('places'));

describe('rational functions compared at places modulo a prime', () => {
  it('are the same however they are written', () => {
    // (a + b)² = a² + 2ab + b²
    const expanded = sumOf(power(a, 2), productOf(whole(2), a, b), power(b, 2));
    expect(same(power(sumOf(a, b), 2), expanded)).toBe(true);
    // (a² − b²)/(a − b) = a + b wherever both have a value.
    const fraction = quotient(sumOf(power(a, 2), minus(power(b, 2))), sumOf(a, minus(b)));
    expect(same(fraction, sumOf(a, b))).toBe(true);
    expect(same(power(a, -2), quotient(whole(1), productOf(a, a)))).toBe(true);
    expect(same(quotient(whole(1), whole(3)), quotient(whole(2), whole(6)))).toBe(true);
    expect(same(productOf(pi, a), productOf(a, pi))).toBe(true);
  });

  it('differ by the smallest coefficient, and π is no fraction', () => {
    const expanded = sumOf(
      power(a, 2),
      productOf(whole(2), a, b),
      productOf(quotient(whole(1000001), whole(1000000)), b, b),
    );
    expect(same(power(sumOf(a, b), 2), expanded)).toBe(false);
    expect(same(pi, quotient(whole(355), whole(113)))).toBe(false);
    expect(same(a, b)).toBe(false);
    expect(same(power(a, 1000), power(a, 1001))).toBe(false);
  });

  it('cannot be told where nothing has a value', () => {
    const nothing = quotient(a, sumOf(a, minus(a)));
    expect(same(nothing, nothing)).toBeNull();
    expect(same(power(sumOf(a, minus(a)), 0), whole(1))).toBeNull();
  });

  it('are made by the four operations and whole powers alone', () => {
    expect(isRational(quotient(sumOf(a, pi), power(b, -3)))).toBe(true);
    expect(isRational({ is: 'root', of: a, index: 2 })).toBe(false);
    expect(isRational({ is: 'function', name: 'sin', of: a })).toBe(false);
    expect(isRational(power(a, quotient(whole(1), whole(2))))).toBe(false);
    expect(isRational(power(a, b))).toBe(false);
    // Larger exponents would take too long.
    expect([isRational(power(a, 999_999)), isRational(power(a, 1_000_000))]).toEqual([true, false]);
  });
});
