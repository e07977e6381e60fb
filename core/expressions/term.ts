import { addExact, exact, negative, overExact, timesExact, type Exact } from '../numbers/exact';
import type { ConstantName } from './tree';

/** What an expression is worth, freed of how it is written. */
export type Term =
  | { readonly is: 'exact'; readonly value: Exact }
  | { readonly is: 'constant'; readonly name: ConstantName }
  | { readonly is: 'letter'; readonly name: string }
  | { readonly is: 'sum' | 'product'; readonly of: readonly Term[] }
  | { readonly is: 'negative' | 'absolute'; readonly of: Term }
  | { readonly is: 'quotient'; readonly over: Term; readonly under: Term }
  | { readonly is: 'power'; readonly base: Term; readonly exponent: Term }
  /** An index is a whole number from 2. */
  | { readonly is: 'root'; readonly of: Term; readonly index: number }
  | { readonly is: 'log'; readonly base: Term; readonly of: Term }
  | { readonly is: 'function'; readonly name: FunctionName; readonly of: Term };

export const FUNCTION_NAMES = [
  'sin',
  'cos',
  'tan',
  'cot',
  'sec',
  'csc',
  'asin',
  'acos',
  'atan',
  'sinh',
  'cosh',
  'tanh',
  'ln',
  'exp',
] as const;
export type FunctionName = (typeof FUNCTION_NAMES)[number];

export const whole = (n: number | bigint): Term => ({ is: 'exact', value: exact(BigInt(n)) });
export const sumOf = (...of: Term[]): Term => ({ is: 'sum', of });
export const productOf = (...of: Term[]): Term => ({ is: 'product', of });
export const minus = (of: Term): Term => ({ is: 'negative', of });
export const quotient = (over: Term, under: Term): Term => ({ is: 'quotient', over, under });
export const letter = (name: string): Term => ({ is: 'letter', name });

export function termsBelow(term: Term): readonly Term[] {
  switch (term.is) {
    case 'exact':
    case 'constant':
    case 'letter':
      return [];
    case 'sum':
    case 'product':
      return term.of;
    case 'quotient':
      return [term.over, term.under];
    case 'power':
      return [term.base, term.exponent];
    case 'log':
      return [term.base, term.of];
    default:
      return [term.of];
  }
}

/** The same term with each term below it replaced. */
export function mapBelow(term: Term, by: (below: Term) => Term): Term {
  switch (term.is) {
    case 'exact':
    case 'constant':
    case 'letter':
      return term;
    case 'sum':
    case 'product':
      return { ...term, of: term.of.map(by) };
    case 'quotient':
      return quotient(by(term.over), by(term.under));
    case 'power':
      return { is: 'power', base: by(term.base), exponent: by(term.exponent) };
    case 'log':
      return { is: 'log', base: by(term.base), of: by(term.of) };
    default:
      return { ...term, of: by(term.of) };
  }
}

export function lettersOf(term: Term, found = new Set<string>()): Set<string> {
  if (term.is === 'letter') found.add(term.name);
  for (const one of termsBelow(term)) lettersOf(one, found);
  return found;
}

/** The same text for the same term. */
export const keyOfTerm = (term: Term): string =>
  JSON.stringify(term, (_, value: unknown) => (typeof value === 'bigint' ? value.toString() : value));

const LARGEST_POWER = 5000n;
/** How long the digits of a power may become, in hexadecimal. */
const LONGEST_POWER = 20_000;

function exactPower(base: Exact, exponent: Exact): Exact | null {
  const n = exponent.over;
  if (exponent.under !== 1n || n > LARGEST_POWER || n < -LARGEST_POWER) return null;
  const digits = base.over.toString(16).length + base.under.toString(16).length;
  if (digits * Math.abs(Number(n)) > LONGEST_POWER) return null;
  if (base.over === 0n && n <= 0n) return null;
  return n >= 0n ? exact(base.over ** n, base.under ** n) : exact(base.under ** -n, base.over ** -n);
}

function folded(of: readonly Term[], start: Exact, by: (a: Exact, b: Exact) => Exact): Exact | null {
  let value = start;
  for (const one of of) {
    const next = exactValue(one);
    if (!next) return null;
    value = by(value, next);
  }
  return value;
}

/** The exact value of a term without letters and roots; null where it has none, or none that is found here. */
export function exactValue(term: Term): Exact | null {
  switch (term.is) {
    case 'exact':
      return term.value;
    case 'sum':
      return folded(term.of, exact(0n), addExact);
    case 'product':
      return folded(term.of, exact(1n), timesExact);
    case 'negative':
    case 'absolute': {
      const value = exactValue(term.of);
      return value && (term.is === 'negative' || value.over < 0n ? negative(value) : value);
    }
    case 'quotient': {
      const [over, under] = [exactValue(term.over), exactValue(term.under)];
      return over && under && overExact(over, under);
    }
    case 'power': {
      const [base, exponent] = [exactValue(term.base), exactValue(term.exponent)];
      return base && exponent && exactPower(base, exponent);
    }
    default:
      return null;
  }
}
