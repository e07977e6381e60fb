import type { Hundredths } from '../marks';
import type { MarginNote } from './marginNote';
import type { MarksGiven } from './marksGiven';

/**
 * Who a mark comes from: the machine, an assessor in their turn, the mean of two, a lead who settled a gap, somebody who
 * set a credit of the machine right, or a change after the sign-off.
 */
export type MarkRole = 'machine' | 'first' | 'second' | 'mean' | 'settlement' | 'override' | 'remark';

/** Why a mark was given: by scoring, by an assessor, as the response had changed, or as the key was corrected. */
export type MarkCause = 'score' | 'marking' | 'response changed' | 'rescore';

/** What a marking is for; `agreed` is a lead's of a script that standardises others. */
export type JudgementRole = 'first' | 'second' | 'settlement' | 'agreed' | 'practice' | 'standard';

/** Scripts with agreed marks are marked openly before one starts, or slipped in unseen. */
export const standardUses = ['practice', 'unseen'] as const;
export type StandardUse = (typeof standardUses)[number];

/** Why an assessor cannot decide alone. */
export const asideReasons = ['illegible', 'suspected copying', 'wrong place', 'welfare', 'other'] as const;
export type AsideReason = (typeof asideReasons)[number];

/** A credit of the machine set right by a person. */
export interface Override {
  readonly hundredths: Hundredths;
  readonly reason: string;
}

/** A mark as it is sent: it names what stood when it was made. */
export interface MarkSent extends MarkDraft {
  /** The judgement of this script that its assessor saw; null where there was none. */
  readonly seen: number | null;
}

/** What an assessor gives a script; half made, as it is kept. */
export interface MarkDraft {
  readonly given: MarksGiven;
  readonly comment: string;
  readonly notes: readonly MarginNote[];
  /** By component. */
  readonly overrides: Readonly<Record<string, Override>>;
}
