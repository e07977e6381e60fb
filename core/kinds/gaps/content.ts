import type { GapShown } from './response';

/** A gap as it is shown, and its share of the marks beside the other gaps. */
export type GapAsked = GapShown & { readonly weight?: number | undefined };

export interface GapsAsked {
  /** With `[[key]]` where each gap stands. */
  readonly text: string;
  readonly gaps: readonly GapAsked[];
}

export interface AcceptedWord {
  readonly text: string;
  /** Share of the gap's marks. */
  readonly percent: number;
}

export type GapRule = TypedRule | { readonly by: 'list'; readonly right: string };

export interface TypedRule {
  readonly by: 'typing';
  readonly accepted: readonly AcceptedWord[];
  readonly ignoreCase: boolean;
  readonly ignoreAccents: boolean;
  /** So many slips of spelling are forgiven. */
  readonly slips: number;
}

/** By the gap's key. */
export interface GapsKey {
  readonly gaps: Readonly<Record<string, GapRule>>;
}
