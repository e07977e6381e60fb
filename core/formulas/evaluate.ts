import {
  absolute,
  addExact,
  compareExact,
  exactOf,
  minusExact,
  negative,
  overExact,
  roundExact,
  timesExact,
  ZERO,
  type Exact,
} from '../numbers/exact';
import type { Comparison, Condition, Formula, Operation } from './formula';

/** What the names of a formula stand for; null where there is no figure. */
export interface Figures {
  readonly named: (name: string) => Exact | null;
  readonly sibling: (part: string, name: string) => Exact | null;
}

const OPERATIONS: { readonly [O in Operation]: (a: Exact, b: Exact) => Exact | null } = {
  plus: addExact,
  minus: minusExact,
  times: timesExact,
  over: overExact,
};

const COMPARISONS: { readonly [C in Comparison]: (order: -1 | 0 | 1) => boolean } = {
  same: (order) => order === 0,
  other: (order) => order !== 0,
  below: (order) => order < 0,
  above: (order) => order > 0,
  upTo: (order) => order <= 0,
  from: (order) => order >= 0,
};

const largest = (values: readonly Exact[], sign: 1 | -1) =>
  values.reduce((a, b) => (compareExact(b, a) * sign > 0 ? b : a));

function all(formulas: readonly Formula[], figures: Figures): Exact[] | null {
  const values = formulas.map((one) => evaluate(one, figures));
  return values.every((value) => value !== null) ? values : null;
}

/** The value of a formula, exact; null where a figure is missing or something is divided by zero. */
export function evaluate(formula: Formula, figures: Figures): Exact | null {
  switch (formula.is) {
    case 'figure':
      return exactOf(formula.text);
    case 'named':
      return figures.named(formula.name);
    case 'sibling':
      return figures.sibling(formula.part, formula.name);
    case 'if': {
      const holds = isTrue(formula.when, figures);
      return holds === null ? null : evaluate(holds ? formula.then : formula.otherwise, figures);
    }
    case 'sum':
    case 'least':
    case 'most': {
      const values = all(formula.of, figures);
      if (!values) return null;
      return formula.is === 'sum'
        ? values.reduce(addExact, ZERO)
        : largest(values, formula.is === 'most' ? 1 : -1);
    }
    case 'negative':
    case 'absolute':
    case 'round': {
      const value = evaluate(formula.of, figures);
      if (!value) return null;
      if (formula.is === 'round') return roundExact(value, formula.places);
      return formula.is === 'negative' ? negative(value) : absolute(value);
    }
    default: {
      const values = all([formula.left, formula.right], figures);
      return values && OPERATIONS[formula.is](values[0]!, values[1]!);
    }
  }
}

/** Does a condition hold? Null where a figure is missing. */
export function isTrue({ is, left, right }: Condition, figures: Figures): boolean | null {
  const values = all([left, right], figures);
  return values && COMPARISONS[is](compareExact(values[0]!, values[1]!));
}

/** The first circle among names that build on each other, as the names in it; null where there is none. */
export function circleIn(buildsOn: ReadonlyMap<string, readonly string[]>): readonly string[] | null {
  const done = new Set<string>();
  const visit = (name: string, path: readonly string[]): readonly string[] | null => {
    if (path.includes(name)) return path.slice(path.indexOf(name));
    if (done.has(name)) return null;
    for (const next of buildsOn.get(name) ?? []) {
      const circle = visit(next, [...path, name]);
      if (circle) return circle;
    }
    done.add(name);
    return null;
  };
  for (const name of buildsOn.keys()) {
    const circle = visit(name, []);
    if (circle) return circle;
  }
  return null;
}
