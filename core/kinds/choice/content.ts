import type { Document } from '../../documents/document';
import type { SeveralRule } from '../shared/severalRight';

export interface ChoiceOption {
  readonly key: string;
  /** Its words; where it has a body, what people hear who do not see that. */
  readonly text: string;
  /** A picture or a formula that is shown for the words. */
  readonly body?: Document | undefined;
}

export interface ChoiceAsked {
  readonly options: readonly ChoiceOption[];
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
