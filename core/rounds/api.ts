import type { CheckName } from '../arrival/checks';

/** Arrangements of a round that do not change once candidates are invited. */
export interface RoundSettings {
  readonly attemptsAllowed: number;
  readonly checks: readonly CheckName[];
  /** What is recorded of a candidate, in one sentence that they read, and how long it is kept. */
  readonly recorded: string;
  readonly keptDays: number;
  readonly help: string;
  readonly resultBy: number;
}

export interface RoundRow {
  readonly id: number;
  readonly title: string;
  readonly paper: number;
  readonly paperTitle: string;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly timeZone: string;
  /** Where the window stands by the server's clock. */
  readonly window: 'later' | 'open' | 'over';
  readonly invited: number;
  readonly running: number;
  readonly handedIn: number;
  readonly signedOffAt: number | null;
  readonly releasedAt: number | null;
}

export interface InvitedRow {
  readonly id: number;
  readonly name: string;
  readonly email: string;
  readonly reference: string;
  readonly extraPercent: number;
  readonly startedAt: number | null;
  readonly deadlineAt: number | null;
  readonly handedInAt: number | null;
  readonly notes: readonly string[];
  readonly total: number | null;
}

export interface RoundDetail extends RoundRow {
  readonly settings: RoundSettings;
  readonly invitedRows: readonly InvitedRow[];
  readonly mayRelease: boolean;
}

export interface LetterRow {
  readonly id: number;
  readonly to: string;
  readonly subject: string;
  readonly at: number;
  readonly state: 'kept here' | 'waiting' | 'sent' | 'failed';
}

export interface Letter extends LetterRow {
  readonly text: string;
  readonly link: string | null;
  readonly attachments: readonly string[];
}

export const roles = ['coordinator', 'assessor', 'lead', 'invigilator'] as const;
export type Role = (typeof roles)[number];

export interface StaffMember {
  readonly name: string;
  readonly roles: readonly Role[];
}
