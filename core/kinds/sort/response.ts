import type { Entry } from '../shared/entries';

export interface BinShown extends Entry {
  /** The most chips that it holds; null for as many as there are. */
  readonly limit: number | null;
}

export interface SortShown {
  readonly chips: readonly Entry[];
  /** The chips are phrases that stand marked in the source, under the same keys. */
  readonly fromSource: boolean;
  readonly bins: readonly BinShown[];
  /** Whether a chip can be put into several bins. */
  readonly often: boolean;
  /** Whether chips may be left over. */
  readonly leftOver: boolean;
}

/** The chips in each bin, in the order in which they were put there. */
export interface SortResponse {
  readonly bins: Readonly<Record<string, readonly string[]>>;
}

export const chipsIn = ({ bins }: SortResponse, bin: string): readonly string[] => bins[bin] ?? [];

export const binsOf = ({ bins }: SortResponse, chip: string): string[] =>
  Object.keys(bins).filter((bin) => bins[bin]!.includes(chip));
