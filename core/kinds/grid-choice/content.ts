import type { Entry, WeightedEntry } from '../shared/entries';
import type { SeveralRule } from '../shared/severalRight';

export interface GridChoiceAsked {
  readonly statements: readonly WeightedEntry[];
  readonly categories: readonly Entry[];
  readonly mode: 'one' | 'several';
  /** For `several`: how a statement with several categories is scored. */
  readonly rule: SeveralRule;
  readonly mayStayEmpty: boolean;
  /** Deals the statements in another order in each form. Categories keep theirs. */
  readonly shuffle: boolean;
}

/** The right categories by statement; none where nothing applies. */
export interface GridChoiceKey {
  readonly rows: Readonly<Record<string, readonly string[]>>;
}

/** The statements as they are dealt, by key. */
export type GridChoiceArrangement = readonly string[];
