import type { Drift } from './drift';
import type { AgreementFigures } from './agreementOfPeople';
import type { Document } from '../documents/document';
import type { Component, Credit } from '../kinds/contract';
import type { KindName } from '../kinds/kindNames';
import type { RoughWork } from '../kit/notes';
import type { Hundredths } from '../marks';
import type { Estimate } from '../measures/estimate';
import type { Message } from '../messages/message';
import type { Source } from '../papers/paper';
import type { AsideReason, MarkDraft, MarkRole, StandardUse } from './mark';
import type { MarginNote } from './marginNote';
import type { GivenMark, MarksGiven } from './marksGiven';

/** An item of a round as it is marked: what a row of the assessor's list tells. */
export interface MarkingPile {
  readonly round: number;
  readonly roundTitle: string;
  readonly target: string;
  readonly itemNumber: number;
  readonly title: string;
  readonly marks: Hundredths;
  readonly byYou: number;
  /** In one's own queue. */
  readonly left: number;
}

/** What an assessor asked the lead about a script. */
export interface Aside {
  readonly id: number;
  readonly reason: AsideReason;
  readonly note: string;
  /** Null while it is with the lead. */
  readonly answer: string | null;
}

/** One response as an assessor sees it: a script code and an answer, nothing of the person. */
export interface MarkingScript {
  readonly task: number;
  readonly script: string;
  readonly kind: KindName;
  readonly shown: unknown;
  readonly response: unknown;
  /** The right answer, where the machine should have scored it and could not. */
  readonly right: unknown;
  /** What is to be decided here; what the machine could not score is among it. */
  readonly components: readonly Component[];
  /** What the machine gave the rest of the part. */
  readonly credits: readonly MarkedCredit[];
  /** Of the whole sitting; null where the paper does not show it, or there is none. It is never marked. */
  readonly roughWork: RoughWork | null;
  /** A mark that was started, or one that was given and taken back. */
  readonly draft: MarkDraft | null;
  /** The judgement that stands, also where it was taken back; null where none was given. What is given now names it. */
  readonly seen: number | null;
  /** It was given and taken back: each of its marks is confirmed or changed before it is passed on again. */
  readonly takenBack: boolean;
  readonly aside: Aside | null;
  /** One of the short set before the first script that counts. */
  readonly practice: boolean;
}

/** A credit of the machine with the name of its component, and whether a person set it right. */
export interface MarkedCredit extends Credit {
  readonly name: Message | null;
  readonly overridden: boolean;
}

export interface Clarification {
  readonly id: number;
  readonly text: string;
  readonly at: number;
  /** Not read by this assessor yet. */
  readonly isNew: boolean;
  /** How many scripts they marked before it. */
  readonly touches: number;
}

export interface Phrase {
  readonly id: number;
  readonly text: string;
  readonly shared: boolean;
  readonly own: boolean;
}

/** A script that this assessor has marked; it can be looked at again while the item is open. */
export interface MarkedScript {
  readonly task: number;
  readonly script: string;
  readonly total: Hundredths;
  readonly at: number;
  /** What was written of it: the comment and the notes. */
  readonly words: string;
}

/** What stays the same while an assessor goes through an item. */
export interface MarkingTableData extends MarkingPile {
  readonly prompt: Document;
  readonly source: Source | null;
  readonly scheme: Document;
  readonly modelAnswer: Document | null;
  readonly agreement: Estimate;
  readonly clarifications: readonly Clarification[];
  readonly phrases: readonly Phrase[];
  /** Why nothing comes, where a lead holds this assessor's marking of the item. */
  readonly held: string | null;
  /** The one in view and the next ones, already loaded. */
  readonly scripts: readonly MarkingScript[];
  /** What was passed on last, which can be taken back at once; null where nothing was. */
  readonly last: MarkedScript | null;
  /** Scripts with agreed marks that were marked outside of the tolerance, and whose time for corrections is over. */
  readonly told: readonly StandardTold[];
}

/** The mark that stands, where somebody gives one that did not see it: both are shown, and they decide. */
export interface MarkStanding {
  readonly judgement: number;
  readonly given: readonly GivenMark[];
  readonly comment: string;
  readonly at: number;
}

/** What an assessor is told of a script with agreed marks, once it is marked and the time for corrections is over. */
export interface StandardTold {
  readonly task: number;
  readonly components: readonly Component[];
  readonly script: string;
  readonly practice: boolean;
  readonly yours: readonly GivenMark[];
  readonly agreed: readonly GivenMark[];
  readonly reason: string;
  readonly within: boolean;
  /** Outside of the tolerance too often of late. */
  readonly drifted: boolean;
}

export interface GivenReply {
  readonly told: StandardTold | null;
}

export interface SignOffState {
  readonly round: number;
  readonly title: string;
  readonly handedIn: number;
  readonly running: number;
  readonly beingScored: number;
  /** Decisions that a coordinator has yet to make. */
  readonly toDecide: number;
  readonly unmarked: number;
  /** The newest judgement in the round: a sign-off names it, so that no mark changes between the look and the act. */
  readonly newest: number;
  /** Bands are to be set, for the first time or anew. */
  readonly bandsOpen: boolean;
  readonly signedOffAt: number | null;
  readonly releasedAt: number | null;
  readonly piles: readonly {
    target: string;
    title: string;
    itemNumber: number;
    marked: number;
    left: number;
    gaps: number;
    asides: number;
    mean: number | null;
    marks: Hundredths;
    signedOffAt: number | null;
    newest: number;
  }[];
}

export interface ItemSettings {
  readonly doublePercent: number;
  readonly tolerance: Hundredths;
  readonly standardEvery: number;
}

export interface AssessorQuality {
  readonly id: number;
  readonly name: string;
  readonly marked: number;
  readonly left: number;
  /** Null while there are too few marks in one spell of work. */
  readonly anHour: number | null;
  /** In hundredths above or below the mean of their group of assessors, by responses and assessors together. */
  readonly severity: Estimate;
  /** Which group of assessors connected by common responses they belong to, from 1; null where there is one group alone. */
  readonly group: number | null;
  /** Severity over time, with the standardisation scripts in it. */
  readonly drift: Drift;
  readonly standards: { readonly within: number; readonly of: number; readonly drifted: boolean };
  /** Why they get no more of this item; null where they do. */
  readonly held: string | null;
  readonly absent: boolean;
}

export interface GapRow {
  readonly id: number;
  readonly script: string;
  readonly first: Hundredths;
  readonly second: Hundredths;
}

export interface AsideRow extends Aside {
  readonly task: number;
  readonly script: string;
  readonly assessor: string;
}

export interface StandardRow {
  readonly id: number;
  readonly script: string;
  readonly use: StandardUse;
  readonly agreed: Hundredths;
  readonly reason: string;
  readonly marked: number;
}

/** How an item is marked: for its lead. Totals and differences are in hundredths. */
export interface QualityData {
  readonly round: number;
  readonly roundTitle: string;
  readonly target: string;
  readonly itemNumber: number;
  readonly title: string;
  readonly marks: Hundredths;
  readonly settings: ItemSettings;
  readonly signedOffAt: number | null;
  readonly given: number;
  readonly all: number;
  readonly twice: number;
  readonly scripts: number;
  readonly finishAt: number | null;
  readonly assessors: readonly AssessorQuality[];
  readonly agreement: AgreementFigures;
  /** Totals of both marks, response by response; of two assessors always the same one first. */
  readonly pairs: readonly (readonly [Hundredths, Hundredths])[];
  readonly gaps: readonly GapRow[];
  readonly asides: readonly AsideRow[];
  readonly standards: readonly StandardRow[];
  readonly clarifications: readonly Pick<Clarification, 'id' | 'text' | 'at'>[];
  /** Scripts whose agreed marks can be recorded: those that nobody has marked yet, and others. */
  readonly candidates: readonly { readonly script: string; readonly marked: boolean }[];
  /** The newest judgement of the item, which its sign-off names. */
  readonly newest: number;
  /** What stands in the way of the sign-off. */
  readonly open: readonly Message[];
}

/** What a lead says of a script as a whole; empty for nothing any more. */
export interface OverallComment {
  readonly script: string;
  readonly text: string;
}

/** One of two marks, side by side. */
export interface SideMark {
  readonly given: readonly GivenMark[];
  readonly comment: string;
  readonly notes: readonly MarginNote[];
}

/** A script in a lead's hands: a gap to settle, or agreed marks to record. */
export interface LeadScript {
  readonly script: string;
  readonly kind: KindName;
  readonly shown: unknown;
  readonly response: unknown;
  readonly prompt: Document;
  readonly source: Source | null;
  readonly scheme: Document;
  readonly modelAnswer: Document | null;
  readonly components: readonly Component[];
  readonly marks: Hundredths;
  readonly tolerance: Hundredths;
  readonly sides: readonly SideMark[];
  /** A task of this script, by which its pages are fetched. */
  readonly task: number;
}

export interface GapData extends LeadScript {
  readonly id: number;
  readonly round: number;
  readonly target: string;
  readonly title: string;
  /** Which one of the open ones this is, from 1; and how many there are. */
  readonly place: number;
  readonly of: number;
  readonly next: number | null;
}

export interface Settlement {
  readonly given: MarksGiven | 'first' | 'second' | 'mean';
  readonly comment: string;
  readonly reason: string;
}

export interface RemarkMade {
  readonly script: string;
  readonly target: string;
  readonly component: string;
  /** What the mark was when it was looked at, in hundredths: one that changed meanwhile is not changed unseen. */
  readonly before: Hundredths;
  readonly hundredths: Hundredths;
  readonly reason: string;
}

/** Where a mark came from, in the history that staff see. */
export interface MarkHistoryRow {
  readonly target: string;
  readonly component: string;
  readonly role: MarkRole;
  readonly hundredths: Hundredths;
  readonly by: string | null;
  readonly at: number;
  readonly reason: string;
}
