import { missing, refuse, type Missing } from './refusal';
import { SPACE, tokensOf } from './tokens';
import type { Tree } from './tree';

export interface ReadOptions {
  readonly decimal: '.' | ',';
  /** A comma parts entries of a list and never groups digits. */
  readonly list: boolean;
  /** Letters that would otherwise be read as something else: e, i, f, g, h. */
  readonly letters: readonly string[];
  /** Letters that are functions: before brackets they take an argument. */
  readonly functions: readonly string[];
}

export const plainReading: ReadOptions = { decimal: '.', list: false, letters: [], functions: [] };

const LONGEST = 2000;

/** Relation signs; the negations of some are read as the opposite sign. */
export const RELATIONS: Readonly<Record<string, string>> = {
  '=': '=',
  '<': '<',
  '>': '>',
  '\\lt': '<',
  '\\gt': '>',
  '\\le': '<=',
  '\\leq': '<=',
  '\\leqslant': '<=',
  '\\ge': '>=',
  '\\geq': '>=',
  '\\geqslant': '>=',
  '\\ne': '!=',
  '\\neq': '!=',
  '\\approx': '~~',
  '\\cong': 'cong',
  '\\sim': 'sim',
  '\\ncong': '!cong',
  '\\nsim': '!sim',
  '\\parallel': 'par',
  '\\nparallel': '!par',
  '\\perp': 'perp',
  '\\equiv': '===',
  '\\in': 'in',
  '\\notin': '!in',
  '\\propto': 'prop',
};

export const isRelationSign = (token: string | undefined): token is string =>
  token !== undefined && Object.hasOwn(RELATIONS, token);

export const isDigit = (token: string | undefined): token is string => /^[0-9]$/.test(token ?? '');
export const isLetter = (token: string | undefined): token is string => /^[A-Za-z]$/.test(token ?? '');

const CLOSING = new Set(
  [')', ']', '}', '\\right', '\\mright', '\\}', '\\rbrace', '\\rbrack', ',', ';'].concat([
    '\\lor',
    '\\land',
    '\\vee',
    '\\wedge',
    '\\rvert',
    '\\not',
  ]),
);
const OPERATORS = new Set(
  ['+', '-', '\\pm', '\\mp', '\\plusmn', '\\cdot', '\\times', '*', '\\ast', '\\div', '/', ':'].concat([
    '\\slash',
  ]),
);

/** Where one is among the tokens, and what comes next. */
export abstract class Cursor {
  protected readonly tokens: readonly string[];
  protected readonly options: ReadOptions;
  protected at = 0;
  /** How many bars are open: the next one closes, where nothing else does. */
  protected openBars = 0;

  constructor(latex: string, options: ReadOptions) {
    if (latex.length > LONGEST) refuse('too-long');
    this.options = options;
    this.tokens = tokensOf(latex);
  }

  abstract sum(): Tree;
  abstract statement(): Tree;

  protected get token(): string | undefined {
    return this.tokens[this.at];
  }

  protected peek(by = 1): string | undefined {
    return this.tokens[this.at + by];
  }

  /** Passes spaces over. */
  protected skip(): void {
    while (this.token === SPACE) this.at++;
  }

  /** Passes a token over where it comes next. */
  protected eat(token: string): boolean {
    this.skip();
    if (this.token !== token) return false;
    this.at++;
    return true;
  }

  protected atEnd(): boolean {
    const { token } = this;
    if (token === undefined || CLOSING.has(token) || isRelationSign(token)) return true;
    return token === '|' && this.openBars > 0;
  }

  protected atOperator(): boolean {
    if (OPERATORS.has(this.token ?? '')) return true;
    return this.token === '{' && [',', ';'].includes(this.peek() ?? '') && this.peek(2) === '}';
  }

  /** An empty box of the editor, where something has to stand. */
  protected placeholder(what: Missing): never {
    return missing(what);
  }

  /** Reads something within which bars start again. */
  protected withoutBars<T>(read: () => T): T {
    const before = this.openBars;
    this.openBars = 0;
    const found = read();
    this.openBars = before;
    return found;
  }
}
