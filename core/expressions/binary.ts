import { exact } from '../numbers/exact';
import { exactValue, sumOf, termsBelow, whole, type FunctionName, type Term } from './term';

type Numbers = Readonly<Record<string, number>>;
type Compiled = (at: Numbers) => number;

const FUNCTIONS: { readonly [N in FunctionName]: (x: number) => number } = {
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
  cot: (x) => 1 / Math.tan(x),
  sec: (x) => 1 / Math.cos(x),
  csc: (x) => 1 / Math.sin(x),
  asin: Math.asin,
  acos: Math.acos,
  atan: Math.atan,
  sinh: Math.sinh,
  cosh: Math.cosh,
  tanh: Math.tanh,
  ln: Math.log,
  exp: Math.exp,
};

const oddRoot = (x: number, n: number) => Math.sign(x) * Math.abs(x) ** (1 / n);

function compiledPower(base: Compiled, exponent: Term): Compiled {
  const fixed = exactValue(exponent);
  if (!fixed) {
    const power = compiled(exponent);
    return (at) => {
      const [b, p] = [base(at), power(at)];
      return b > 0 || Number.isInteger(p) ? b ** p : NaN;
    };
  }
  const [over, under] = [Number(fixed.over), Number(fixed.under)];
  if (under === 1) return (at) => base(at) ** over;
  if (under % 2 === 1) return (at) => oddRoot(base(at), under) ** over;
  return (at) => {
    const b = base(at);
    return b < 0 ? NaN : b ** (over / under);
  };
}

/** A term in binary, NaN where it has no value: only to find where something happens, never to compare. */
export function compiled(term: Term): Compiled {
  switch (term.is) {
    case 'exact': {
      const value = Number(term.value.over) / Number(term.value.under);
      return () => value;
    }
    case 'constant': {
      const value = term.name === 'pi' ? Math.PI : Math.E;
      return () => value;
    }
    case 'letter':
      return (at) => at[term.name]!;
    case 'sum': {
      const of = term.of.map(compiled);
      return (at) => of.reduce((sum, one) => sum + one(at), 0);
    }
    case 'product': {
      const of = term.of.map(compiled);
      return (at) => of.reduce((product, one) => product * one(at), 1);
    }
    case 'negative': {
      const of = compiled(term.of);
      return (at) => -of(at);
    }
    case 'absolute': {
      const of = compiled(term.of);
      return (at) => Math.abs(of(at));
    }
    case 'quotient': {
      const [over, under] = [compiled(term.over), compiled(term.under)];
      return (at) => {
        const below = under(at);
        return below === 0 ? NaN : over(at) / below;
      };
    }
    case 'power':
      return compiledPower(compiled(term.base), term.exponent);
    case 'root': {
      const of = compiled(term.of);
      const { index } = term;
      return (at) => {
        const inside = of(at);
        if (index % 2 === 1) return oddRoot(inside, index);
        return inside < 0 ? NaN : inside ** (1 / index);
      };
    }
    case 'log': {
      const [of, base] = [compiled(term.of), compiled(term.base)];
      return (at) => Math.log(of(at)) / Math.log(base(at));
    }
    case 'function': {
      const of = compiled(term.of);
      return (at) => FUNCTIONS[term.name](of(at));
    }
  }
}

const isWholeExponent = (exponent: Term) => exactValue(exponent)?.under === 1n;

function ownCriticals(term: Term): Term[] {
  switch (term.is) {
    case 'absolute':
    case 'root':
      return [term.of];
    case 'log':
      return [term.of, term.base];
    case 'power':
      return isWholeExponent(term.exponent) ? [] : [term.base];
    case 'function':
      if (term.name === 'ln') return [term.of];
      if (term.name !== 'asin' && term.name !== 'acos') return [];
      return [sumOf(term.of, { is: 'exact', value: exact(-1n) }), sumOf(term.of, whole(1))];
    default:
      return [];
  }
}

/** What changes its sign where a term may turn from one analytic piece to another. */
export const criticalsOf = (term: Term): Term[] => [
  ...ownCriticals(term),
  ...termsBelow(term).flatMap(criticalsOf),
];
