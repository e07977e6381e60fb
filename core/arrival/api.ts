import type { Guessing } from '../kinds/contract';
import type { Hundredths } from '../marks';
import type { Message } from '../messages/message';
import type { Document } from '../documents/document';
import type { NodeType } from '../documents/everyNode';
import type { KindName } from '../kinds/kindNames';
import type { CoverSection } from '../papers/candidatePaper';
import type { Receipt } from '../sittings/api';
import type { CheckName, CheckResult } from './checks';
import type { StartRule } from './stage';
import type { Stage } from './stage';

/** How far a handed-in script is: what is scored, and who reads what. */
export interface MarkingProgress {
  /** Questions whose marks are all given, and all questions. */
  readonly scored: number;
  readonly questions: number;
  /** Questions that people are marking, by title, with how many people are at work on each. */
  readonly reading: readonly { readonly title: string; readonly assessors: number }[];
  /** The machine is at work, or something that counts may still arrive. */
  readonly scoring: boolean;
}

/** Where somebody stands who arrives with many others. */
export interface QueuePlace {
  /** From 1. */
  readonly place: number;
  /** About how long it takes. */
  readonly seconds: number;
}

/** An attempt that was handed in. */
export interface AttemptHandedIn {
  readonly attempt: number;
  readonly receipt: Receipt;
  /** What is marked of it, where the candidate may see it; `complete` once nothing is open. */
  readonly marks: {
    readonly hundredths: Hundredths;
    readonly of: Hundredths;
    readonly complete: boolean;
  } | null;
  /** Whether the result is made of it, as far as can be said now. */
  readonly counts: boolean;
}

/** What a personal link opens: the arrival, or the queue before it. */
export type ArrivalOpened = ArrivalView | { readonly queue: QueuePlace };

/** All that the arrival shows. Times are the server's, in milliseconds since 1970. */
export interface ArrivalView {
  readonly now: number;
  readonly stage: Stage;
  readonly organisation: string;
  readonly round: {
    readonly title: string;
    readonly paperTitle: string;
    readonly opensAt: number;
    readonly closesAt: number;
    readonly timeZone: string;
    readonly attemptsAllowed: number;
    /** How many attempts there are and are left, and which counts, in sentences. */
    readonly attempts: readonly Message[];
    readonly startRule: StartRule;
    readonly doorsAt: number;
    readonly identityPicture: boolean;
    readonly correctionsFirst: boolean;
    /** What is recorded of the candidate, in sentences. */
    readonly recorded: readonly Message[];
    readonly resultBy: number;
    /** Whether the result is shown right after the hand-in: the machine marks all, and nobody has to sign off. */
    readonly resultAtOnce: boolean;
    readonly help: string;
  };
  readonly candidate: { readonly name: string; readonly email: string; readonly reference: string };
  readonly attempt: number;
  readonly time: { readonly limitMs: number; readonly extraPercent: number; readonly breakMinutes: number };
  readonly checks: {
    readonly demanded: readonly CheckName[];
    /** Need not pass, by arrangement. */
    readonly waived: readonly CheckName[];
    readonly results: readonly CheckResult[];
  };
  /** Asked for and not settled yet. */
  readonly correction: string | null;
  readonly pictureTaken: boolean;
  /** Whether the questionnaire can be answered: it is asked in this round, and was not answered yet. */
  readonly questionnaire: boolean;
  /** Whether the questions of this round can be practised. */
  readonly practice: boolean;
  readonly rules: {
    readonly version: string;
    readonly text: Document;
    readonly statements: readonly { key: string; text: string }[];
  };
  readonly cover: {
    readonly text: Document;
    readonly sections: readonly CoverSection[];
    readonly questions: number;
    readonly marks: Hundredths;
    /** Bands with the marks from which each is reached, the highest first. */
    readonly bands: readonly { readonly title: string; readonly from: Hundredths }[];
    /** The bands are set after the marking. */
    readonly bandsAfterwards: boolean;
    /** What a guess can cost. */
    readonly guessing: Guessing;
    readonly warningMinutes: readonly number[];
    readonly peopleMark: boolean;
    readonly kinds: readonly KindName[];
    /** What its texts hold, so that what draws them is on the device before the clock starts. */
    readonly textNodes: readonly NodeType[];
  };
  /** Of the newest hand-in. */
  readonly receipt: Receipt | null;
  /** How many other tests the person is invited to. */
  readonly otherTests: number;
  /** Handed in, in the order in which they were made. */
  readonly attempts: readonly AttemptHandedIn[];
  readonly marking: MarkingProgress | null;
}
