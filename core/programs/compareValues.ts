import { compareExact, exactOfNumber, lowest, withinDistance, type Exact } from '../numbers/exact';
import { entriesOf, figureOf, isList, isNumber, wholeOf, type Figure, type Value } from './value';

export interface ValueRule {
  /** Decimals may differ by this much, its limit included. Whole numbers that a type asks for may not differ. */
  readonly within: number;
  /** The outer list may have any order. */
  readonly anyOrder: boolean;
}

/** Beyond so many elements of one shape that do not pair in their order, no other pairing is looked for. */
const MOST_PAIRED = 400;

/**
 * Is what a program returned the value that was expected, by type? Lists in order, maps by key, sets in any order. An
 * expected exact decimal stands for a number of any type by its value, within the tolerance, in exact decimals.
 */
export function sameValue(expected: Value, got: Value, { within, anyOrder }: ValueRule): boolean {
  const tolerance = exactOfNumber(within);
  const lists = isOfType(expected, 'l') && isOfType(got, 'l');
  return anyOrder && lists
    ? sameElements(expected.slice(1), got.slice(1), tolerance)
    : same(expected, got, tolerance);
}

const isOfType = (value: Value, type: 'l' | 's' | 'm'): value is readonly Value[] =>
  isList(value) && value[0] === type;

function same(expected: Value, got: Value, tolerance: Exact): boolean {
  if (!isList(expected) || !isList(got)) return expected === got;
  if (isNumber(expected) && isNumber(got)) return sameNumber(expected, got, tolerance);
  if (expected[0] !== got[0]) return false;
  const [a, b] = [expected.slice(1), got.slice(1)];
  if (a.length !== b.length) return false;
  if (expected[0] === 's') return sameElements(a, b, tolerance);
  if (expected[0] === 'm') return sameEntries(a, b, tolerance);
  return a.every((item, i) => same(item, b[i]!, tolerance));
}

function sameNumber([type, text]: Figure, [gotType, gotText]: Figure, tolerance: Exact): boolean {
  if (type === 'i') return gotType === 'i' && wholeOf(text) === wholeOf(gotText);
  // What a program gave is an expected value too where it was taken over: a fraction stays one.
  if (type === 'f' && gotType !== 'f') return false;
  const [a, b] = [figureOf(type, text), figureOf(gotType, gotText)];
  return a === null || b === null ? text === gotText : withinDistance(a, b, tolerance);
}

/** One text for values that are the same, apart from what numbers in them differ by within a tolerance. */
function textOf(value: Value): string {
  if (!isList(value)) return JSON.stringify(value);
  if (isNumber(value)) {
    return figureOf(value[0], value[1]) === null ? value[1] : 'n';
  }
  const items = value.slice(1).map(textOf);
  if (value[0] === 's') items.sort();
  return `${String(value[0])}[${items.join()}]`;
}

/** One text for values that are the same, to the last digit of a number: of long keys too. */
function exactText(value: Value): string {
  if (!isList(value)) return JSON.stringify(value);
  if (isNumber(value)) {
    const figure = figureOf(value[0], value[1]);
    if (figure === null) return value[1];
    const { over, under } = lowest(figure);
    return `n${over}/${under}`;
  }
  const items = value.slice(1).map(exactText);
  if (value[0] === 's') items.sort();
  return `${String(value[0])}[${items.join()}]`;
}

function sameEntries(a: readonly Value[], b: readonly Value[], tolerance: Exact): boolean {
  const wanted = new Map(entriesOf(a).map(([key, of]) => [exactText(key), { key, of }]));
  return entriesOf(b).every(([key, of]) => {
    const found = wanted.get(exactText(key));
    if (!found || !same(found.key, key, exactOfNumber(0))) return false;
    wanted.delete(exactText(key));
    return same(found.of, of, tolerance);
  });
}

const byFigure = (a: Figure, b: Figure) => {
  const [x, y] = [figureOf(...a), figureOf(...b)];
  return x === null || y === null ? 0 : compareExact(x, y);
};

/** Is there a way to pair all elements? Figures pair in their order; others exactly first, then by an augmenting path. */
function sameElements(a: readonly Value[], b: readonly Value[], tolerance: Exact): boolean {
  if (a.length !== b.length) return false;
  if (a.every(isNumber) && b.every(isNumber)) {
    const [x, y] = [[...a].sort(byFigure), [...b].sort(byFigure)];
    return x.every((one, i) => sameNumber(one, y[i]!, tolerance));
  }
  const [own, other] = [groupedBy(a, textOf), groupedBy(b, textOf)];
  if (own.size !== other.size) return false;
  return [...own].every(([shape, ones]) => {
    const others = other.get(shape) ?? [];
    return ones.length === others.length && samePairs(ones, others, tolerance);
  });
}

const groupedBy = (values: readonly Value[], textOfOne: (value: Value) => string) => {
  const groups = new Map<string, Value[]>();
  for (const one of values) {
    const group = groups.get(textOfOne(one));
    if (group) group.push(one);
    else groups.set(textOfOne(one), [one]);
  }
  return groups;
};

/** Every figure in a value, in the order in which it stands there. */
const figuresIn = (value: Value): readonly Figure[] =>
  isNumber(value) ? [value] : isList(value) ? value.slice(1).flatMap(figuresIn) : [];

const byFigures = (a: Value, b: Value): number => {
  const others = figuresIn(b);
  for (const [i, one] of figuresIn(a).entries()) {
    const order = others[i] ? byFigure(one, others[i]) : 1;
    if (order !== 0) return order;
  }
  return 0;
};

/** Values that differ in their figures only: what is exactly the same pairs first, then in order, then by any other way. */
function samePairs(a: readonly Value[], b: readonly Value[], tolerance: Exact): boolean {
  const spare = groupedBy(b, exactText);
  const left = a.filter((one) => spare.get(exactText(one))?.pop() === undefined).sort(byFigures);
  const rest = [...spare.values()].flat().sort(byFigures);
  const fits = (one: Value, other: Value) => same(one, other, tolerance);
  if (left.every((one, i) => fits(one, rest[i]!))) return true;
  return left.length <= MOST_PAIRED && pairs(left, rest, fits);
}

/** Does a perfect matching exist? (H. W. Kuhn, The Hungarian Method, 1955: augmenting paths.) */
function pairs<T>(left: readonly T[], right: readonly T[], fits: (a: T, b: T) => boolean): boolean {
  const partner = new Map<number, number>();
  const find = (one: number, tried: Set<number>): boolean =>
    right.some((other, at) => {
      if (tried.has(at) || !fits(left[one]!, other)) return false;
      tried.add(at);
      const before = partner.get(at);
      if (before !== undefined && !find(before, tried)) return false;
      partner.set(at, one);
      return true;
    });
  return left.every((_, one) => find(one, new Set()));
}
