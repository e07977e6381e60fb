import type { Head } from '../journal/chain';
import type { Desk } from '../journal/desk';

/** The time of a running sitting as a device shows it. */
export interface TimeView {
  readonly startedAt: number;
  /** Time left when this was said; what a standing clock shows. */
  readonly leftMs: number;
  /** When the time runs out as things stand; while the clock stands still, as if it went on now. */
  readonly deadlineAt: number;
  /** Why the clock stands still, and for a break when it goes on by itself. */
  readonly stopped: {
    readonly why: 'pause' | 'break';
    readonly since: number;
    readonly until: number | null;
  } | null;
  readonly breakLeftMs: number;
  /** Extra time by arrangement: 25 is a quarter more. */
  readonly extraPercent: number;
  /** Ends of opened sections that have a limit of their own. */
  readonly sectionEnds: Readonly<Record<string, number>>;
}

/** Sent with every answer of the server to a desk, so that the clock is corrected as one goes. */
export interface ServerTime {
  readonly now: number;
  readonly time: TimeView;
}

/** A sealed copy that a device fetches before the start and checks by its hash (SHA-256, hex). */
export interface SealedListing {
  /** Empty for the paper; otherwise the section with a limit of its own. */
  readonly section: string;
  readonly hash: string;
}

/** A sealed file of media, fetched in parts. */
export interface MediaListing {
  /** Follows from its key and the file that a text names (`mediaName`). */
  readonly name: string;
  /** Of the sealed bytes (SHA-256, hex), and how many they are. */
  readonly hash: string;
  readonly bytes: number;
}

/** What of a sitting is brought onto the device, sealed. */
export interface Prepared {
  readonly sealed: readonly SealedListing[];
  readonly media: readonly MediaListing[];
}

/** Keys (AES-256-GCM, base64url) of what may be opened now, by section; the whole paper has an empty name. */
export interface SittingKeys {
  readonly paper: Readonly<Record<string, string>>;
  readonly media: Readonly<Record<string, string>>;
}

/** A recording with a limit of plays: how many there are, and how many were granted to devices. */
export interface PlayCount {
  readonly allowed: number;
  readonly granted: number;
  /** The numbers of those that a device holds ready, as far as is known here. */
  readonly unused: readonly number[];
}

/** Plays by file. */
export type PlayCounts = Readonly<Record<string, PlayCount>>;

export interface PlayBody extends JournalBatch {
  readonly file: string;
}

/** `number` names the play that the device may use; null where none is left. */
export interface PlayReply extends JournalKept {
  readonly number: number | null;
  readonly plays: PlayCounts;
}

/** The right of one browser store to write, numbered; `token` names this very granting. */
export interface GrantedHold {
  readonly hold: number;
  readonly token: string;
}

/** Everything a device needs to go on where the candidate was. */
export interface SittingOpened extends ServerTime {
  readonly sitting: string;
  readonly sealed: readonly SealedListing[];
  readonly media: readonly MediaListing[];
  readonly keys: SittingKeys;
  readonly hold: GrantedHold;
  readonly desk: Desk;
  /** Targets for which another hold has another version. */
  readonly otherVersions: readonly string[];
  readonly plays: PlayCounts;
}

/** Asks for the right to write. `store` and `opening` are names that the device made up, of its store and this page. */
export interface HoldBody {
  readonly store: string;
  readonly opening: string;
  /** Also where another device was heard of a moment ago. */
  readonly takeOver: boolean;
}

export type HoldReply =
  | { readonly granted: true; readonly opened: SittingOpened }
  | { readonly granted: false };

export interface JournalBatch {
  readonly head: Head;
  readonly opening: string;
  /** Entries as the device wrote them; each is read for itself, so that a bad one does not refuse its neighbours. */
  readonly entries: readonly unknown[];
}

/** The end, said by the candidate or by the device at the deadline. When it claims to be is shown to people only. */
export interface HandInBody extends JournalBatch {
  readonly by: 'candidate' | 'time';
  readonly claimedAt: number;
}

export interface EnterBody extends JournalBatch {
  readonly section: string;
}

export interface RefusedEntry {
  readonly number: number | null;
  readonly code: string;
}

export interface JournalKept extends ServerTime {
  /** Entries of this hold up to this number are durable without a gap. */
  readonly held: number;
  /** False: another hold was granted since. What is sent is kept all the same. */
  readonly current: boolean;
  /** Entries contradict each other: a fresh hold with whole values is to follow. */
  readonly renew: boolean;
  /** Entries that were kept aside or not taken at all, and why. */
  readonly refused: readonly RefusedEntry[];
  readonly closed: boolean;
  readonly otherVersions: readonly string[];
  /** How long the device may wait from this request until its next save, in ms. */
  readonly nextSaveMs: number;
}

/** `receipt` is null while the sitting goes on (it was not closed: the deadline is later) or entries are outstanding. */
export interface HandInReply extends JournalKept {
  readonly receipt: Receipt | null;
}

export interface EnterReply extends JournalKept {
  readonly keys: SittingKeys;
}

export interface Receipt {
  readonly code: string;
  readonly handedInAt: number;
  /** When the device says that it was handed in, where that was long before it arrived. */
  readonly claimedAt: number | null;
  readonly usedMs: number;
  readonly closedBy: ClosedBy;
  readonly answered: number;
  readonly parts: number;
  /** Receipts before this one, with their codes: they stay valid. */
  readonly earlier: readonly { readonly code: string; readonly at: number }[];
}

/** An earlier version of an answer, to look at and bring back. */
export interface AnswerVersion {
  readonly hold: number;
  readonly number: number;
  /** When it was written, as far as is known. */
  readonly at: number;
  /** Written in another hold than the one that is current: on another device, or before a take-over. */
  readonly elsewhere: boolean;
  readonly value: unknown;
}

/** Who closed a sitting: the candidate, the device at the deadline, the server that heard nothing, or an invigilator. */
export type ClosedBy = 'candidate' | 'time' | 'server' | 'staff';
