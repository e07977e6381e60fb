import { exact } from '../../numbers/exact';
import {
  commonDivisor,
  divided,
  divisor,
  rationalOf,
  realRoots,
  squareFree,
  trimmed,
  wholeCoefficients,
  type Polynomial,
} from '../polynomial';
import { lettersOf, type Term } from '../term';
import { NotComparable, toTerm } from '../toTerm';
import type { Tree } from '../tree';
import { cannotTell, no, yes, type FormFound } from './numbers';
import { plain, unsigned, valueOf, wholeIn } from './shared';

const MOST_REPEATED = 8;

/** The factors of a product as it is written, powers as often as they stand for; null for a sum alone. */
function factorsOf(tree: Tree): Tree[] {
  const found: Tree[] = [];
  const collect = (factor: Tree): void => {
    const one = plain(factor);
    if (one.is === 'product') one.of.forEach(collect);
    else if (one.is === 'power' && wholeIn(one.exponent) && valueOf(one.exponent) > 0n) {
      const base = plain(one.base);
      const times = Math.min(MOST_REPEATED, Number(valueOf(one.exponent)));
      for (let i = 0; i < times; i++) found.push(base.is === 'group' ? base.of : base);
    } else if (one.is === 'group') {
      const inside = plain(one.of);
      if (inside.is === 'product') collect(inside);
      else if (inside.is === 'negative') collect(inside.of);
      else found.push(inside);
    } else if (one.is === 'quotient' && wholeIn(one.under)) {
      found.push({ is: 'number', text: '1', whole: true, repeating: null });
      collect(one.over);
    } else found.push(one);
  };
  collect(unsigned(tree));
  return found;
}

const divisorsOf = (n: bigint): bigint[] => {
  const size = n < 0n ? -n : n;
  const found: bigint[] = [];
  for (let i = 1n; i * i <= size && i < 20_000n; i++)
    if (size % i === 0n) {
      found.push(i);
      if (i * i !== size) found.push(size / i);
    }
  return found;
};

const asPolynomial = (coefficients: readonly bigint[]): Polynomial => coefficients.map((c) => exact(c));

/** Is there a root that is a fraction? Its denominator divides the leading coefficient. */
function hasFractionRoot(coefficients: readonly bigint[]): boolean {
  const leading = coefficients.at(-1)!;
  return realRoots(asPolynomial(coefficients)).some((root) =>
    divisorsOf(leading).some((under) => {
      const over = BigInt(Math.round(root * Number(under)));
      let [sum, scale] = [0n, 1n];
      for (let i = coefficients.length - 1; i >= 0; i--) {
        sum = sum * over + coefficients[i]! * scale;
        scale *= under;
      }
      return sum === 0n;
    }),
  );
}

const MOST_TRIES = 5000;

/** A quadratic factor by its values at 0, 1 and −1 (L. Kronecker, 1882); null where there are too many to try. */
function hasQuadraticFactor(coefficients: readonly bigint[]): boolean | null {
  const valueAt = (x: bigint) => coefficients.reduceRight((sum, c) => sum * x + c, 0n);
  const values = [valueAt(0n), valueAt(1n), valueAt(-1n)];
  if (values.includes(0n)) return true;
  const choices = values.map((value) => divisorsOf(value).flatMap((d) => [d, -d]));
  if (choices.reduce((product, some) => product * some.length, 1) / 8 > MOST_TRIES) return null;
  const polynomial = asPolynomial(coefficients);
  for (const at0 of choices[0]!)
    for (const at1 of choices[1]!)
      for (const atMinus1 of choices[2]!) {
        const twice = at1 + atMinus1 - 2n * at0;
        if (twice % 2n !== 0n || (at1 - atMinus1) % 2n !== 0n || twice === 0n) continue;
        const factor = asPolynomial([at0, (at1 - atMinus1) / 2n, twice / 2n]);
        if (divided(polynomial, factor)[1].length === 0) return true;
      }
  return false;
}

/** Has a polynomial a factor over the fractions? Null where that is not found out here (above the fifth degree). */
function splits(polynomial: Polynomial): boolean | null {
  const coefficients = wholeCoefficients(polynomial);
  const degree = coefficients.length - 1;
  if (degree < 2) return false;
  if (hasFractionRoot(coefficients)) return true;
  if (degree <= 3) return false;
  return degree > 5 ? null : hasQuadraticFactor(coefficients);
}

function checkOneLetter(factor: Tree, term: Term, letter: string): FormFound {
  const rational = rationalOf(term, letter);
  if (!rational || rational[1].length > 1) return no('not a polynomial');
  const [coefficients] = rational;
  const degree = coefficients.length - 1;
  if (degree < 1 || factor.is === 'letter') return yes;
  const whole = coefficients.every((c) => c.under === 1n);
  const common = coefficients.reduce((made, c) => divisor(made, c.over), 0n);
  if (whole && common > 1n) return no('a common figure');
  if (coefficients[0]!.over === 0n && (degree > 1 || factor.is === 'sum')) return no('a common letter');
  if (degree === 1) return yes;
  if (squareFree(coefficients).length < coefficients.length) return no('a repeated factor');
  const further = splits(coefficients);
  if (further === null) return cannotTell;
  return further ? no('splits further') : yes;
}

interface Monomial {
  readonly figure: bigint;
  readonly powers: ReadonlyMap<string, number>;
}

/** A sum as monomials with whole figures; null where it is none. */
function monomialsOf(tree: Tree): Monomial[] | null {
  const one = plain(tree);
  const terms = one.is === 'sum' ? one.terms : [{ sign: '+' as const, of: tree }];
  const found: Monomial[] = [];
  for (const { sign, of } of terms) {
    const powers = new Map<string, number>();
    let figure = sign === '-' ? -1n : 1n;
    let fits = true;
    const walk = (factor: Tree): void => {
      const part = plain(factor);
      const whole = wholeIn(part);
      if (whole) figure *= BigInt(whole.text);
      else if (part.is === 'letter') powers.set(part.name, (powers.get(part.name) ?? 0) + 1);
      else if (part.is === 'power' && plain(part.base).is === 'letter' && wholeIn(part.exponent)) {
        const { name } = plain(part.base) as Tree & { name: string };
        powers.set(name, (powers.get(name) ?? 0) + Number(valueOf(part.exponent)));
      } else if (part.is === 'product') part.of.forEach(walk);
      else if (part.is === 'negative') {
        figure = -figure;
        walk(part.of);
      } else fits = false;
    };
    walk(of);
    if (!fits) return null;
    found.push({ figure, powers });
  }
  return found;
}

const degreeOf = ({ powers }: Monomial) => [...powers.values()].reduce((sum, power) => sum + power, 0);

function isSquare(value: bigint): boolean {
  if (value < 0n) return false;
  let root = BigInt(Math.floor(Math.sqrt(Number(value))));
  while (root * root > value) root--;
  while ((root + 1n) * (root + 1n) <= value) root++;
  return root * root === value;
}

/** Does a letter stand with a figure alone in front, so that no other factor can hold it? */
const hasFigureAlone = (monomials: readonly Monomial[], letter: string): boolean =>
  monomials.filter(({ powers }) => powers.has(letter)).every(({ powers }) => powers.size === 1);

function checkSeveralLetters(factor: Tree, letters: readonly string[]): FormFound {
  const monomials = monomialsOf(factor);
  if (!monomials) return cannotTell;
  const powerOf = ({ powers }: Monomial, letter: string) => powers.get(letter) ?? 0;
  const common = monomials.reduce((made, { figure }) => divisor(made, figure), 0n);
  if (common > 1n) return no('a common figure');
  if (letters.some((letter) => monomials.every((one) => powerOf(one, letter) > 0)))
    return no('a common letter');
  const degrees = monomials.map(degreeOf);
  if (Math.max(...degrees) < 2) return yes;
  const [a, b] = letters as [string, string];
  if (letters.length === 2 && degrees.every((degree) => degree === 2)) {
    const figure = (powerA: number, powerB: number) =>
      monomials
        .filter((one) => powerOf(one, a) === powerA && powerOf(one, b) === powerB)
        .reduce((sum, one) => sum + one.figure, 0n);
    // A quadratic form splits where its discriminant is a square.
    const discriminant = figure(1, 1) ** 2n - 4n * figure(2, 0) * figure(0, 2);
    return isSquare(discriminant) ? no('splits further') : yes;
  }
  const linear = letters.find((letter) => Math.max(...monomials.map((one) => powerOf(one, letter))) === 1);
  if (linear === undefined) return cannotTell;
  if (letters.length > 2) return hasFigureAlone(monomials, linear) ? yes : cannotTell;
  // u·x + v, where u and v are polynomials in the other letter, splits where these have a common divisor.
  const other = letters.find((letter) => letter !== linear)!;
  const coefficients = (power: number): Polynomial => {
    const own = monomials.filter((one) => powerOf(one, linear) === power);
    const degree = Math.max(0, ...own.map((one) => powerOf(one, other)));
    const figureOf = (n: number) =>
      own.filter((one) => powerOf(one, other) === n).reduce((sum, one) => sum + one.figure, 0n);
    return trimmed(Array.from({ length: degree + 1 }, (_, n) => exact(figureOf(n))));
  };
  return commonDivisor(coefficients(1), coefficients(0)).length > 1 ? no('splits further') : yes;
}

/** A product whose factors cannot be split further over the fractions. */
export function factorised(tree: Tree): FormFound {
  const factors = factorsOf(tree);
  let [figures, withLetters] = [0, 0];
  let unsure = false;
  for (const factor of factors) {
    let term: Term;
    try {
      term = toTerm(factor, () => 1, { log: 10 });
    } catch (error) {
      if (error instanceof NotComparable) return no('not a polynomial');
      throw error;
    }
    const letters = [...lettersOf(term)];
    if (letters.length === 0) {
      if (++figures > 1) return no('several figures');
      continue;
    }
    withLetters++;
    const found =
      letters.length === 1
        ? checkOneLetter(factor, term, letters[0]!)
        : factor.is === 'letter'
          ? yes
          : checkSeveralLetters(factor, letters);
    if (found.is === false) return found;
    unsure ||= found.is === null;
  }
  if (withLetters === 0) return no('no letters');
  if (factors.length === 1 && plain(factors[0]!).is === 'sum') return no('a sum');
  return unsure ? cannotTell : yes;
}
