import type { TextForm } from '../kinds/contract';
import type { Passage, SimilarPair, SimilarResponses } from './similar';

/** Pairs of an item's responses with unusual overlap, by script code. */
export interface SimilarData extends Omit<SimilarResponses, 'pairs'> {
  readonly pairs: readonly (Omit<SimilarPair, 'scripts'> & { readonly scripts: readonly [string, string] })[];
}

/** One of two responses side by side, with what both have. */
export interface SimilarSide {
  readonly script: string;
  readonly form: TextForm;
  readonly text: string;
  readonly passages: readonly Passage[];
}
