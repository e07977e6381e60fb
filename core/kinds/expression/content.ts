import type { Form } from '../../expressions/forms';
import type { Tool } from './response';

export interface ExpressionAsked {
  /** What stands before and after the field. */
  readonly before: string;
  readonly after: string;
  readonly tools: readonly Tool[];
  /** A comma parts entries: for answers that are several values. */
  readonly list: boolean;
  /** Letters that are unknowns where they would be read otherwise: e, i, f, g, h. */
  readonly letters: readonly string[];
  /** Letters that are functions. */
  readonly functions: readonly string[];
  readonly form: Form | null;
}

export interface AcceptedExpression {
  readonly latex: string;
  /** Share of the marks. */
  readonly percent: number;
  /** What it means, for the result sheet. */
  readonly note: string;
}

/** Where a letter may lie. */
export interface LetterDomain {
  readonly from?: number | undefined;
  readonly to?: number | undefined;
  readonly fromOpen?: boolean | undefined;
  readonly toOpen?: boolean | undefined;
  readonly whole?: boolean | undefined;
}

export interface ExpressionKey {
  readonly accepted: readonly AcceptedExpression[];
  /** What the right value earns in another form, in per cent; asked only where a form is. */
  readonly otherForm: number;
  /** Where the letters may lie; anywhere where nothing is said. */
  readonly domain: Readonly<Record<string, LetterDomain>>;
  /** The base of a logarithm that is written without one. */
  readonly log: 10 | 'e';
}
