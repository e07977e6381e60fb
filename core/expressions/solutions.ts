import type Decimal from 'decimal.js';
import { addExact, exact, minusExact, overExact, timesExact, type Exact } from '../numbers/exact';
import type { Random } from '../random';
import { isBall, precisionOf, Undefined, Unknown, valueAt, type Ball } from './ball';
import { compiled, criticalsOf } from './binary';
import { ballAt } from './compareValues';
import { polynomialTerm, rationalOf, squareFree } from './polynomial';
import {
  GRID,
  isInside,
  pointsBetween,
  splitsAlong,
  withNumbers,
  type Numbers,
  type Range,
} from './sampling';
import { exactValue, keyOfTerm, mapBelow, type Term } from './term';

/** One condition of a relation, brought to one side: `of` is nought, not nought, below, or not above it. */
export interface Atom {
  readonly is: '=' | '!=' | '<' | '<=';
  readonly of: Term;
}

/** Any of these holds where all of its atoms do. */
export type Formula = readonly (readonly Atom[])[];

const DIGITS = 60;
/** Closer to nought than this is nought. */
const NOUGHT = 1e-45;

/** A place where the truth of a relation may change. */
interface Edge {
  readonly at: Decimal;
  readonly radius: number;
  readonly exactly: boolean;
  /** Where it is exactly a fraction. */
  readonly fraction: Exact | null;
  /** Found as a change of sign alone, not as a zero. */
  readonly change: boolean;
}

/** The nearest fraction with a small denominator, by continued fractions. */
function nearFraction(x: number): Exact | null {
  let [rest, over, under] = [x, [0, 1], [1, 0]] as [number, [number, number], [number, number]];
  for (let i = 0; i < 12; i++) {
    const whole = Math.floor(rest);
    over = [over[1], whole * over[1] + over[0]];
    under = [under[1], whole * under[1] + under[0]];
    if (under[1] > 5000) return null;
    const isNear = Math.abs(over[1] / under[1] - x) < 1e-13 * Math.max(1, Math.abs(x));
    if (isNear || rest === whole) return exact(BigInt(over[1]), BigInt(under[1]));
    rest = 1 / (rest - whole);
  }
  return null;
}

const decimalOf = ({ over, under }: Exact): Decimal =>
  precisionOf(DIGITS).number(over.toString()).div(under.toString());

/** A zero near a place, to many digits, by secants; null where there is none. */
function refined(of: Term, letter: string, near: number): Edge | null {
  const k = precisionOf(DIGITS);
  const value = (x: Decimal): Ball | null => ballAt(of, { [letter]: { value: x, radius: 0 } }, DIGITS);
  const fraction = nearFraction(near);
  if (fraction) {
    const at = decimalOf(fraction);
    const there = value(at);
    if (there && there.value.abs().toNumber() <= there.radius + NOUGHT) {
      const radius = fraction.under === 1n ? 0 : 1e-55 * Math.max(1, Math.abs(near));
      return { at, radius, exactly: true, fraction, change: false };
    }
  }
  let a = k.number(near);
  let b = a.plus(Math.max(1e-9, Math.abs(near) * 1e-9));
  let [atA, atB] = [value(a), value(b)];
  for (let i = 0; i < 12 && atA && atB; i++) {
    const slope = atB.value.minus(atA.value);
    if (slope.isZero()) break;
    const next = b.minus(atB.value.times(b.minus(a)).div(slope));
    if (!next.isFinite() || next.minus(near).abs().toNumber() > 1e-4 * Math.max(1, Math.abs(near)))
      return null;
    [a, atA] = [b, atB];
    [b, atB] = [next, value(next)];
    if (b.minus(a).abs().toNumber() < 1e-50) break;
  }
  if (!atA || !atB) return null;
  const step = b.minus(a).abs().toNumber();
  if (step >= 1e-25 || atB.value.abs().toNumber() >= 1e-22) return null;
  return { at: b, radius: Math.max(1e-40, step ** 1.5), exactly: false, fraction: null, change: false };
}

function edgeNear(of: Term, asPolynomial: Term, letter: string, x: number): Edge {
  const zero = refined(asPolynomial, letter, x) ?? refined(of, letter, x);
  if (zero) return zero;
  const fraction = nearFraction(x);
  return fraction
    ? { at: decimalOf(fraction), radius: 0, exactly: true, fraction, change: true }
    : { at: precisionOf(DIGITS).number(x), radius: 1e-12, exactly: false, fraction: null, change: true };
}

interface Edges {
  readonly edges: Edge[];
  /** Something may be a zero that only touches, and cannot be told for one. */
  readonly doubtful: boolean;
}

/** Zeros that only touch: low points of the size without a change of sign. */
function touching(of: Term, letter: string, range: Range, known: readonly Edge[]): Edges {
  const at = compiled(of);
  const size = (x: number) => Math.abs(at({ [letter]: x }));
  const edges: Edge[] = [];
  let doubtful = false;
  const look = (from: number, to: number) => {
    let [a, b] = [from, to];
    for (let i = 0; i < 80; i++) {
      const [m1, m2] = [a + (b - a) * 0.382, a + (b - a) * 0.618];
      if (size(m1) < size(m2)) b = m2;
      else a = m1;
    }
    const lowest = (a + b) / 2;
    if (!(size(lowest) < 1e-9)) return;
    if (known.some((edge) => Math.abs(edge.at.toNumber() - lowest) < 1e-5)) return;
    const fraction = nearFraction(Math.round(lowest * 1e6) / 1e6);
    const place = fraction && decimalOf(fraction);
    const there = place && ballAt(of, { [letter]: { value: place, radius: 0 } }, DIGITS);
    if (place && there && there.value.abs().toNumber() <= there.radius + NOUGHT)
      edges.push({ at: place, radius: 0, exactly: true, fraction, change: false });
    else doubtful = true;
  };
  const grid = GRID.filter((x) => x > range.from && x < range.to);
  grid.forEach((x, i) => {
    if (i < 2) return;
    const [y0, y1, y] = [grid[i - 2]!, grid[i - 1]!, x].map(size) as [number, number, number];
    if (y1 < y0 && y1 <= y && y1 < 0.05 * Math.max(1, y0)) look(grid[i - 2]!, x);
  });
  return { edges, doubtful };
}

const MOST_EDGES = 150;

/** Every place where one of the atoms may become true or false. */
function edgesOf(terms: readonly Term[], letter: string, range: Range, checkTime: () => void): Edges {
  const edges: Edge[] = [];
  let doubtful = false;
  for (const of of terms) {
    checkTime();
    const rational = rationalOf(of, letter, 14);
    const asPolynomial =
      rational && rational[0].length > 1 ? polynomialTerm(squareFree(rational[0]), letter) : of;
    const places = [
      ...splitsAlong([of], letter, {}, range),
      ...splitsAlong(criticalsOf(of), letter, {}, range),
    ];
    for (const x of places) {
      checkTime();
      edges.push(edgeNear(of, asPolynomial, letter, x));
    }
    if (!rational) {
      const low = touching(of, letter, range, edges);
      edges.push(...low.edges);
      doubtful ||= low.doubtful;
    }
    if (edges.length > MOST_EDGES) break;
  }
  edges.sort((a, b) => a.at.comparedTo(b.at));
  const kept: Edge[] = [];
  for (const edge of edges) {
    const last = kept.at(-1);
    const apart = last && edge.at.minus(last.at).abs().toNumber();
    if (apart === undefined || apart >= 1e-13 * Math.max(1, edge.at.abs().toNumber())) kept.push(edge);
    else if (last?.change && !edge.change) kept[kept.length - 1] = edge;
  }
  return { edges: kept, doubtful };
}

const withFraction = (term: Term, letter: string, value: Exact): Term =>
  term.is === 'letter' && term.name === letter
    ? { is: 'exact', value }
    : mapBelow(term, (one) => withFraction(one, letter, value));

/** The exact value of a term without letters. Throws Undefined where a divisor is nought, Unknown for anything else. */
function exactly(term: Term): Exact {
  switch (term.is) {
    case 'exact':
      return term.value;
    case 'sum':
      return term.of.map(exactly).reduce(addExact);
    case 'product':
      return term.of.map(exactly).reduce(timesExact);
    case 'negative':
      return minusExact(exact(0n), exactly(term.of));
    case 'absolute': {
      const value = exactly(term.of);
      return value.over < 0n ? minusExact(exact(0n), value) : value;
    }
    case 'quotient': {
      const value = overExact(exactly(term.over), exactly(term.under));
      if (!value) throw new Undefined();
      return value;
    }
    case 'power': {
      const exponent = exactValue(term.exponent);
      if (exponent?.under !== 1n || exponent.over > 200n || exponent.over < -200n) throw new Unknown();
      const [base, n] = [exactly(term.base), exponent.over];
      if (base.over === 0n && n <= 0n) throw new Undefined();
      return n >= 0n ? exact(base.over ** n, base.under ** n) : exact(base.under ** -n, base.over ** -n);
    }
    default:
      throw new Unknown();
  }
}

/** The sign of a term at a place; null where it cannot be told, undefined where it has no value. */
function signOf(of: Term, letter: string, edge: Edge): number | null | undefined {
  if (edge.fraction) {
    try {
      return Math.sign(Number(exactly(withFraction(of, letter, edge.fraction)).over));
    } catch (error) {
      if (error instanceof Undefined) return undefined;
      if (!(error instanceof Unknown)) throw error;
    }
  }
  const found = valueAt(of, { [letter]: { value: edge.at, radius: edge.radius } }, DIGITS);
  if (!isBall(found)) return found === 'undefined' ? undefined : null;
  const size = found.value.abs().toNumber();
  return size <= Math.max(found.radius, 1e-36) ? 0 : found.value.isNeg() ? -1 : 1;
}

const HOLDS: { readonly [S in Atom['is']]: (sign: number) => boolean } = {
  '=': (sign) => sign === 0,
  '!=': (sign) => sign !== 0,
  '<': (sign) => sign < 0,
  '<=': (sign) => sign <= 0,
};

/** Does a formula hold at a place? Null where it cannot be told. */
function holdsAt(formula: Formula, letter: string, edge: Edge): boolean | null {
  let any = false;
  for (const atoms of formula) {
    let all = true;
    for (const { is, of } of atoms) {
      const sign = signOf(of, letter, edge);
      if (sign === null) return null;
      if (sign === undefined || !HOLDS[is](sign)) {
        all = false;
        break;
      }
    }
    if (all) any = true;
  }
  return any;
}

export interface SameSolutions {
  readonly is: 'same' | 'other' | 'doubtful';
  /** Was it true anywhere, and false anywhere? */
  readonly some: boolean;
  readonly none: boolean;
}

interface Along {
  readonly letter: string;
  /** The values of the other letters. */
  readonly others: Numbers;
  readonly range: Range;
  readonly random: Random;
  readonly checkTime: () => void;
}

const withOthers = (formula: Formula, others: Numbers): Formula =>
  formula.map((atoms) => atoms.map(({ is, of }) => ({ is, of: withNumbers(of, others) })));

/** Have two formulas the same solutions along one letter? Looked at between all edges, and at each of them. */
export function compareSolutions(a: Formula, b: Formula, along: Along): SameSolutions {
  const { letter, others, range, random, checkTime } = along;
  const [mine, theirs] = [withOthers(a, others), withOthers(b, others)];
  const atoms = [...mine, ...theirs].flat();
  const terms = [...new Map(atoms.map(({ of }) => [keyOfTerm(of), of])).values()];
  const { edges, doubtful: touches } = edgesOf(terms, letter, range, checkTime);
  let [some, none, doubtful] = [false, false, touches];
  const note = (holds: boolean) => {
    if (holds) some = true;
    else none = true;
  };
  const k = precisionOf(DIGITS);
  const plain = (x: number): Edge => ({
    at: k.number(x),
    radius: 0,
    exactly: false,
    fraction: null,
    change: false,
  });
  const places = range.whole
    ? Array.from({ length: 61 }, (_, i) => i - 30).filter((x) => x >= range.from && x <= range.to)
    : pointsBetween(
        edges.map((edge) => edge.at.toNumber()),
        range,
        random,
        2,
      );
  for (const x of places) {
    checkTime();
    const [p, q] = [holdsAt(mine, letter, plain(x)), holdsAt(theirs, letter, plain(x))];
    if (p === null || q === null) continue;
    if (p !== q) return { is: 'other', some, none };
    note(p);
  }
  for (const edge of range.whole ? [] : edges.filter(({ at }) => isInside(range, at.toNumber()))) {
    checkTime();
    const [p, q] = [holdsAt(mine, letter, edge), holdsAt(theirs, letter, edge)];
    if (p === null || q === null) {
      doubtful ||= !edge.change;
      continue;
    }
    if (p !== q) {
      if (!edge.change || edge.exactly) return { is: 'other', some, none };
      doubtful = true;
      continue;
    }
    note(p);
  }
  return { is: doubtful ? 'doubtful' : 'same', some, none };
}
