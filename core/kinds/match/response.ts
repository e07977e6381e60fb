import type { Entry } from '../shared/entries';

export interface MatchShown {
  readonly left: readonly Entry[];
  readonly right: readonly Entry[];
  /** Whether an entry on the right can be the partner of one only. */
  readonly once: boolean;
  /** Whether entries on the left may stay without a partner. */
  readonly leftOver: boolean;
}

/** The partner on the right of each entry on the left. */
export interface MatchResponse {
  readonly pairs: Readonly<Record<string, string>>;
}
