import { isDigit, isLetter, isRelationSign } from './Cursor';
import { NumberReader } from './NumberReader';
import { missing, refuse, type Missing } from './refusal';
import type { FigureName, Tree } from './tree';

const GREEK = new Set(
  `alpha beta gamma delta epsilon varepsilon zeta eta theta vartheta iota kappa lambda mu nu xi rho varrho sigma tau
upsilon phi varphi chi psi omega Gamma Delta Theta Lambda Xi Pi Sigma Upsilon Phi Psi Omega`.split(/\s+/),
);

export const greekLetter = (token: string | undefined): string | null =>
  token?.startsWith('\\') && GREEK.has(token.slice(1)) ? token.slice(1) : null;

const CLOSED_BY: Readonly<Record<string, readonly string[]>> = {
  '(': [')', ']'],
  '[': [']', ')'],
  '\\lbrack': ['\\rbrack', ')', ']'],
  '\\{': ['\\}'],
  '\\lbrace': ['\\rbrace', '\\}'],
  '\\lparen': ['\\rparen'],
};
const SQUARE = new Set(['[', ']', '\\lbrack', '\\rbrack']);
const CURLY = new Set(['\\{', '\\lbrace']);
const BARS = new Set(['|', '\\vert', '\\lvert', '\\rvert']);

export const opensBracket = (token: string): boolean => Object.hasOwn(CLOSED_BY, token);

/** How many points each figure takes. */
const POINTS: Readonly<Record<FigureName, readonly number[]>> = {
  segment: [2],
  ray: [2],
  line: [2],
  arc: [2, 3],
  angle: [1, 3],
  measure: [1, 3],
  triangle: [3],
  quadrilateral: [4],
  parallelogram: [4],
  circle: [1],
};

/** Reads what stands in brackets, bars and groups of the notation, and the names of figures. */
export abstract class GroupReader extends NumberReader {
  abstract fraction(): Tree;

  protected isDeclared(letter: string): boolean {
    return this.options.letters.includes(letter);
  }

  /** An argument of a command: a group, or one token. */
  protected argument(what: Missing): Tree {
    this.skip();
    const { token } = this;
    if (token === undefined || token === '}') return missing(what);
    if (token === '{') {
      this.at++;
      this.skip();
      if (this.eat('}')) return missing(what);
      if (this.token === '\\placeholder') return this.placeholder(what);
      const found = this.withoutBars(() => this.within(what));
      if (!this.eat('}')) refuse('unbalanced-brace', this.token ?? null);
      return found;
    }
    if (token === '\\placeholder') return this.placeholder(what);
    if (/^\\[dtc]?frac$|^\\sqrt$/.test(token)) return this.fraction();
    this.at++;
    if (isDigit(token)) return { is: 'number', text: token, whole: true, repeating: null };
    if (isLetter(token))
      return token === 'e' && !this.isDeclared('e')
        ? { is: 'constant', name: 'e' }
        : { is: 'letter', name: token };
    if (token === '\\pi') return { is: 'constant', name: 'pi' };
    if (token === '\\exponentialE') return { is: 'constant', name: 'e' };
    const greek = greekLetter(token);
    return greek ? { is: 'letter', name: greek } : missing(what);
  }

  /** A sum up to the end of a group; a relation or a list has no place there. */
  protected within(what: Missing): Tree {
    const found = this.sum();
    this.skip();
    const { token } = this;
    if (token === '}' || token === ']') return found;
    if (isRelationSign(token) || token === ',') refuse('relation-inside', what);
    if (token === ')' || token === '\\right' || token === '\\mright')
      missing('opening-bracket', 'bracket-not-opened');
    return refuse('unexpected', token ?? null);
  }

  protected bracket(open: string): Tree {
    const closing = CLOSED_BY[open]!;
    this.at++;
    this.skip();
    if (this.token !== undefined && closing.includes(this.token)) {
      if (!CURLY.has(open)) missing('inside-brackets');
      this.at++;
      return { is: 'set', of: [] };
    }
    if (this.token === undefined) missing('closing-bracket', 'bracket-not-closed');
    const inside = this.withoutBars(() => this.statement());
    this.skip();
    const close = this.token;
    if (close === undefined || !closing.includes(close)) missing('closing-bracket', 'bracket-not-closed');
    this.at++;
    return this.closed(open, inside, close);
  }

  private closed(open: string, inside: Tree, close: string): Tree {
    const entries = inside.is === 'list' && inside.how === 'comma' ? inside.of : null;
    const [fromSquare, toSquare] = [SQUARE.has(open), SQUARE.has(close)];
    if (CURLY.has(open)) return { is: 'set', of: entries ?? [inside] };
    if (entries?.length === 2)
      return { is: 'interval', from: entries[0]!, to: entries[1]!, fromOpen: !fromSquare, toOpen: !toSquare };
    if (entries) return fromSquare || toSquare ? refuse('list-in-brackets') : { is: 'tuple', of: entries };
    if (fromSquare !== toSquare) refuse('bracket-mismatch');
    return inside.is === 'relation' || inside.is === 'list'
      ? { is: 'statement', of: inside }
      : { is: 'group', of: inside, invisible: false };
  }

  /** Brackets and bars that grow with what is in them. */
  protected leftRight(): Tree {
    const end = this.token === '\\left' ? '\\right' : '\\mright';
    this.at++;
    const open = this.token;
    this.at++;
    if (open === undefined) refuse('bracket-not-closed');
    if (open === '.') missing('opening-bracket', 'bracket-not-opened');
    if (open === '\\|' || open === '\\Vert' || open === '<') refuse('not-supported', open);
    const isBar = BARS.has(open);
    this.skip();
    if (this.token === '\\placeholder') this.placeholder(isBar ? 'inside-bars' : 'inside-brackets');
    if (this.token === end) {
      if (!CURLY.has(open)) missing(isBar ? 'inside-bars' : 'inside-brackets');
      this.at += 2;
      return { is: 'set', of: [] };
    }
    const inside = this.withoutBars(() => this.statement());
    this.skip();
    if (this.token !== end) missing('closing-bracket', 'bracket-not-closed');
    this.at++;
    const close = this.peek(0);
    this.at++;
    if (close === undefined || close === '.')
      return missing(isBar ? 'closing-bar' : 'closing-bracket', 'bracket-not-closed');
    if (!isBar) return this.closed(open, inside, close);
    if (!BARS.has(close)) refuse('bracket-mismatch');
    if (inside.is === 'relation' || inside.is === 'list') refuse('relation-inside');
    return { is: 'absolute', of: inside, bare: false };
  }

  /** An index of a letter: one sign, or a group of letters and digits. */
  protected subscript(name: string): string {
    const before = this.at;
    this.skip();
    if (this.token !== '_') {
      this.at = before;
      return name;
    }
    this.at++;
    this.skip();
    let index = '';
    if (this.peek(0) === '{') {
      this.at++;
      for (let sign = this.peek(0); sign !== undefined && sign !== '}'; sign = this.peek(0)) {
        if (sign === '\\placeholder') this.placeholder('subscript');
        if (!/^[A-Za-z0-9]$/.test(sign)) refuse('subscript');
        index += sign;
        this.at++;
      }
      this.at++;
      if (index === '') missing('subscript');
    } else {
      if (this.token === undefined) missing('subscript');
      if (!/^[A-Za-z0-9]$/.test(this.token)) refuse('subscript');
      index = this.token!;
      this.at++;
      if (isDigit(this.token)) refuse('digit-after-factor');
    }
    return `${name}_${index}`;
  }

  private point(): string | null {
    const { token } = this;
    if (token === '\\placeholder') this.placeholder('points');
    if (!isLetter(token)) return null;
    this.at++;
    return this.token === '_' ? this.subscript(token) : token;
  }

  /** The points of a figure; `turned` for a ray that is drawn the other way. */
  protected figure(figure: FigureName, grouped: boolean, turned = false): Tree {
    this.skip();
    const points: string[] = [];
    const braced = this.eat('{');
    for (this.skip(); ; this.skip()) {
      const point = this.point();
      if (point === null) break;
      points.push(point);
      if (grouped && !braced) break;
    }
    if (braced && !this.eat('}')) refuse('geometry');
    const wanted = POINTS[figure];
    if (points.length < wanted[0]!) missing('points');
    if (!wanted.includes(points.length)) refuse('geometry');
    return { is: 'figure', figure, points: turned ? points.reverse() : points };
  }
}
