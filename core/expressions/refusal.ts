/** What is missing in something unfinished; told to who types it. */
export type Missing =
  | 'numerator'
  | 'denominator'
  | 'exponent'
  | 'base'
  | 'radicand'
  | 'root-index'
  | 'log-base'
  | 'subscript'
  | 'function-argument'
  | 'inside-brackets'
  | 'inside-bars'
  | 'closing-bracket'
  | 'opening-bracket'
  | 'closing-bar'
  | 'right-side'
  | 'left-side'
  | 'after-plus'
  | 'after-minus'
  | 'after-either'
  | 'factor'
  | 'left-factor'
  | 'divisor'
  | 'decimals'
  | 'points'
  | 'amount'
  | 'item'
  | 'part'
  | 'operand'
  | 'number';

/** Why something cannot be read: it has no reading, or two. It is never guessed at. */
export type Unreadable =
  | 'empty'
  | 'missing'
  | 'too-long'
  | 'too-deep'
  | 'bracket-not-opened'
  | 'bracket-not-closed'
  | 'bracket-mismatch'
  | 'unbalanced-brace'
  | 'unexpected'
  | 'unknown'
  | 'unknown-character'
  | 'text'
  | 'comment'
  | 'mixed-list'
  | 'not'
  | 'two-signs'
  | 'ambiguous-division'
  | 'ambiguous-function-argument'
  | 'ambiguous-bars'
  | 'ambiguous-mixed-number'
  | 'digit-after-power'
  | 'digit-after-factor'
  | 'prime'
  | 'double-exponent'
  | 'subscript'
  | 'relation-inside'
  | 'grouping'
  | 'number-too-long'
  | 'not-supported'
  | 'function-as-letters'
  | 'imaginary'
  | 'list-in-brackets'
  | 'inverse-function'
  | 'function-power'
  | 'function-arguments'
  | 'geometry';

export interface Refused {
  readonly code: Unreadable;
  readonly missing: Missing | null;
  /** The sign or the word that it is about. */
  readonly what: string | null;
}

/** Thrown while reading, and caught where reading began: never seen outside. */
export class Refusal extends Error {
  readonly refused: Refused;
  constructor(code: Unreadable, missing: Missing | null = null, what: string | null = null) {
    super(code);
    this.refused = { code, missing, what };
  }
}

export function refuse(code: Unreadable, what: string | null = null): never {
  throw new Refusal(code, null, what);
}

export function missing(what: Missing, code: Unreadable = 'missing'): never {
  throw new Refusal(code, what);
}
