import type { Document } from '../../documents/document';
import type { SeveralRule } from '../shared/severalRight';

export interface OptionShown {
  readonly key: string;
  readonly text: string;
  /** Shown for the words, which are then heard alone. */
  readonly body?: Document | undefined;
}

export interface ChoiceShown {
  readonly options: readonly OptionShown[];
  readonly mode: 'one' | 'several';
  readonly choose: number | null;
  readonly rule: SeveralRule;
  /** Whether a wrong choice of one costs marks. */
  readonly costs: boolean;
}

/** The chosen options, by key. */
export interface ChoiceResponse {
  readonly chosen: readonly string[];
}
