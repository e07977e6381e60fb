import { describe, expect, it } from 'vitest';
import { exact, exactText, type Exact } from '../numbers/exact';
import {
  commonDivisor,
  divided,
  divisor,
  polynomialTerm,
  rationalOf,
  realRoots,
  squareFree,
  times,
  wholeCoefficients,
  type Polynomial,
} from './polynomial';
import { letter, minus, productOf, quotient, sumOf, whole, type Term } from './term';

/** From the constant coefficient, as everywhere there. */
const p = (...coefficients: number[]): Polynomial => coefficients.map((c) => exact(BigInt(c)));
const shown = (polynomial: Polynomial) => polynomial.map(exactText);
/** With the leading coefficient 1: a common divisor is told but for a factor. */
const normed = (polynomial: Polynomial) => {
  const last = polynomial.at(-1)!;
  return shown(polynomial.map((c): Exact => exact(c.over * last.under, c.under * last.over))).map(Number);
};
const fromRoots = (...roots: number[]) => roots.map((root) => p(-root, 1)).reduce(times);

describe('division of polynomials', () => {
  it('gives quotient and rest', () => {
    // x³ − 2x² − 4 = (x − 3)(x² + x + 3) + 5: multiplied out, x³ + x² + 3x − 3x² − 3x − 9 + 5.
    const [quotientOf, rest] = divided(p(-4, 0, -2, 1), p(-3, 1));
    expect([shown(quotientOf), shown(rest)]).toEqual([['3', '1', '1'], ['5']]);
    // A divisor of a higher degree leaves everything.
    expect(divided(p(1, 1), p(0, 0, 1)).map(shown)).toEqual([[], ['1', '1']]);
    // Exact where a coefficient is no whole number: x² = (2x + 1)(x/2 − 1/4) + 1/4.
    expect(divided(p(0, 0, 1), p(1, 2)).map(shown)).toEqual([['-0.25', '0.5'], ['0.25']]);
  });

  it('is undone by multiplication, whatever is divided', () => {
    for (let a = -3; a <= 3; a++)
      for (let b = 1; b <= 3; b++) {
        const [dividend, by] = [p(a, 2, -b, a * b, 1), p(b, a, 2)];
        const [quotientOf, rest] = divided(dividend, by);
        const back = times(quotientOf, by);
        const sum = dividend.map((_, i) => {
          const [x, y] = [back[i] ?? exact(0n), rest[i] ?? exact(0n)];
          return exact(x.over * y.under + y.over * x.under, x.under * y.under);
        });
        expect(sum.map(exactText)).toEqual(shown(dividend));
        expect(rest.length).toBeLessThan(by.length);
      }
  });
});

describe('common divisors', () => {
  it('of polynomials', () => {
    // x² + 7x + 6 = (x + 1)(x + 6) and x² − 5x − 6 = (x + 1)(x − 6).
    expect(normed(commonDivisor(p(6, 7, 1), p(-6, -5, 1)))).toEqual([1, 1]);
    expect(commonDivisor(p(1, 1), p(2, 1))).toHaveLength(1);
  });

  it('of whole numbers, by Euclid; of 0 and a number the number', () => {
    // 1071 and 462: 1071 = 2·462 + 147, 462 = 3·147 + 21, 147 = 7·21.
    expect([divisor(1071n, 462n), divisor(-12n, 18n), divisor(0n, 7n), divisor(0n, 0n)]).toEqual([
      21n,
      6n,
      7n,
      0n,
    ]);
  });

  it('leave each root once, and whole coefficients without a factor', () => {
    // (x − 1)³(x + 2) has the roots of (x − 1)(x + 2) = x² + x − 2.
    expect(normed(squareFree(fromRoots(1, 1, 1, -2)))).toEqual([-2, 1, 1]);
    expect(normed(squareFree(fromRoots(3, 4)))).toEqual([12, -7, 1]);
    // x/2 + 2/3 is 3x + 4 over 6.
    expect(wholeCoefficients([exact(2n, 3n), exact(1n, 2n)])).toEqual([4n, 3n]);
    expect(wholeCoefficients(p(6, -9, 12))).toEqual([2n, -3n, 4n]);
  });
});

describe('real roots', () => {
  it('are found once each, in their order', () => {
    expect(realRoots(fromRoots(1, -1, 3, -3))).toEqual([-3, -1, 1, 3]);
    expect(realRoots(fromRoots(2, 2, 2))).toEqual([2]);
    // x⁴ + x³ − x − 1 = (x² − 1)(x² + x + 1): two real roots, two that are not.
    expect(realRoots(p(-1, -1, 0, 1, 1))).toEqual([-1, 1]);
    expect(realRoots(p(1, 0, 1))).toEqual([]);
    expect(realRoots(p(5))).toEqual([]);
    expect(realRoots([])).toEqual([]);
  });

  it('are right to the last digits where they are no fractions, or close together', () => {
    expect(realRoots(p(-2, 0, 1))).toEqual(
      [-Math.SQRT2, Math.SQRT2].map((x) => expect.closeTo(x, 15) as number),
    );
    expect(realRoots(p(-2, 0, 0, 1))).toEqual([expect.closeTo(Math.cbrt(2), 15)]);
    // (1000x − 1)(1000x − 2)
    expect(realRoots(p(2, -3000, 1_000_000))).toEqual([expect.closeTo(0.001, 17), expect.closeTo(0.002, 17)]);
    const ten = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
    expect(realRoots(fromRoots(...ten))).toEqual(ten);
  });
});

describe('a term as a rational function', () => {
  const x = letter('x');
  const power = (base: Term, exponent: number): Term => ({ is: 'power', base, exponent: whole(exponent) });
  const read = (term: Term) => rationalOf(term, 'x')?.map(shown);

  it('multiplies out what is in brackets, and keeps what is below the line', () => {
    expect(read(power(sumOf(x, whole(1)), 2))).toEqual([['1', '2', '1'], ['1']]);
    expect(read(quotient(whole(1), sumOf(x, minus(whole(2)))))).toEqual([['1'], ['-2', '1']]);
    expect(read(power(x, -2))).toEqual([['1'], ['0', '0', '1']]);
    // 1/x + 1/x = 2x/x²: nothing is cancelled here.
    expect(read(sumOf(power(x, -1), power(x, -1)))).toEqual([
      ['0', '2'],
      ['0', '0', '1'],
    ]);
  });

  it('is none with another letter, a root, a division by nothing, or too many steps', () => {
    expect(read(productOf(x, letter('y')))).toBeUndefined();
    expect(read({ is: 'root', of: x, index: 2 })).toBeUndefined();
    expect(read(quotient(x, sumOf(x, minus(x))))).toBeUndefined();
    expect(read(power(x, 13))).toBeUndefined();
    expect(rationalOf(power(sumOf(x, whole(1)), 8), 'x', 5)).toBeNull();
  });

  it('comes back from its term', () => {
    expect(rationalOf(polynomialTerm(p(3, 0, -2, 5), 'x'), 'x')![0].map(exactText)).toEqual([
      '3',
      '0',
      '-2',
      '5',
    ]);
    expect(rationalOf(polynomialTerm([], 'x'), 'x')![0]).toEqual([]);
  });
});
