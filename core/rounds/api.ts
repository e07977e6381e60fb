import type { LetterFacts } from '../letters/letters';
import type { Message } from '../messages/message';
import type { CheckName } from '../arrival/checks';
import type { AidName } from '../kit/aids';
import type { WithdrawnRule } from '../papers/ruling';
import type { OpenDecision } from './decisions';
import type { StartRule } from '../arrival/stage';

export const attemptRules = ['latest', 'best', 'first', 'mean'] as const;
export type AttemptRule = (typeof attemptRules)[number];

/**
 * When candidates are told: at once what the machine has scored, as provisional; when a coordinator releases it after the
 * sign-off; or by itself on a date, if the marks are signed off by then.
 */
export const releaseRules = ['at once', 'after sign-off', 'on a date'] as const;
export type ReleaseRule = (typeof releaseRules)[number];

/**
 * What a sheet shows: marks alone, with reasons and comments, with right answers too (of a rubric the next better level),
 * or also all levels of a rubric.
 */
export const sheetsShown = ['marks', 'feedback', 'key', 'levels'] as const;
export type SheetShown = (typeof sheetsShown)[number];

/** Arrangements of a round that do not change once candidates are invited. */
export interface RoundSettings {
  /** By which figures are read and shown (BCP 47). */
  readonly locale: string;
  readonly attemptsAllowed: number;
  /** Which of several attempts the result is made of. */
  readonly counts: AttemptRule;
  /** How long a candidate waits between two attempts, in minutes. */
  readonly pauseMinutes: number;
  /** Whether sheets show everything while attempts remain: the round is for practice. */
  readonly forPractice: boolean;
  readonly startRule: StartRule;
  /** How many minutes before the opening candidates can start their arrival. */
  readonly doorsMinutes: number;
  /** Whether the rehearsal can be taken from the round's own page, without a personal link. */
  readonly openRehearsal: boolean;
  /** Whether a request to correct details has to be settled before one goes on. */
  readonly correctionsFirst: boolean;
  /** Whether a picture of an identity document is taken besides the candidate's own. */
  readonly identityPicture: boolean;
  /** Whether pages of answers can be photographed with a phone that is joined by a QR code. */
  readonly joinedPhones: boolean;
  readonly checks: readonly CheckName[];
  /** How long pictures of candidates are kept. */
  readonly keptDays: number;
  readonly help: string;
  readonly resultBy: number;
  /** Whether candidates are asked four questions about the test after they have handed in. */
  readonly questionnaire: boolean;
  readonly release: ReleaseRule;
  /** For the release on a date. */
  readonly releaseAt: number | null;
  readonly sheet: SheetShown;
  /** For how many days after the release candidates can ask for a check; 0 for not at all. */
  readonly checkDays: number;
  /** What is done with the marks of a part that is withdrawn. */
  readonly withdrawn: WithdrawnRule;
  /** Whether a released result may fall when a key is corrected. */
  readonly marksMayFall: boolean;
  /** Whether the bands are set after the marking, and are told to nobody before. */
  readonly bandsAfterwards: boolean;
}

/** Access arrangements of one candidate, beyond extra time. */
export interface Arrangements {
  /** Rest breaks, minutes in all, taken when the candidate wants. */
  readonly breakMinutes: number;
  /** Transcripts take the place of recordings. */
  readonly transcripts: boolean;
  /** Aids that are open for this candidate in every section, also where the section does not allow them. */
  readonly aids: readonly AidName[];
  /** Checks that need not pass, with the reason on record. */
  readonly waivedChecks: readonly CheckName[];
  readonly reason: string;
}

export const noArrangements: Arrangements = {
  breakMinutes: 0,
  transcripts: false,
  aids: [],
  waivedChecks: [],
  reason: '',
};

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

/** By how far candidates have come; `to settle`: a request to correct details is open. */
export const candidateFilters = ['not started', 'in progress', 'handed in', 'to settle'] as const;

export interface InvitedRow {
  readonly id: number;
  readonly name: string;
  readonly email: string;
  readonly reference: string;
  readonly extraPercent: number;
  readonly breakMinutes: number;
  readonly startedAt: number | null;
  readonly deadlineAt: number | null;
  readonly handedInAt: number | null;
  readonly notes: readonly Message[];
  /** A request to correct details that nobody has settled yet. */
  readonly correction: string | null;
  readonly total: number | null;
}

export interface RoundDetail extends RoundRow {
  readonly settings: RoundSettings;
  readonly mayRelease: boolean;
  /** From when its candidates can practise with the real questions; null where they cannot. */
  readonly practiceAt: number | null;
  readonly decisions: readonly OpenDecision[];
}

export interface LetterRow {
  readonly id: number;
  readonly to: string;
  readonly subject: Message;
  readonly at: number;
  /** `not sent`: there is no mail server. */
  readonly state: 'not sent' | 'waiting' | 'sent' | 'failed';
}

export interface Letter extends LetterRow {
  readonly facts: LetterFacts;
  /** The secret that the letter that is sent brings: a personal link or a code. */
  readonly brings: 'link' | 'code' | null;
  /** The secret, where one was made to be shown here. */
  readonly secret: string | null;
  readonly attachments: readonly string[];
}

export const roles = ['coordinator', 'assessor', 'lead', 'invigilator'] as const;
export type Role = (typeof roles)[number];

export interface StaffMember {
  readonly name: string;
  readonly roles: readonly Role[];
}

/** Somebody of the staff, as a coordinator chooses them for a round. */
export interface StaffRow extends StaffMember {
  readonly id: number;
}

export interface NewRound {
  readonly title: string;
  /** The version of a paper. */
  readonly paper: number;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly timeZone: string;
  readonly settings: RoundSettings;
  readonly staff: readonly { readonly id: number; readonly roles: readonly Role[] }[];
}
