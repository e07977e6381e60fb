import type { Random } from '../random';
import { Undefined } from './ball';
import { exactValue, termsBelow, type Term } from './term';

/**
 * Are two rational functions the same? They are when they agree at random places modulo a large prime (J. T. Schwartz,
 * 1980; R. Zippel, 1979): the chance of an error is below 10⁻³⁰. π and e are letters of their own there.
 */
const PRIME = (1n << 127n) - 1n;

const reduced = (value: bigint): bigint => ((value % PRIME) + PRIME) % PRIME;

function powerOf(base: bigint, exponent: bigint): bigint {
  let [result, square, left] = [1n, reduced(base), exponent];
  for (; left > 0n; left >>= 1n) {
    if (left & 1n) result = (result * square) % PRIME;
    square = (square * square) % PRIME;
  }
  return result;
}

/** By Fermat's little theorem. */
function inverseOf(value: bigint): bigint {
  const own = reduced(value);
  if (own === 0n) throw new Undefined();
  return powerOf(own, PRIME - 2n);
}

const LARGEST_EXPONENT = 1_000_000n;

/** Is a term made by the four operations and whole powers alone? */
export function isRational(term: Term): boolean {
  switch (term.is) {
    case 'exact':
    case 'constant':
    case 'letter':
      return true;
    case 'sum':
    case 'product':
    case 'negative':
    case 'quotient':
      return termsBelow(term).every(isRational);
    case 'power': {
      const exponent = exactValue(term.exponent);
      const isFit =
        exponent?.under === 1n && exponent.over < LARGEST_EXPONENT && exponent.over > -LARGEST_EXPONENT;
      return isFit && isRational(term.base);
    }
    default:
      return false;
  }
}

type Places = Readonly<Record<string, bigint>>;

function modulo(term: Term, places: Places): bigint {
  switch (term.is) {
    case 'exact':
      return reduced(reduced(term.value.over) * inverseOf(term.value.under));
    case 'constant':
      return places[`#${term.name}`]!;
    case 'letter':
      return places[term.name]!;
    case 'sum':
      return term.of.reduce((sum, one) => (sum + modulo(one, places)) % PRIME, 0n);
    case 'product':
      return term.of.reduce((product, one) => (product * modulo(one, places)) % PRIME, 1n);
    case 'negative':
      return reduced(-modulo(term.of, places));
    case 'quotient':
      return (modulo(term.over, places) * inverseOf(modulo(term.under, places))) % PRIME;
    case 'power': {
      const exponent = exactValue(term.exponent)!.over;
      const base = modulo(term.base, places);
      if (exponent === 0n && base === 0n) throw new Undefined();
      return exponent >= 0n ? powerOf(base, exponent) : inverseOf(powerOf(base, -exponent));
    }
    default:
      throw new Error(`${term.is} is not rational`);
  }
}

function large(random: Random): bigint {
  let value = 0n;
  for (let i = 0; i < 4; i++) value = (value << 31n) + BigInt(Math.floor(random() * 2147483648));
  return value;
}

const AGREEING = 3;
const TRIES = 8;

/** Null where too few places have values. */
export function isSameRational(
  a: Term,
  b: Term,
  letters: ReadonlySet<string>,
  random: Random,
): boolean | null {
  let agreeing = 0;
  for (let i = 0; i < TRIES && agreeing < AGREEING; i++) {
    const places = Object.fromEntries(['#pi', '#e', ...letters].map((name) => [name, large(random)]));
    try {
      if (modulo(a, places) !== modulo(b, places)) return false;
      agreeing++;
    } catch (error) {
      if (!(error instanceof Undefined)) throw error;
    }
  }
  return agreeing >= AGREEING ? true : null;
}
