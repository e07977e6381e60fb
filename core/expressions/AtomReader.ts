import { isDigit, isLetter, isRelationSign } from './Cursor';
import { greekLetter, GroupReader, opensBracket } from './GroupReader';
import { missing, refuse } from './refusal';
import { FUNCTIONS, SPACE } from './tokens';
import { isWhole, type FigureName, type Tree } from './tree';

const INVERSE: Readonly<Record<string, string>> = { sin: 'asin', cos: 'acos', tan: 'atan' };

/** Words that people type letter by letter and that are no products of letters. */
const TYPED_WORDS = [
  'arcsin',
  'arccos',
  'arctan',
  'sqrt',
  'sin',
  'cos',
  'tan',
  'log',
  'exp',
  'abs',
  'max',
].concat(['min', 'lim', 'mod', 'deg', 'ln']);

const OVER_POINTS: Readonly<Record<string, FigureName>> = {
  '\\overline': 'segment',
  '\\overrightarrow': 'ray',
  '\\overleftarrow': 'ray',
  '\\overleftrightarrow': 'line',
  '\\overarc': 'arc',
  '\\overparen': 'arc',
  '\\wideparen': 'arc',
};
const BEFORE_POINTS: Readonly<Record<string, FigureName>> = {
  '\\angle': 'angle',
  '\\measuredangle': 'measure',
  '\\triangle': 'triangle',
  '\\bigtriangleup': 'triangle',
  '\\square': 'quadrilateral',
  '\\parallelogram': 'parallelogram',
  '\\odot': 'circle',
  '\\bigodot': 'circle',
};
const CURRENCIES = new Set(['\\$', '\\euro', '\\pounds', '\\yen']);
const NOT_SUPPORTED = new Set(
  `\\surd \\| \\Vert \\imaginaryI \\differentialD \\int \\sum \\lim \\partial \\begin \\prod \\vec \\lfloor \\lceil
\\dot \\hat \\bar \\to \\Rightarrow`.split(/\s+/),
);
const FACTOR_SIGNS = new Set(['\\cdot', '\\times', '*', '/', '\\div']);

const isPrime = (token: string | undefined) => token === '\\prime' || token === '\\doubleprime';

/** Reads what stands alone: figures, letters, roots, brackets, functions with their arguments, names of figures. */
export abstract class AtomReader extends GroupReader {
  abstract power(): Tree;

  /** A fraction or a root: what may be an argument without a group. */
  fraction(): Tree {
    const { token } = this;
    this.at++;
    if (token !== '\\sqrt') {
      const over = this.argument('numerator');
      return { is: 'quotient', over, under: this.argument('denominator'), how: 'fraction' };
    }
    this.skip();
    let index: Tree | null = null;
    if (this.token === '[') {
      this.at++;
      this.skip();
      if (this.peek(0) === ']') missing('root-index');
      if (this.peek(0) === '\\placeholder') this.placeholder('root-index');
      index = this.within('root-index');
      if (!this.eat(']')) refuse('unbalanced-brace');
    }
    return { is: 'root', of: this.argument('radicand'), index };
  }

  protected atom(): Tree {
    this.skip();
    const { token } = this;
    if (token === undefined) return missing('operand');
    if (isDigit(token) || (token === this.options.decimal && isDigit(this.peek()))) return this.number();
    if (isLetter(token)) return this.letter();
    if (token === '{') return this.invisibleGroup();
    if (token === '^') missing('base');
    if (token === '\\placeholder') this.placeholder('part');
    if (CURRENCIES.has(token)) return this.currency(token);
    if (/^\\[dtc]?frac$|^\\sqrt$/.test(token)) return this.fraction();
    if (token === '\\binom' || token === '\\dbinom' || token === '\\tbinom') return this.binomial();
    if (token === '|' || token === '\\vert') return this.bars();
    if (token === '\\lvert') return this.leftBar();
    if (token === '\\left' || token === '\\mleft') return this.leftRight();
    if (opensBracket(token)) return this.bracket(token);
    return this.named(token);
  }

  private named(token: string): Tree {
    const greek = greekLetter(token);
    const name = token.slice(1);
    if (token.startsWith('\\') && Object.hasOwn(FUNCTIONS, name)) return this.functionOf(name);
    if (isRelationSign(token)) return missing('left-side');
    if (FACTOR_SIGNS.has(token)) return missing('left-factor');
    if ([')', ']', '\\}', '\\right', '\\mright'].includes(token)) return missing('inside-brackets');
    if (NOT_SUPPORTED.has(token)) return refuse('not-supported', token);
    this.at++;
    if (token === '\\infty') return { is: 'infinity' };
    if (token === '\\pi') return { is: 'constant', name: 'pi' };
    if (token === '\\exponentialE') return { is: 'constant', name: 'e' };
    if (greek) return { is: 'letter', name: this.subscript(greek) };
    if (Object.hasOwn(OVER_POINTS, token))
      return this.figure(OVER_POINTS[token]!, true, token === '\\overleftarrow');
    if (Object.hasOwn(BEFORE_POINTS, token)) return this.figure(BEFORE_POINTS[token]!, false);
    if (token === '\\emptyset' || token === '\\varnothing') return { is: 'set', of: [] };
    return refuse('unknown', token);
  }

  private invisibleGroup(): Tree {
    if (this.peek() === '}') missing('part');
    this.at++;
    const inside = this.sum();
    if (!this.eat('}')) refuse('unbalanced-brace');
    return inside.is === 'number' ? inside : { is: 'group', of: inside, invisible: true };
  }

  private currency(token: string): Tree {
    this.at++;
    this.skip();
    if (this.atEnd()) missing('amount');
    return { is: 'currency', sign: token.slice(1), of: this.atom() };
  }

  private binomial(): Tree {
    this.at++;
    const over = this.argument('part');
    return { is: 'binomial', over, under: this.argument('part') };
  }

  private bars(): Tree {
    this.at++;
    this.openBars++;
    this.skip();
    if (this.token === '|' && this.peek() === undefined) missing('inside-bars');
    const of = this.sum();
    this.skip();
    if (this.token !== '|' && this.token !== '\\vert') missing('closing-bar', 'bracket-not-closed');
    this.at++;
    this.openBars--;
    return { is: 'absolute', of, bare: true };
  }

  private leftBar(): Tree {
    this.at++;
    const of = this.withoutBars(() => this.sum());
    if (!this.eat('\\rvert')) missing('closing-bar', 'bracket-not-closed');
    return { is: 'absolute', of, bare: false };
  }

  private letter(): Tree {
    let word = '';
    for (let k = this.at; isLetter(this.tokens[k]); k++) word += this.tokens[k]!;
    const { letters } = this.options;
    for (const typed of TYPED_WORDS)
      if (word.startsWith(typed) && ![...typed].every((sign) => letters.includes(sign)))
        refuse('function-as-letters', typed);
    const sign = this.token!;
    this.at++;
    if (sign === 'm' && this.peek(this.token === SPACE ? 1 : 0) === '\\angle') {
      this.skip();
      this.at++;
      return this.figure('measure', false);
    }
    if (sign === 'e' && !this.isDeclared('e')) return { is: 'constant', name: 'e' };
    if (sign === 'i' && !this.isDeclared('i')) refuse('imaginary');
    const name = this.subscript(sign);
    this.skip();
    const raised = this.token === '^' ? (this.peek() === '{' ? this.peek(2) : this.peek()) : undefined;
    if (this.token === "'" || isPrime(raised)) refuse('prime');
    const takesArgument =
      this.options.functions.includes(sign) || (['f', 'g', 'h'].includes(sign) && !this.isDeclared(sign));
    if (takesArgument && this.atRoundBracket()) {
      const argument = this.roundBracket();
      return { is: 'call', name, of: argument.is === 'group' ? argument.of : argument };
    }
    return { is: 'letter', name };
  }

  private atRoundBracket(): boolean {
    const { token } = this;
    return token === '(' || ((token === '\\left' || token === '\\mleft') && this.peek() === '(');
  }

  private roundBracket = (): Tree => (this.token === '(' ? this.bracket('(') : this.leftRight());

  /** A power between a function and its argument, and the base of a logarithm. */
  private marksOf(name: string): { readonly power: Tree | null; readonly base: Tree | null } {
    let power: Tree | null = null;
    let base: Tree | null = null;
    for (;;) {
      this.skip();
      if (this.token === '^' && !power) {
        this.at++;
        const braced = this.peek(0) === '{';
        power = this.argument('exponent');
        if (!braced && isDigit(this.token)) refuse('digit-after-power');
      } else if (this.token === '_' && !base) {
        if (name !== 'log') refuse('subscript');
        this.at++;
        base = this.argument('log-base');
      } else return { power, base };
    }
  }

  private functionOf(written: string): Tree {
    this.at++;
    let name = FUNCTIONS[written]!;
    const marks = this.marksOf(name);
    let { power } = marks;
    if (power?.is === 'negative' && isWhole(power.of) && power.of.text === '1') {
      name = INVERSE[name] ?? refuse('inverse-function');
      power = null;
    } else if (power && !isWhole(power)) refuse('function-power');
    this.skip();
    if (this.atEnd() || this.atOperator()) missing('function-argument');
    const inBrackets = this.atRoundBracket() || this.token === '[';
    const of = inBrackets ? this.bracketed() : this.bareArgument();
    const node: Tree = { is: 'function', name, of, base: marks.base, bare: !inBrackets };
    return power ? { is: 'power', base: node, exponent: power } : node;
  }

  private bracketed(): Tree {
    const found = this.token === '[' ? this.bracket('[') : this.roundBracket();
    return found.is === 'group' ? found.of : refuse('function-arguments');
  }

  /** Without brackets: figures, letters, fractions, roots and powers up to the next function, bracket or operator. */
  private bareArgument(): Tree {
    const factors: Tree[] = [];
    for (;;) {
      this.skip();
      const { token } = this;
      if (token === undefined || (factors.length > 0 && (this.atEnd() || this.atOperator()))) break;
      if (factors.length > 0) {
        if (['(', '[', '\\left', '\\mleft', '\\lvert'].includes(token)) refuse('ambiguous-function-argument');
        if (token === '|' && this.openBars === 0) refuse('ambiguous-function-argument');
      }
      if (token.startsWith('\\') && Object.hasOwn(FUNCTIONS, token.slice(1))) {
        if (factors.length === 0) factors.push(this.power());
        break;
      }
      if (factors.length > 0 && /[0-9.]/.test(token)) refuse('digit-after-factor');
      const factor = this.power();
      const before = factors.at(-1);
      if (
        before?.is === 'number' &&
        factor.is === 'quotient' &&
        isWhole(factor.over) &&
        isWhole(factor.under)
      ) {
        if (!before.whole || BigInt(factor.over.text) >= BigInt(factor.under.text))
          refuse('ambiguous-mixed-number');
        factors[factors.length - 1] = {
          is: 'mixed',
          whole: before,
          over: factor.over,
          under: factor.under,
        };
      } else factors.push(factor);
    }
    return factors.length === 1 ? factors[0]! : { is: 'product', how: 'implicit', of: factors };
  }
}
