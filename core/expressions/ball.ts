import Decimal from 'decimal.js';
import type { Exact } from '../numbers/exact';
import { exactValue, type FunctionName, type Term } from './term';

/** There is no value: a division by zero, the root of a negative figure. */
export class Undefined extends Error {}
/** There may be a value, but it cannot be told with these digits. */
export class Unknown extends Error {}

function undefinedHere(): never {
  throw new Undefined();
}
function unknownHere(): never {
  throw new Unknown();
}

/** A figure with the most that it can be off: the true value is within `radius` of `value`. */
export interface Ball {
  readonly value: Decimal;
  readonly radius: number;
}

/** Values of letters; a plain number is exact as it stands. */
export type Environment = Readonly<Record<string, number | Ball>>;

const LARGEST = 1e140;
const MOST_STEPS = 5000;

/** The place of its last digit: 0 for units, −1 for tenths. */
const lowestPlace = (value: Decimal): number => value.e - value.sd() + 1;

/** Arithmetic with so many digits, in which errors are carried along. */
export class Precision {
  readonly digits: number;
  readonly Number: typeof Decimal;
  private readonly epsilon: number;
  private readonly pi: Decimal;
  private readonly e: Decimal;

  constructor(digits: number) {
    this.digits = digits;
    this.Number = Decimal.clone({
      defaults: true,
      precision: digits,
      toExpNeg: -9e15,
      toExpPos: 9e15,
      modulo: 1,
    });
    this.epsilon = 10 ** (2 - digits);
    this.pi = this.Number.acos(-1);
    this.e = this.Number.exp(1);
  }

  private ball(value: Decimal, radius: number): Ball {
    const size = Math.abs(value.toNumber());
    if (!(size < LARGEST)) unknownHere();
    const whole = radius + size * this.epsilon;
    return whole < LARGEST ? { value, radius: whole } : unknownHere();
  }

  exact = (value: Decimal): Ball => ({ value, radius: 0 });
  number = (value: number | string): Decimal => new this.Number(value);
  size = ({ value }: Ball): number => Math.abs(value.toNumber());
  isZero = ({ value, radius }: Ball): boolean => value.isZero() && radius === 0;
  mayBeZero = (ball: Ball): boolean => this.size(ball) <= ball.radius;
  private areExact = (a: Ball, b: Ball): boolean => a.radius === 0 && b.radius === 0;
  /** Is there room for every digit of a sum, from the highest, with what is carried, to the lowest of either? */
  private hasRoomForSum = (a: Decimal, b: Decimal): boolean =>
    Math.max(a.e, b.e) + 2 - Math.min(lowestPlace(a), lowestPlace(b)) <= this.digits;
  /** A power has no more digits than so many of its base without the zeros at the end: 20 is a 2 of tens. */
  private hasRoomForPower(a: Decimal, n: number): boolean {
    const figure = Math.abs(a.toNumber()) / 10 ** lowestPlace(a);
    return n * Math.log10(Math.max(1, figure)) + 2 <= this.digits;
  }

  fraction({ over, under }: Exact): Ball {
    const value = this.number(over.toString());
    if (under === 1n) return over.toString().length < this.digits ? this.exact(value) : this.ball(value, 0);
    return this.ball(value.div(under.toString()), 0);
  }

  add = (a: Ball, b: Ball): Ball => {
    if (this.isZero(a)) return b;
    if (this.isZero(b)) return a;
    const value = a.value.plus(b.value);
    const nothingLost = this.areExact(a, b) && this.hasRoomForSum(a.value, b.value);
    return nothingLost ? this.exact(value) : this.ball(value, a.radius + b.radius);
  };
  negative = (a: Ball): Ball => ({ value: a.value.neg(), radius: a.radius });
  times = (a: Ball, b: Ball): Ball => {
    if (this.isZero(a) || this.isZero(b)) return this.exact(this.number(0));
    const value = a.value.times(b.value);
    if (this.areExact(a, b) && a.value.sd() + b.value.sd() <= this.digits) return this.exact(value);
    return this.ball(value, this.size(a) * b.radius + this.size(b) * a.radius + a.radius * b.radius);
  };
  over = (a: Ball, b: Ball): Ball => {
    if (this.isZero(b)) undefinedHere();
    if (this.mayBeZero(b)) unknownHere();
    if (this.isZero(a)) return a;
    const value = a.value.div(b.value);
    const radius = (a.radius + Math.abs(value.toNumber()) * b.radius) / (this.size(b) - b.radius);
    return this.ball(value, radius);
  };

  wholePower(a: Ball, n: number): Ball {
    if (n === 0) {
      if (this.mayBeZero(a)) (this.isZero(a) ? undefinedHere : unknownHere)();
      return this.exact(this.number(1));
    }
    if (n < 0) return this.over(this.exact(this.number(1)), this.wholePower(a, -n));
    if (n > MOST_STEPS) {
      if (this.mayBeZero(a)) unknownHere();
      const size = this.exp(this.times(this.exact(this.number(n)), this.ln(this.absolute(a))));
      return a.value.isNeg() && n % 2 ? this.negative(size) : size;
    }
    const value = a.value.pow(n);
    if (a.radius === 0 && this.hasRoomForPower(a.value, n)) return this.exact(value);
    const slope = n * Math.max(1e-300, this.size(a) + a.radius) ** (n - 1);
    return this.ball(value, a.radius === 0 ? 0 : slope * a.radius * 1.01);
  }

  root(a: Ball, n: number): Ball {
    if (n % 2 === 0 && a.value.isNeg() && !this.mayBeZero(a)) undefinedHere();
    if (this.isZero(a)) return a;
    if (this.mayBeZero(a)) return { value: this.number(0), radius: (2 * a.radius) ** (1 / n) };
    const value =
      n === 2
        ? a.value.sqrt()
        : n === 3
          ? a.value.cbrt()
          : a.value
              .abs()
              .pow(this.number(1).div(n))
              .times(a.value.isNeg() ? -1 : 1);
    const size = Math.abs(value.toNumber());
    const further = n > 3 ? size * this.epsilon * 10 : 0;
    return this.ball(value, size * (a.radius / (this.size(a) - a.radius)) + further);
  }

  absolute = (a: Ball): Ball => ({ value: a.value.abs(), radius: a.radius });
  ln(a: Ball): Ball {
    if (this.isZero(a)) undefinedHere();
    if (this.mayBeZero(a)) unknownHere();
    if (a.value.isNeg()) undefinedHere();
    return this.ball(a.value.ln(), a.radius / (this.size(a) - a.radius));
  }
  exp(a: Ball): Ball {
    if (this.size(a) > 300) unknownHere();
    const value = a.value.exp();
    return this.ball(value, value.toNumber() * a.radius * 1.1);
  }
  private wave(a: Ball, name: 'sin' | 'cos'): Ball {
    if (this.size(a) > 1e15) unknownHere();
    if (name === 'sin' && this.isZero(a)) return a;
    return this.ball(a.value[name](), a.radius + this.epsilon);
  }
  private arc(a: Ball, name: 'asin' | 'acos'): Ball {
    const beyond = a.value.abs().minus(1).toNumber();
    if (beyond > a.radius) undefinedHere();
    if (Math.abs(beyond) <= a.radius) {
      const isNegative = a.value.isNeg();
      const edge =
        name === 'asin' ? this.pi.div(2).times(isNegative ? -1 : 1) : isNegative ? this.pi : this.number(0);
      return { value: edge, radius: 2 * Math.sqrt(2 * (a.radius + Math.abs(beyond))) + this.epsilon };
    }
    const slope = Math.sqrt(Math.max(1e-300, -beyond - a.radius));
    return this.ball(a.value[name](), (a.radius / slope) * 1.1 + this.epsilon);
  }

  constant = (name: 'pi' | 'e'): Ball => this.ball(name === 'pi' ? this.pi : this.e, 0);

  function(name: FunctionName, a: Ball): Ball {
    const one = () => this.exact(this.number(1));
    const [sin, cos] = [() => this.wave(a, 'sin'), () => this.wave(a, 'cos')];
    const [up, down] = [() => this.exp(a), () => this.exp(this.negative(a))];
    const half = (b: Ball) => this.over(b, this.exact(this.number(2)));
    const functions: { readonly [N in FunctionName]: () => Ball } = {
      sin,
      cos,
      tan: () => this.over(sin(), cos()),
      cot: () => this.over(cos(), sin()),
      sec: () => this.over(one(), cos()),
      csc: () => this.over(one(), sin()),
      asin: () => this.arc(a, 'asin'),
      acos: () => this.arc(a, 'acos'),
      atan: () => this.ball(a.value.atan(), a.radius),
      sinh: () => half(this.add(up(), this.negative(down()))),
      cosh: () => half(this.add(up(), down())),
      tanh: () => this.over(this.add(up(), this.negative(down())), this.add(up(), down())),
      ln: () => this.ln(a),
      exp: up,
    };
    return functions[name]();
  }
}

const known = new Map<number, Precision>();

export function precisionOf(digits: number): Precision {
  const found = known.get(digits) ?? new Precision(digits);
  known.set(digits, found);
  return found;
}

function letterBall(name: string, environment: Environment, k: Precision): Ball {
  const value = environment[name];
  if (value === undefined) return unknownHere();
  if (typeof value === 'number') return k.exact(k.number(value));
  return { value: new k.Number(value.value), radius: value.radius };
}

/** A power with a fraction as its exponent, reduced: an odd root of a negative figure is one. */
function fractionPower(base: Ball, { over, under }: Exact, k: Precision): Ball {
  if (under === 1n) return k.wholePower(base, Number(over));
  if (under <= 1000n) return k.wholePower(k.root(base, Number(under)), Number(over));
  // A typed 0.3333 is no odd root.
  if (base.value.isNeg() && !k.mayBeZero(base)) undefinedHere();
  if (k.mayBeZero(base)) unknownHere();
  return k.exp(k.times(k.fraction({ over, under }), k.ln(base)));
}

function power(term: Term & { is: 'power' }, environment: Environment, k: Precision): Ball {
  const fixed = exactValue(term.exponent);
  if (fixed) return fractionPower(ballOf(term.base, environment, k), fixed, k);
  const exponent = ballOf(term.exponent, environment, k);
  if (term.base.is === 'constant' && term.base.name === 'e') return k.exp(exponent);
  const base = ballOf(term.base, environment, k);
  const steps = exponent.value.toNumber();
  if (exponent.radius === 0 && exponent.value.isInteger() && Math.abs(steps) < MOST_STEPS)
    return k.wholePower(base, steps);
  if (base.value.isNeg() && !k.mayBeZero(base)) undefinedHere();
  return k.exp(k.times(exponent, k.ln(base)));
}

/** The value of a term where its letters have these values. Throws Undefined and Unknown. */
export function ballOf(term: Term, environment: Environment, k: Precision): Ball {
  const at = (one: Term) => ballOf(one, environment, k);
  switch (term.is) {
    case 'exact':
      return k.fraction(term.value);
    case 'constant':
      return k.constant(term.name);
    case 'letter':
      return letterBall(term.name, environment, k);
    case 'sum':
      return term.of.map(at).reduce(k.add);
    case 'product':
      return term.of.map(at).reduce(k.times);
    case 'negative':
      return k.negative(at(term.of));
    case 'absolute':
      return k.absolute(at(term.of));
    case 'quotient':
      return k.over(at(term.over), at(term.under));
    case 'power':
      return power(term, environment, k);
    case 'root':
      return k.root(at(term.of), term.index);
    case 'log':
      return k.over(k.ln(at(term.of)), k.ln(at(term.base)));
    case 'function':
      return k.function(term.name, at(term.of));
  }
}

/** A value, or why there is none. */
export type Found = Ball | 'undefined' | 'unknown';

export const isBall = (found: Found): found is Ball => typeof found === 'object';

export function valueAt(term: Term, environment: Environment, digits: number): Found {
  try {
    return ballOf(term, environment, precisionOf(digits));
  } catch (error) {
    if (error instanceof Undefined) return 'undefined';
    if (error instanceof Unknown) return 'unknown';
    throw error;
  }
}
