import { describe, expect, it } from 'vitest';
import { incompleteBeta, logGamma, quantileF, quantileT } from './distributions';

describe('distributions', () => {
  it('know the gamma function where it has closed forms', () => {
    // Γ(5) = 4! = 24, Γ(1/2) = √π.
    expect(logGamma(5)).toBeCloseTo(Math.log(24), 12);
    expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.sqrt(Math.PI)), 12);
  });

  it('know the incomplete beta function where it has closed forms', () => {
    // I_x(1, b) = 1 − (1 − x)^b; I_x(2, 2) = x²(3 − 2x).
    expect(incompleteBeta(0.3, 1, 4)).toBeCloseTo(1 - 0.7 ** 4, 13);
    expect(incompleteBeta(0.8, 2, 2)).toBeCloseTo(0.64 * 1.4, 13);
  });

  // Student 1908 in the tables of Fisher and Yates; one degree of freedom is the Cauchy distribution: tan(0.475π).
  it.each([
    [0.975, 1, Math.tan(0.475 * Math.PI)],
    [0.975, 10, 2.2281388519649385],
    [0.025, 10, -2.2281388519649385],
    [0.975, 120, 1.9799304050824413],
  ])('t(%s; %s) is %s', (p, degrees, t) => expect(quantileT(p, degrees)).toBeCloseTo(t, 9));

  it('F is the square of t with one degree above, and turns over with its degrees', () => {
    expect(quantileF(0.95, 1, 10)).toBeCloseTo(2.2281388519649385 ** 2, 8);
    // With two degrees above: ((1 − p)^(−2/d) − 1) · d/2, here d = 10.
    expect(quantileF(0.95, 2, 10)).toBeCloseTo((0.05 ** -0.2 - 1) * 5, 9);
    expect(quantileF(0.05, 4.5, 7)).toBeCloseTo(1 / quantileF(0.95, 7, 4.5), 12);
  });
});
