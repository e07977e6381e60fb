/*
 * Quantiles of the usual distributions, for intervals. Exact to about 1e-12: the incomplete beta function as a continued
 * fraction (Lentz; Press et al., Numerical Recipes, 3rd ed., 6.4), inverted by bisection.
 */

const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/** The natural logarithm of the gamma function, for x > 0 (Lanczos, g = 7). */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const shifted = x - 1;
  const series = LANCZOS.slice(1).reduce((sum, c, i) => sum + c / (shifted + i + 1), LANCZOS[0]!);
  const base = shifted + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (shifted + 0.5) * Math.log(base) - base + Math.log(series);
}

const TINY = 1e-300;
const STEPS = 10_000;

function betaFraction(x: number, a: number, b: number): number {
  const away = (value: number) => (Math.abs(value) < TINY ? TINY : value);
  let c = 1;
  let d = 1 / away(1 - ((a + b) * x) / (a + 1));
  let result = d;
  for (let m = 1; m <= STEPS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / away(1 + even * d);
    c = away(1 + even / c);
    result *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / away(1 + odd * d);
    c = away(1 + odd / c);
    const change = d * c;
    result *= change;
    if (Math.abs(change - 1) < 1e-16) break;
  }
  return result;
}

/** The regularised incomplete beta function I_x(a, b), for 0 ≤ x ≤ 1 and a, b > 0. */
export function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  return x < (a + 1) / (a + b + 2)
    ? (front * betaFraction(x, a, b)) / a
    : 1 - (front * betaFraction(1 - x, b, a)) / b;
}

/** Where a growing function of 0..1 reaches `p`. */
function inverse(grows: (x: number) => number, p: number): number {
  let [low, high] = [0, 1];
  for (let i = 0; i < 200 && low < high; i++) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) break;
    if (grows(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** The quantile of the F distribution: `p` strictly between 0 and 1, degrees of freedom above 0, whole or not. */
export function quantileF(p: number, d1: number, d2: number): number {
  // The smaller of the two tails is looked for, so that no digits are lost near 1.
  if (p > 0.5) return 1 / quantileF(1 - p, d2, d1);
  const x = inverse((at) => incompleteBeta(at, d1 / 2, d2 / 2), p);
  return (d2 * x) / (d1 * (1 - x));
}

/** The quantile of Student's t distribution: `p` strictly between 0 and 1, degrees of freedom above 0. */
export function quantileT(p: number, degrees: number): number {
  if (p === 0.5) return 0;
  if (p < 0.5) return -quantileT(1 - p, degrees);
  const x = inverse((at) => incompleteBeta(at, degrees / 2, 0.5), 2 * (1 - p));
  return Math.sqrt((degrees * (1 - x)) / x);
}

/** z for two-sided intervals of 95 %: the 0.975 quantile of the standard normal distribution. */
export const Z_95 = 1.959963984540054;
