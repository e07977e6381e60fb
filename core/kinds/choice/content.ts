import type { SeveralRule } from '../shared/severalRight';
import type { OptionShown } from './response';

export interface ChoiceAsked {
  readonly options: readonly OptionShown[];
  readonly mode: 'one' | 'several';
  /** For `several`: exactly this many are to be chosen; null leaves it open. */
  readonly choose: number | null;
  readonly rule: SeveralRule;
  /** What a wrong choice of one costs, as a fraction of the marks: exact, so that 1/3 stays a third. */
  readonly penalty: { readonly over: number; readonly under: number } | null;
  readonly shuffle: boolean;
}

export interface ChoiceKey {
  readonly right: readonly string[];
}

/** The options in the order in which they are dealt, by key. */
export type ChoiceArrangement = readonly string[];
