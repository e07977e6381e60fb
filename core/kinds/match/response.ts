import * as v from 'valibot';
import { entryKey, type Entry } from '../shared/entries';

export interface MatchShown {
  readonly left: readonly Entry[];
  readonly right: readonly Entry[];
  /** Whether an entry on the right can be the partner of one only. */
  readonly once: boolean;
  /** Whether entries on the left may stay without a partner. */
  readonly leftOver: boolean;
}

/** The partner on the right of each entry on the left. */
export const responseSchema = v.strictObject({ pairs: v.record(entryKey, entryKey) });
export type MatchResponse = v.InferOutput<typeof responseSchema>;
