import type { NumberForm } from './response';

export type NumberAsked = NumberForm;

export interface AcceptedFigure {
  readonly figure: string;
  /** Share of the marks. */
  readonly percent: number;
  /** What it means, for the result sheet. */
  readonly note: string;
}

export interface NumberKey {
  /** How near is near enough: a distance, or a share of the key (0.01 is one per cent). Null: as the demand says. */
  readonly tolerance: { readonly by: 'distance' | 'share'; readonly within: string } | null;
  readonly accepted: readonly AcceptedFigure[];
  /** Accepted later by a correction of the key: the very value, in whatever form it was entered. */
  readonly also: readonly string[];
}
