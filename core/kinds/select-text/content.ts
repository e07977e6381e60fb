import type { PassageShown } from './response';

/** A passage as it is shown, with its phrases marked in it, and its share of the marks beside the other passages. */
export interface PassageAsked extends PassageShown {
  readonly weight?: number | undefined;
}

export interface SelectTextAsked {
  readonly passages: readonly PassageAsked[];
}

export interface SelectTextKey {
  readonly right: readonly string[];
}
