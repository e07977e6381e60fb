import { addExact, exact, exactDecimal, lowest, type Exact } from '../numbers/exact';
import {
  exactValue,
  FUNCTION_NAMES,
  letter,
  minus,
  productOf,
  quotient,
  sumOf,
  whole,
  type FunctionName,
  type Term,
} from './term';
import { everyTree, type EitherSign, type NumberTree, type Tree } from './tree';

/** Something that has no value of the sort that is compared: it is left to people. */
export class NotComparable extends Error {}

/** The sign that stands for each ±, in their order: 1 or −1. */
export type Signs = (index: number, sign: EitherSign) => 1 | -1;

export interface TermOptions {
  /** The base of a logarithm without one. */
  readonly log: 10 | 'e';
}

const MOST_FACTORIAL = 200n;

function exactNumber({ text, repeating }: NumberTree): Exact {
  const [digits, decimals = ''] = text.split('.') as [string, string?];
  const value = lowest(exactDecimal(BigInt(digits + decimals), decimals.length));
  if (repeating === null) return value;
  // 0.1666… is 0.1 + 6/9 of the last place
  const nines = 10n ** BigInt(repeating.length) - 1n;
  const rest = exact(BigInt(repeating), nines * 10n ** BigInt(decimals.length));
  return lowest(addExact(value, rest));
}

function wholeValue(term: Term): bigint {
  const value = exactValue(term);
  if (value?.under !== 1n || value.over < 0n || value.over > MOST_FACTORIAL)
    throw new NotComparable('factorial');
  return value.over;
}

const factorial = (n: bigint): bigint => (n < 2n ? 1n : n * factorial(n - 1n));

/** Makes terms of a tree; each ± takes the next sign. */
class TermMaker {
  private readonly signs: Signs;
  private readonly options: TermOptions;
  private index = 0;
  constructor(signs: Signs, options: TermOptions) {
    this.signs = signs;
    this.options = options;
  }

  private either(sign: EitherSign, of: Tree): Term {
    const positive = this.signs(this.index++, sign) > 0;
    const term = this.make(of);
    return positive ? term : minus(term);
  }

  private logarithm(name: string, of: Tree, base: Tree | null): Term {
    const argument = this.make(of);
    const bases: Readonly<Record<string, Term>> = { lg: whole(10), lb: whole(2) };
    const usual: Term = this.options.log === 'e' ? { is: 'constant', name: 'e' } : whole(10);
    return { is: 'log', base: base ? this.make(base) : (bases[name] ?? usual), of: argument };
  }

  private root(of: Tree, index: Tree | null): Term {
    const inside = this.make(of);
    if (!index) return { is: 'root', of: inside, index: 2 };
    const term = this.make(index);
    const value = exactValue(term);
    if (value?.under === 1n && value.over >= 2n && value.over < 1000n)
      return { is: 'root', of: inside, index: Number(value.over) };
    return { is: 'power', base: inside, exponent: quotient(whole(1), term) };
  }

  private called(name: string, of: Tree): Term {
    const argument = of.is === 'letter' ? of.name : of.is === 'number' ? of.text : null;
    // A function that nothing is known of, at one place, is an unknown figure.
    if (argument === null) throw new NotComparable('call');
    return letter(`${name}(${argument})`);
  }

  make(tree: Tree): Term {
    switch (tree.is) {
      case 'number':
        return { is: 'exact', value: exactNumber(tree) };
      case 'mixed':
        return sumOf(this.make(tree.whole), quotient(this.make(tree.over), this.make(tree.under)));
      case 'letter':
        return letter(tree.name);
      case 'constant':
        return { is: 'constant', name: tree.name };
      case 'plus':
      case 'group':
        return this.make(tree.of);
      case 'negative':
        return minus(this.make(tree.of));
      case 'absolute':
        return { is: 'absolute', of: this.make(tree.of) };
      case 'percent':
        return quotient(this.make(tree.of), whole(100));
      case 'degrees':
        return quotient(productOf(this.make(tree.of), { is: 'constant', name: 'pi' }), whole(180));
      case 'factorial':
        return whole(factorial(wholeValue(this.make(tree.of))));
      case 'binomial': {
        const [n, k] = [wholeValue(this.make(tree.over)), wholeValue(this.make(tree.under))];
        return whole(k > n ? 0n : factorial(n) / (factorial(k) * factorial(n - k)));
      }
      case 'either':
        return this.either(tree.sign, tree.of);
      case 'sum':
        return sumOf(
          ...tree.terms.map(({ sign, of }) => {
            if (sign === '±' || sign === '∓') return this.either(sign, of);
            return sign === '+' ? this.make(of) : minus(this.make(of));
          }),
        );
      case 'product':
        return productOf(...tree.of.map((one) => this.make(one)));
      case 'quotient':
        return quotient(this.make(tree.over), this.make(tree.under));
      case 'power':
        return { is: 'power', base: this.make(tree.base), exponent: this.make(tree.exponent) };
      case 'root':
        return this.root(tree.of, tree.index);
      case 'function':
        if (['log', 'lg', 'lb'].includes(tree.name)) return this.logarithm(tree.name, tree.of, tree.base);
        if (!(FUNCTION_NAMES as readonly string[]).includes(tree.name)) throw new NotComparable(tree.name);
        return { is: 'function', name: tree.name as FunctionName, of: this.make(tree.of) };
      case 'call':
        return this.called(tree.name, tree.of);
      default:
        throw new NotComparable(tree.is);
    }
  }
}

export const toTerm = (tree: Tree, signs: Signs, options: TermOptions): Term =>
  new TermMaker(signs, options).make(tree);

/** Several trees with their ± counted through, as the sides of one relation. */
export function toTerms(trees: readonly Tree[], signs: Signs, options: TermOptions): Term[] {
  const maker = new TermMaker(signs, options);
  return trees.map((tree) => maker.make(tree));
}

/** The signs ± and ∓ of a tree. */
export const eitherSigns = (tree: Tree): EitherSign[] =>
  everyTree(tree).flatMap((one): EitherSign[] => {
    if (one.is === 'either') return [one.sign];
    if (one.is !== 'sum') return [];
    return one.terms.flatMap(({ sign }) => (sign === '±' || sign === '∓' ? [sign] : []));
  });

const MOST_SIGNS = 4;

/**
 * The values that a tree with ± stands for. ± and ∓ go together, as do several ± that are linked; else each takes both
 * signs for itself.
 */
export function valuesOf(tree: Tree, linked: boolean, options: TermOptions): Term[] {
  const signs = eitherSigns(tree);
  if (signs.length > MOST_SIGNS) throw new NotComparable('too many ±');
  if (signs.length === 0) return [toTerm(tree, () => 1, options)];
  if (linked || signs.includes('∓'))
    return ([1, -1] as const).map((first) =>
      toTerm(tree, (_, sign) => (sign === '∓' ? (first === 1 ? -1 : 1) : first), options),
    );
  return Array.from({ length: 2 ** signs.length }, (_, mask) =>
    toTerm(tree, (index) => ((mask >> index) & 1 ? -1 : 1), options),
  );
}
