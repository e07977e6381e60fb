import type { WeightedEntry } from '../shared/entries';
import type { BinShown } from './response';

export interface SortAsked {
  readonly chips: readonly WeightedEntry[];
  /** The chips are phrases of the source, named by their keys; they are picked up there too. */
  readonly fromSource: boolean;
  readonly bins: readonly BinShown[];
  /** Whether a chip can be put into several bins. */
  readonly often: boolean;
  /** Whether chips may be left over. */
  readonly leftOver: boolean;
  readonly shuffle: boolean;
}

/** The right chips by bin; a chip in none of them is rightly left over. */
export interface SortKey {
  readonly bins: Readonly<Record<string, readonly string[]>>;
}

/** The chips as they are dealt, by key. */
export type SortArrangement = readonly string[];
