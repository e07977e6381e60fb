import type { EntryRef } from '../journal/entry';

/**
 * What only a coordinator can decide of a sitting before it is marked: entries that came too late, writing while the
 * clock stood still, two versions of an answer, an answer given out of its turn, entries that were announced and never
 * came, pages that came too late or not at all.
 */
export type DecisionKind =
  | 'late-entries'
  | 'writing-in-stop'
  | 'two-versions'
  | 'out-of-turn'
  | 'missing-entries'
  | 'late-pages';

/** `take` counts the late entries or pages, the writing in the stop, or the other version; `leave` does not. */
export type DecisionChoice = 'take' | 'leave';

export interface DecisionFacts {
  /** Late entries: how many, up to which order of arrival, and when they were made and arrived. */
  readonly count?: number;
  readonly upTo?: number;
  readonly madeFrom?: number;
  readonly madeTo?: number;
  readonly arrivedFrom?: number;
  readonly arrivedTo?: number;
  /** Pages: how many came too late; `count` is how many never came. */
  readonly late?: number;
  /** Two versions: the one that was written elsewhere and claims to be later, or that was given out of its turn. */
  readonly other?: EntryRef;
}

/** An open decision as the coordinator sees it: the answers one way and the other. */
export interface OpenDecision {
  readonly id: number;
  readonly kind: DecisionKind;
  readonly name: string;
  readonly reference: string;
  readonly closedAt: number;
  readonly claimedHandInAt: number | null;
  readonly facts: DecisionFacts;
  /** What differs, by question: as it is without a change, and with what is to be decided. */
  readonly changes: readonly { readonly question: string; readonly leave: string; readonly take: string }[];
}
