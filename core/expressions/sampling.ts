import { exact, lowest } from '../numbers/exact';
import type { Random } from '../random';
import { compiled, criticalsOf } from './binary';
import { rationalOf, realRoots } from './polynomial';
import { keyOfTerm, lettersOf, mapBelow, type Term } from './term';

/** Where a letter may lie; unbounded where nothing is said. */
export interface Range {
  readonly from: number;
  readonly to: number;
  readonly fromOpen: boolean;
  readonly toOpen: boolean;
  readonly whole: boolean;
}

export type Domain = Readonly<Record<string, Partial<Range>>>;
export type Numbers = Readonly<Record<string, number>>;

export const rangeOf = (domain: Domain, letter: string): Range => ({
  from: -Infinity,
  to: Infinity,
  fromOpen: false,
  toOpen: false,
  whole: false,
  ...domain[letter],
});

export const isInside = ({ from, to, fromOpen, toOpen }: Range, x: number): boolean =>
  x >= from && x <= to && !(x === from && fromOpen) && !(x === to && toOpen);

/** One random value of a range. */
export function drawFrom({ from, to, whole }: Range, random: Random): number {
  if (whole) {
    const low = Math.max(from, -30);
    const high = Math.min(to, Math.max(30, low + 60));
    return Math.floor(low + random() * (high - low + 1));
  }
  const scale = [1, 3, 10][Math.floor(random() * 3)]!;
  if (isFinite(from) && isFinite(to)) return from + (to - from) * (0.001 + 0.998 * random());
  if (isFinite(from)) return from + scale * (0.01 + random());
  if (isFinite(to)) return to - scale * (0.01 + random());
  return (random() * 2 - 1) * scale;
}

/** Binary figures are fractions: a letter is replaced by the very one. */
function exactOfBinary(x: number) {
  let [over, under] = [x, 1n];
  for (let i = 0; i < 60 && !Number.isInteger(over); i++) {
    over *= 2;
    under *= 2n;
  }
  return lowest(exact(BigInt(over), under));
}

/** A term with some of its letters replaced by figures. */
export function withNumbers(term: Term, numbers: Numbers): Term {
  if (term.is !== 'letter') return mapBelow(term, (one) => withNumbers(one, numbers));
  const value = numbers[term.name];
  return value === undefined ? term : { is: 'exact', value: exactOfBinary(value) };
}

/** Places close to nought, far away, and evenly between −12 and 12; none of them a round figure. */
export const GRID: readonly number[] = (() => {
  const places: number[] = [];
  for (let power = -9; power < 9; power += 0.25) places.push(10 ** power * 1.0371, -(10 ** power) * 1.0371);
  for (let x = -12.013; x < 12.1; x += 0.0713) places.push(x);
  return places.sort((a, b) => a - b);
})();

const inside = ({ from, to }: Range) => GRID.filter((x) => x > from && x < to);

function gridOf(range: Range): number[] {
  const { from, to } = range;
  const places = inside(range);
  for (let k = 1; k < 40; k++) {
    if (isFinite(from)) places.push(from + (isFinite(to) ? ((to - from) * k) / 40 : k * 0.05));
    if (isFinite(to)) places.push(isFinite(from) ? from + ((to - from) * k) / 40 + 1e-9 : to - k * 0.05);
  }
  return places.sort((a, b) => a - b);
}

/** 1 and −1 for signs, 0 at a zero, 2 where there is no value. */
type Sign = -1 | 0 | 1 | 2;
const MOST_SPLITS = 300;

/** Where a function changes its sign, begins or ends, or dips to nought, by bisection between places of a grid. */
function splitsByGrid(of: (x: number) => number, grid: readonly number[]): number[] {
  const found: number[] = [];
  const signOf = (y: number): Sign => (Number.isNaN(y) ? 2 : (Math.sign(y) as Sign));
  const sign = (x: number) => signOf(of(x));
  const bisect = (from: number, to: number, first: Sign): number => {
    let [a, b] = [from, to];
    for (let i = 0; i < 70; i++) {
      const middle = (a + b) / 2;
      if (sign(middle) === first) a = middle;
      else b = middle;
    }
    return (a + b) / 2;
  };
  /** A dip between three places: does it cross, or touch? */
  const dip = (from: number, to: number, own: Sign) => {
    let [a, b] = [from, to];
    for (let i = 0; i < 60; i++) {
      const [m1, m2] = [a + (b - a) * 0.382, a + (b - a) * 0.618];
      if (own * of(m1) < own * of(m2)) b = m2;
      else a = m1;
    }
    const lowest = (a + b) / 2;
    const there = sign(lowest);
    if (there !== own && there !== 0) found.push(bisect(from, lowest, own), bisect(lowest, to, there));
    else if (there === 0 || Math.abs(of(lowest)) < 1e-12) found.push(lowest);
  };
  let inZero = false;
  let last: { readonly x: number; readonly y: number; readonly sign: Sign } | null = null;
  let before: { readonly x: number; readonly y: number } | null = null;
  for (const x of grid) {
    const y = of(x);
    const own = signOf(y);
    if (own === 0) {
      if (!inZero) found.push(x);
      inZero = true;
      continue;
    }
    inZero = false;
    if (last && own !== last.sign) found.push(bisect(last.x, x, last.sign));
    else if (
      last &&
      before &&
      own !== 2 &&
      Math.abs(last.y) < Math.abs(before.y) &&
      Math.abs(last.y) <= Math.abs(y)
    )
      dip(before.x, x, own);
    before = last?.sign === own ? last : null;
    last = { x, y, sign: own };
    if (found.length > MOST_SPLITS) break;
  }
  return found;
}

/** Where these functions change their signs along one letter, the others having these values; in order. */
export function splitsAlong(terms: readonly Term[], letter: string, others: Numbers, range: Range): number[] {
  let grid: number[] | null = null;
  const found = terms.flatMap((term) => {
    const own = withNumbers(term, others);
    if (!lettersOf(own).has(letter)) return [];
    const rational = rationalOf(own, letter, 12);
    if (rational) return rational.flatMap((side) => (side.length > 1 ? realRoots(side) : []));
    const of = compiled(own);
    grid ??= gridOf(range);
    return splitsByGrid((x) => of({ [letter]: x }), grid);
  });
  return found
    .sort((a, b) => a - b)
    .filter((x, i, all) => i === 0 || x - all[i - 1]! > 1e-12 * Math.max(1e-3, Math.abs(x)));
}

const MOST_STRETCHES = 16;
const REACHES = [0.9, 4, 15] as const;
const WIDTHS = [1, 4, 12] as const;

function pointIn(from: number, to: number, i: number, random: Random): number {
  if (isFinite(from) && isFinite(to)) return from + (to - from) * (0.02 + 0.96 * random());
  if (isFinite(from)) return from + REACHES[i % 3]! * (0.05 + random());
  if (isFinite(to)) return to - REACHES[i % 3]! * (0.05 + random());
  return (random() * 2 - 1) * WIDTHS[i % 3]!;
}

function wholePointIn(from: number, to: number, i: number, random: Random): number[] {
  const [low, high] = [Math.ceil(Math.max(from, -40)), Math.floor(Math.min(to, 40))];
  if (low <= high) return [low + Math.floor(random() * (high - low + 1))];
  return isFinite(from) && from > 0 ? [Math.ceil(from) + i] : [];
}

/** Random places in every stretch between splits. */
export function pointsBetween(
  splits: readonly number[],
  range: Range,
  random: Random,
  each: number,
): number[] {
  const edges = [range.from, ...splits.filter((x) => x > range.from && x < range.to), range.to];
  let stretches = edges.slice(1).map((to, i) => [edges[i]!, to] as const);
  if (stretches.length > MOST_STRETCHES) {
    const nearness = ([from, to]: readonly [number, number]) => Math.min(Math.abs(from), Math.abs(to));
    stretches.sort((a, b) => nearness(a) - nearness(b));
    stretches = [...stretches.slice(0, MOST_STRETCHES - 2), ...stretches.slice(-2)];
  }
  return stretches.flatMap(([from, to]) =>
    Array.from({ length: each }, (_, i) =>
      range.whole ? wholePointIn(from, to, i, random) : [pointIn(from, to, i, random)],
    ).flat(),
  );
}

const FREE_DRAWS = 9;
const MOST_POINTS = 90;

/** Where terms are compared: in every stretch of each letter, the others drawn, and some free draws. */
export function samplePoints(
  terms: readonly Term[],
  letters: ReadonlySet<string>,
  domain: Domain,
  random: Random,
): Numbers[] {
  const names = [...letters];
  if (names.length === 0) return [{}];
  const criticals = [...new Map(terms.flatMap(criticalsOf).map((one) => [keyOfTerm(one), one])).values()];
  const [rounds, each] = names.length === 1 ? [1, 3] : [2, 2];
  const points: Numbers[] = [];
  for (let round = 0; round < rounds; round++)
    for (const name of names) {
      const others = Object.fromEntries(
        names
          .filter((other) => other !== name)
          .map((other) => [other, Number(drawFrom(rangeOf(domain, other), random).toFixed(6))]),
      );
      const own = criticals.filter((one) => lettersOf(one).has(name));
      const range = rangeOf(domain, name);
      const splits = own.length > 0 ? splitsAlong(own, name, others, range) : [];
      for (const x of pointsBetween(splits, range, random, each)) points.push({ ...others, [name]: x });
    }
  for (let i = 0; i < FREE_DRAWS; i++)
    points.push(Object.fromEntries(names.map((name) => [name, drawFrom(rangeOf(domain, name), random)])));
  return points.slice(0, MOST_POINTS);
}
