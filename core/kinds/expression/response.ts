import type { Form } from '../../expressions/forms';

/** Groups of the toolbar, of which an author chooses. */
export const TOOLS = [
  'fractions',
  'powers',
  'constants',
  'relations',
  'brackets',
  'functions',
  'geometry',
  'units',
] as const;
export type Tool = (typeof TOOLS)[number];

/** How an expression is read, for the candidate and for the judge alike. */
export interface ReadingOfExpression {
  readonly decimal: '.' | ',';
  readonly list: boolean;
  readonly letters: readonly string[];
  readonly functions: readonly string[];
}

export interface ExpressionShown extends ReadingOfExpression {
  /** What stands before and after the field, as “m =”. */
  readonly before: string;
  readonly after: string;
  readonly tools: readonly Tool[];
  /** The form that is demanded; told to candidates. */
  readonly form: Form | null;
}

/** LaTeX as the field writes it, or as it was typed in a line. */
export interface ExpressionResponse {
  readonly latex: string;
}
