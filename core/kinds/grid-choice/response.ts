import type { Entry } from '../shared/entries';
import type { SeveralRule } from '../shared/severalRight';

export interface GridChoiceShown {
  readonly statements: readonly Entry[];
  readonly categories: readonly Entry[];
  /** Whether a statement takes one category or several. */
  readonly mode: 'one' | 'several';
  readonly rule: SeveralRule;
  /** For `several`: a statement may have no category, and is then left empty. */
  readonly mayStayEmpty: boolean;
}

/** The chosen categories by statement. */
export interface GridChoiceResponse {
  readonly rows: Readonly<Record<string, readonly string[]>>;
}

export const chosenIn = ({ rows }: GridChoiceResponse, statement: string): readonly string[] =>
  rows[statement] ?? [];
