import { addExact, exact, minusExact, negative, overExact, timesExact, type Exact } from '../numbers/exact';
import { exactValue, productOf, sumOf, letter, type Term } from './term';

/** The coefficients of a polynomial in one letter, from the constant one; the last is not 0. Empty for 0. */
export type Polynomial = readonly Exact[];

const ONE: Polynomial = [exact(1n)];

export function trimmed(p: Polynomial): Polynomial {
  const last = p.findLastIndex((c) => c.over !== 0n);
  return p.slice(0, last + 1);
}

const at = (p: Polynomial, i: number): Exact => p[i] ?? exact(0n);

const add = (a: Polynomial, b: Polynomial): Polynomial =>
  trimmed(Array.from({ length: Math.max(a.length, b.length) }, (_, i) => addExact(at(a, i), at(b, i))));

export function times(a: Polynomial, b: Polynomial): Polynomial {
  const made = Array.from({ length: Math.max(0, a.length + b.length - 1) }, () => exact(0n));
  a.forEach((x, i) =>
    b.forEach((y, k) => {
      made[i + k] = addExact(made[i + k]!, timesExact(x, y));
    }),
  );
  return trimmed(made);
}

/** Quotient and rest of a division. */
export function divided(a: Polynomial, b: Polynomial): readonly [Polynomial, Polynomial] {
  let rest: Polynomial = a;
  const quotient: Exact[] = [];
  while (rest.length >= b.length) {
    const factor = overExact(rest.at(-1)!, b.at(-1)!)!;
    const shift = rest.length - b.length;
    quotient[shift] = factor;
    rest = trimmed(
      rest.slice(0, -1).map((c, i) => (i < shift ? c : minusExact(c, timesExact(at(b, i - shift), factor)))),
    );
  }
  return [Array.from({ length: quotient.length }, (_, i) => quotient[i] ?? exact(0n)), rest];
}

const derivative = (p: Polynomial): Polynomial =>
  trimmed(p.slice(1).map((c, i) => timesExact(c, exact(BigInt(i + 1)))));

export function commonDivisor(a: Polynomial, b: Polynomial): Polynomial {
  let [one, other] = [a, b];
  while (other.length > 0) [one, other] = [other, divided(one, other)[1]];
  return one;
}

/** Each root once: a polynomial over its common divisor with its derivative. */
export function squareFree(p: Polynomial): Polynomial {
  if (p.length < 3) return p;
  const common = commonDivisor(p, derivative(p));
  return common.length > 1 ? divided(p, common)[0] : p;
}

/** A rational function in one letter: above and below the line. */
type Rational = readonly [Polynomial, Polynomial];

const MOST_POWER = 12;

/** A term as a rational function of one letter; null where it is none, or too long a one. */
export function rationalOf(term: Term, name: string, longest = 24): Rational | null {
  const kept = (r: Rational | null): Rational | null =>
    r && (r[0].length > longest || r[1].length > longest) ? null : r;
  const go = (one: Term): Rational | null => {
    switch (one.is) {
      case 'exact':
        return [trimmed([one.value]), ONE];
      case 'letter':
        return one.name === name ? [[exact(0n), exact(1n)], ONE] : null;
      case 'negative': {
        const of = go(one.of);
        return of && [of[0].map(negative), of[1]];
      }
      case 'sum':
        return one.of.reduce<Rational | null>(
          (made, next) => {
            const right = made && go(next);
            if (!right) return null;
            return kept([add(times(made[0], right[1]), times(right[0], made[1])), times(made[1], right[1])]);
          },
          [[], ONE],
        );
      case 'product':
        return one.of.reduce<Rational | null>(
          (made, next) => {
            const right = made && go(next);
            return right && kept([times(made[0], right[0]), times(made[1], right[1])]);
          },
          [ONE, ONE],
        );
      case 'quotient': {
        const [over, under] = [go(one.over), go(one.under)];
        return over && under && under[0].length > 0
          ? [times(over[0], under[1]), times(over[1], under[0])]
          : null;
      }
      case 'power': {
        const exponent = exactValue(one.exponent);
        const steps = exponent?.under === 1n ? Number(exponent.over) : NaN;
        const base = Math.abs(steps) <= MOST_POWER ? go(one.base) : null;
        if (!base) return null;
        const [over, under] = steps < 0 ? [base[1], base[0]] : base;
        let made: Rational | null = [ONE, ONE];
        for (let i = 0; made && i < Math.abs(steps); i++)
          made = kept([times(made[0], over), times(made[1], under)]);
        return made;
      }
      default:
        return null;
    }
  };
  return go(term);
}

export const polynomialTerm = (p: Polynomial, name: string): Term =>
  sumOf(
    ...p.map((value, i): Term => {
      const power: Term =
        i === 0
          ? { is: 'exact', value: exact(1n) }
          : { is: 'power', base: letter(name), exponent: { is: 'exact', value: exact(BigInt(i)) } };
      return productOf({ is: 'exact', value }, power);
    }),
    { is: 'exact', value: exact(0n) },
  );

export const divisor = (a: bigint, b: bigint): bigint => {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
};

/** The same polynomial with whole coefficients that have no common divisor. */
export function wholeCoefficients(p: Polynomial): bigint[] {
  const common = p.reduce((least, c) => (least / divisor(least, c.under)) * c.under, 1n);
  const coefficients = p.map((c) => c.over * (common / c.under));
  const shared = coefficients.reduce((made, c) => divisor(made, c), 0n);
  return shared > 0n ? coefficients.map((c) => c / shared) : coefficients;
}

const signAt = (coefficients: readonly bigint[], over: bigint, under: bigint): -1 | 0 | 1 => {
  let [sum, scale] = [0n, 1n];
  for (let i = coefficients.length - 1; i >= 0; i--) {
    sum = sum * over + coefficients[i]! * scale;
    scale *= under;
  }
  return sum > 0n ? 1 : sum < 0n ? -1 : 0;
};

/** Sturm's chain: how often its signs change tells how many roots lie between two places (J. C. F. Sturm, 1829). */
function chainOf(p: Polynomial): bigint[][] {
  const chain: Polynomial[] = [p, derivative(p)];
  while (chain.at(-1)!.length > 1) {
    const [, rest] = divided(chain.at(-2)!, chain.at(-1)!);
    if (rest.length === 0) break;
    chain.push(wholeCoefficients(rest).map((c) => exact(-c)));
  }
  return chain.map(wholeCoefficients);
}

const DEEPEST = 140;

/** The real roots, each once, in their order; found exactly and given in binary. */
export function realRoots(polynomial: Polynomial): number[] {
  const p = squareFree(polynomial);
  if (p.length < 2) return [];
  const chain = chainOf(p);
  const own = chain[0]!;
  const changesAt = (over: bigint, under: bigint): number => {
    let [changes, last] = [0, 0];
    for (const one of chain) {
      const sign = signAt(one, over, under);
      if (sign !== 0 && last !== 0 && sign !== last) changes++;
      if (sign !== 0) last = sign;
    }
    return changes;
  };
  const sizes = own.map((c) => (c < 0n ? -c : c));
  const largest = sizes.slice(0, -1).reduce((a, b) => (b > a ? b : a), 0n);
  let bound = 1n;
  while (bound <= largest / sizes.at(-1)! + 2n) bound *= 2n;

  const roots: number[] = [];
  /** One root between two places: halved until binary cannot tell them apart. */
  const narrow = (from: bigint, to: bigint, below: bigint, before: number) => {
    let [low, high, under] = [from, to, below];
    for (let i = 0; i < 200; i++) {
      const wide = Number(high - low) / Number(under);
      const size = Math.abs(Number(high) / Number(under));
      if (wide < 1e-17 * Math.max(size, 1e-6) || under > 1n << 160n) break;
      const middle = low + high;
      [low, high, under] = [low * 2n, high * 2n, under * 2n];
      if (signAt(own, middle, under) === 0) {
        high = middle;
        break;
      }
      if (before - changesAt(middle, under) === 1) high = middle;
      else low = middle;
    }
    roots.push(Number(high) / Number(under));
  };
  const search = (
    from: bigint,
    to: bigint,
    under: bigint,
    before: number,
    after: number,
    depth: number,
  ): void => {
    const count = before - after;
    if (count <= 0) return;
    if (depth > DEEPEST) {
      roots.push(Number(from) / Number(under));
      return;
    }
    if (count === 1) return narrow(from, to, under, before);
    const middle = from + to;
    const between = changesAt(middle, 2n * under);
    search(2n * from, middle, 2n * under, before, between, depth + 1);
    search(middle, 2n * to, 2n * under, between, after, depth + 1);
  };
  search(-bound, bound, 1n, changesAt(-bound, 1n), changesAt(bound, 1n), 0);
  return roots;
}
