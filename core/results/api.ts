import type { Hundredths } from '../marks';
import type { ResultSheet } from './resultSheet';

/** A candidate's request for a check, and what came of it. */
export interface ResultCheck {
  readonly id: number;
  readonly reason: string;
  readonly askedAt: number;
  readonly answer: string | null;
  /** Whether marks were changed by it; null until it is answered. */
  readonly changed: boolean | null;
  readonly answeredAt: number | null;
}

/** What a candidate can do about their result. */
export interface ChecksView {
  readonly checks: readonly ResultCheck[];
  /** Until when a check can be asked for; null where it cannot, or not any more. */
  readonly until: number | null;
}

/** A request as staff see it. */
export interface CheckRow extends ResultCheck {
  readonly invitation: number;
  readonly name: string;
  readonly reference: string;
}

export const resultFilters = ['complete', 'being marked', 'observed', 'check asked', 'void'] as const;
export type ResultFilter = (typeof resultFilters)[number];

/** A candidate of a round as the coordinator sees their result. */
export interface ResultRow {
  readonly invitation: number;
  /** Null, as the reference, for who marks: until the round is signed off. */
  readonly name: string | null;
  readonly reference: string | null;
  readonly script: string;
  readonly handedInAt: number;
  readonly attempts: number;
  /** Null while something is not marked. */
  readonly total: Hundredths | null;
  /** Of what is marked so far. */
  readonly scored: Hundredths;
  readonly band: string | null;
  readonly observations: number;
  readonly isVoid: boolean;
  readonly checkOpen: boolean;
}

export interface ScoreDistribution {
  readonly round: string;
  readonly of: Hundredths;
  readonly n: number;
  readonly mean: number | null;
  readonly deviation: number | null;
  /** Candidates by marks: from `at` to below the next; none holds two bands. */
  readonly steps: readonly { readonly at: Hundredths; readonly count: number }[];
  readonly bands: readonly { readonly title: string; readonly from: Hundredths; readonly count: number }[];
}

export interface PackState {
  readonly id: number;
  readonly at: number;
  readonly done: number;
  readonly of: number;
  readonly state: 'working' | 'ready' | 'cancelled';
}

/** A candidate's sheet as staff see it, with what can be done about it. */
export interface StaffSheet {
  readonly sheet: ResultSheet;
  readonly script: string;
  readonly checks: readonly ResultCheck[];
}
