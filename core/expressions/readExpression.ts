import { AtomReader } from './AtomReader';
import { isDigit, isRelationSign, plainReading, RELATIONS, type ReadOptions } from './Cursor';
import { missing, refuse, Refusal, type Refused } from './refusal';
import { isWhole, type EitherSign, type ListTree, type SignedTree, type Tree } from './tree';

const DEEPEST = 60;

const SIGNS: Readonly<Record<string, SignedTree['sign']>> = {
  '+': '+',
  '-': '-',
  '\\pm': '±',
  '\\plusmn': '±',
  '\\mp': '∓',
};
const AFTER = { '+': 'after-plus', '-': 'after-minus', '±': 'after-either', '∓': 'after-either' } as const;
const OPPOSITE: Readonly<Record<string, string>> = { '=': '!=', '<': '>=', '>': '<=', '<=': '>', '>=': '<' };

type Operator = 'dot' | 'cross' | 'divide' | 'slash';
const OPERATORS: Readonly<Record<string, Operator>> = {
  '\\cdot': 'dot',
  '*': 'dot',
  '\\ast': 'dot',
  '\\times': 'cross',
  '\\div': 'divide',
  ':': 'divide',
  '/': 'slash',
  '\\slash': 'slash',
};
const CLOSERS = new Set([')', ']', '\\}', '\\right', '\\mright', '\\rbrace', '\\rbrack', '}']);

const isWholeFraction = (tree: Tree) =>
  tree.is === 'quotient' && tree.how === 'fraction' && isWhole(tree.over) && isWhole(tree.under);

/** Reads whole statements: lists, relations, sums, products and powers, in the order in which they bind. */
class ExpressionReader extends AtomReader {
  private depth = 0;

  whole(): Tree {
    this.skip();
    if (this.token === undefined) refuse('empty');
    const found = this.statement();
    this.skip();
    if (this.token !== undefined) {
      if (CLOSERS.has(this.token)) missing('opening-bracket', 'bracket-not-opened');
      refuse('unexpected', this.token);
    }
    return found;
  }

  private listSign(): ListTree['how'] | null {
    this.skip();
    const { token } = this;
    if (token === '{' && [',', ';'].includes(this.peek() ?? '') && this.peek(2) === '}') {
      this.at += 2;
      return 'comma';
    }
    if (token === '\\lor' || token === '\\vee') return 'or';
    if (token === '\\land' || token === '\\wedge') return 'and';
    return token === ',' || token === ';' ? 'comma' : null;
  }

  statement(): Tree {
    const of = [this.relation()];
    let how: ListTree['how'] | null = null;
    for (;;) {
      const sign = this.listSign();
      if (!sign) break;
      this.at++;
      if (how && how !== sign) refuse('mixed-list');
      how = sign;
      this.skip();
      if (this.token === undefined || CLOSERS.has(this.token)) missing('item');
      of.push(this.relation());
    }
    return how ? { is: 'list', how, of } : of[0]!;
  }

  private relation(): Tree {
    const sides = [this.sum()];
    const signs: string[] = [];
    for (;;) {
      this.skip();
      const negated = this.token === '\\not';
      const token = negated ? this.peek() : this.token;
      if (!isRelationSign(token)) {
        if (negated) refuse('not');
        break;
      }
      this.at += negated ? 2 : 1;
      const sign = RELATIONS[token]!;
      signs.push(negated ? (OPPOSITE[sign] ?? `!${sign}`) : sign);
      this.skip();
      if (this.atEnd()) missing('right-side');
      sides.push(this.sum());
    }
    return signs.length > 0 ? { is: 'relation', signs, sides } : sides[0]!;
  }

  /** A sign of a term; two in a row have no one reading. */
  private sign(): SignedTree['sign'] | null {
    const sign = SIGNS[this.token ?? ''];
    if (!sign) return null;
    this.at++;
    this.skip();
    if (this.atEnd()) missing(AFTER[sign]);
    if (this.token !== undefined && SIGNS[this.token]) refuse('two-signs');
    return sign;
  }

  sum(): Tree {
    if (++this.depth > DEEPEST) refuse('too-deep');
    this.skip();
    const first = this.sign();
    if (isRelationSign(this.token) || this.token === '\\not') missing('left-side');
    const terms: SignedTree[] = [{ sign: first ?? '+', of: this.term() }];
    for (;;) {
      this.skip();
      const sign = this.sign();
      if (!sign) break;
      terms.push({ sign, of: this.term() });
    }
    this.depth--;
    if (terms.length > 1) return { is: 'sum', terms };
    const { of } = terms[0]!;
    if (first === null) return of;
    if (first === '+') return { is: 'plus', of };
    return first === '-' ? { is: 'negative', of } : { is: 'either', sign: first, of };
  }

  private factorAfter(operator: Operator): Tree {
    this.skip();
    const divides = operator === 'divide' || operator === 'slash';
    if (this.atEnd() || ['\\cdot', '\\times', '*', '/', '+', '\\div'].includes(this.token!))
      missing(divides ? 'divisor' : 'factor');
    if (this.token !== '-' && this.token !== '\\pm') return this.implicit();
    const sign: '-' | EitherSign = this.token === '-' ? '-' : '±';
    this.at++;
    const of = this.implicit();
    return sign === '-' ? { is: 'negative', of } : { is: 'either', sign, of };
  }

  /** Products and quotients, from the left. */
  private term(): Tree {
    let left = this.implicit();
    for (;;) {
      this.skip();
      const operator = Object.hasOwn(OPERATORS, this.token ?? '') ? OPERATORS[this.token!] : undefined;
      if (!operator) return left;
      this.at++;
      const right = this.factorAfter(operator);
      if (operator === 'divide' || operator === 'slash') {
        if (right.is === 'product' && right.how === 'implicit') refuse('ambiguous-division');
        if (left.is === 'function' && left.bare) refuse('ambiguous-function-argument');
        left = { is: 'quotient', over: left, under: right, how: operator };
        continue;
      }
      if (left.is === 'function' && left.bare && left.of.is === 'number')
        refuse('ambiguous-function-argument');
      const goesOn = left.is === 'product' && left.how === operator;
      left = {
        is: 'product',
        how: operator,
        of: goesOn ? [...(left as Tree & { of: readonly Tree[] }).of, right] : [left, right],
      };
    }
  }

  /** A figure before a fraction of whole numbers is a mixed number, where it can be one; else it has two readings. */
  private mixedOf(before: Tree, factor: Tree): Tree | null {
    if (before.is === 'number' && factor.is === 'quotient' && isWholeFraction(factor)) {
      if (!before.whole) refuse('ambiguous-mixed-number');
      const { over, under } = factor;
      if (!isWhole(over) || !isWhole(under)) return null;
      if (BigInt(over.text) >= BigInt(under.text) || BigInt(over.text) === 0n)
        refuse('ambiguous-mixed-number');
      return { is: 'mixed', whole: before, over, under };
    }
    const decimalBefore =
      before.is === 'number' &&
      !before.whole &&
      factor.is === 'quotient' &&
      factor.how === 'fraction' &&
      factor.over.is === 'number' &&
      factor.under.is === 'number';
    const powerAfter =
      before.is === 'number' &&
      factor.is === 'power' &&
      factor.base.is === 'quotient' &&
      isWholeFraction(factor.base);
    const afterMixed = before.is === 'mixed' && factor.is === 'quotient';
    return decimalBefore || powerAfter || afterMixed ? refuse('ambiguous-mixed-number') : null;
  }

  /** Factors without a sign between them. */
  private implicit(): Tree {
    const factors: Tree[] = [];
    let barClosed = false;
    for (;;) {
      this.skip();
      const before = factors.at(-1);
      if (before && (this.atEnd() || this.atOperator())) break;
      if (before) this.checkNext(before, barClosed);
      const factor = this.power();
      if (before?.is === 'function' && before.bare && factor.is === 'group')
        refuse('ambiguous-function-argument');
      const mixed = before && factors.length === 1 ? this.mixedOf(before, factor) : null;
      barClosed ||= factor.is === 'absolute' && factor.bare;
      if (mixed) factors[0] = mixed;
      else factors.push(factor);
    }
    return factors.length === 1 ? factors[0]! : { is: 'product', how: 'implicit', of: factors };
  }

  private checkNext(before: Tree, barClosed: boolean): void {
    // After a bracket a digit can only be a factor; after a letter it may be a power or an index that slipped.
    const afterBracket = before.is === 'group' && !before.invisible;
    if (/^[0-9.]$/.test(this.token ?? '') && !afterBracket)
      refuse(before.is === 'power' ? 'digit-after-power' : 'digit-after-factor');
    if (this.token === '|' && barClosed) refuse('ambiguous-bars');
  }

  /** What follows a base: powers, degrees, per cent, a factorial. */
  power(): Tree {
    let base = this.atom();
    let raised = false;
    for (;;) {
      const before = this.at;
      this.skip();
      const { token } = this;
      if (token === '^') {
        this.at++;
        this.skip();
        const degrees = this.raisedDegrees();
        if (degrees) base = { is: 'degrees', of: base };
        else {
          if (raised) refuse('double-exponent');
          raised = true;
          base = { is: 'power', base, exponent: this.exponent() };
        }
      } else if (token === "'") refuse('prime');
      else if (token === '_') refuse('subscript');
      else if (token === '!' || token === '\\%' || token === '\\degree' || token === '\\circ') {
        this.at++;
        const is = token === '!' ? 'factorial' : token === '\\%' ? 'percent' : 'degrees';
        base = { is, of: base };
      } else {
        this.at = before;
        return base;
      }
    }
  }

  /** A ring raised is a degree sign, with a group around it or without. */
  private raisedDegrees(): boolean {
    if (this.token === undefined) missing('exponent');
    const isRing = (token: string | undefined) => token === '\\circ' || token === '\\degree';
    const braced = this.token === '{';
    const inner = braced ? this.peek() : this.token;
    if (inner === '\\prime' || inner === '\\doubleprime' || this.token === '*') refuse('prime');
    if (!isRing(inner)) return false;
    if (braced && this.peek(2) !== '}') return false;
    this.at += braced ? 3 : 1;
    return true;
  }

  private exponent(): Tree {
    const braced = this.token === '{';
    const exponent = this.argument('exponent');
    if (!braced && (isDigit(this.token) || this.token === '.')) refuse('digit-after-power');
    return exponent;
  }
}

export type ExpressionRead = { readonly tree: Tree } | { readonly refused: Refused };

/**
 * Reads LaTeX, as an editor of mathematics writes it, as a typed tree. Where there is no reading, or are two, it is
 * refused with a code and with what is missing: nothing is guessed at. Never throws.
 */
export function readExpression(latex: string, options: Partial<ReadOptions> = {}): ExpressionRead {
  try {
    return { tree: new ExpressionReader(latex, { ...plainReading, ...options }).whole() };
  } catch (error) {
    if (error instanceof Refusal) return { refused: error.refused };
    if (error instanceof RangeError) return { refused: { code: 'too-deep', missing: null, what: null } };
    throw error;
  }
}
