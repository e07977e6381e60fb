import type { Entry, WeightedEntry } from '../shared/entries';

export interface MatchAsked {
  readonly left: readonly WeightedEntry[];
  readonly right: readonly Entry[];
  /** Whether an entry on the right can be the partner of one only. */
  readonly once: boolean;
  /** Whether entries on the left may stay without a partner. */
  readonly leftOver: boolean;
  /** Deals the right side in another order in each form. */
  readonly shuffle: boolean;
}

/** The right partner of each entry on the left; none where it has none. */
export interface MatchKey {
  readonly pairs: Readonly<Record<string, string>>;
}

/** The right side as it is dealt, by key. */
export type MatchArrangement = readonly string[];
