import type { LiveView } from '../../core/live/api';
import type { SealedSection } from '../../core/papers/candidatePaper';
import type { AnswerVersion, PlayReply, Receipt, TimeView } from '../../core/sittings/api';
import type { PhoneWay } from '../kinds/answerProps';
import type { NotedChange, NoteTrouble } from './journal/deviceJournal';
import type { Directions } from './directions';
import type { SavedState } from './journal/sender';

/** What the desk is told by what stands behind it. */
export interface DeskEvents {
  readonly onSaved: (saved: SavedState) => void;
  readonly onTime: (time: TimeView) => void;
  readonly onLive: (view: LiveView) => void;
  /** The device itself cannot keep entries, or a value is too long to be saved. */
  readonly onTrouble: (trouble: NoteTrouble) => void;
  /** Another window or device has taken the desk over. */
  readonly onElsewhere: () => void;
  /** The sitting is closed on the server. */
  readonly onClosed: () => void;
  /** There is no sitting any more: the candidate's page knows what is next. */
  readonly onGone: () => void;
  /** Answers of which another device has another version. */
  readonly onOtherVersions: (targets: readonly string[]) => void;
}

export type HandInOutcome =
  | { readonly done: Receipt }
  /** Kept on the device until the network is back. */
  | { readonly queuedAt: number }
  /** The device took its time to be over; the server knows better, and so much is left. */
  | { readonly notYetMs: number };

/** What stands behind a desk: the server with its journal for a sitting, nothing at all for a rehearsal. */
export interface DeskBackend {
  /** Begins to send and to listen; the returned function ends it. */
  begin(events: DeskEvents): () => void;
  note(change: NotedChange): void;
  /** Leaving a question: what was held back to be merged is settled. */
  settle(): void;
  handIn(by: 'candidate' | 'time'): Promise<HandInOutcome>;
  /** Enters a section with a limit of its own, which starts its clock, and gives its questions. */
  enter(section: string): Promise<SealedSection>;
  /** What was told before the clock started; null in a rehearsal. */
  readonly directions: (() => Promise<Directions>) | null;
  /** What can be asked of the server while one works; null in a rehearsal. */
  readonly help: DeskHelp | null;
}

export interface DeskHelp {
  readonly say: (text: string, hand: boolean) => Promise<LiveView>;
  readonly takeBreak: () => Promise<void>;
  readonly endBreak: () => Promise<LiveView>;
  /** Takes the desk from the other window or device that has it. */
  readonly takeOver: () => Promise<void>;
  /** After a stop: shows the server that the device has heard of its end. Resolves when it has. */
  readonly goOn: () => Promise<void>;
  /** Sends what was written, uses of plays among it, and asks for a play of a recording. */
  readonly play: (file: string) => Promise<PlayReply>;
  /** When another device has the desk: gives back a play that was held ready here. */
  readonly returnPlay: (file: string) => Promise<unknown>;
  /** Gives what brings a phone to this part. */
  readonly joinPhone: (target: string) => Promise<PhoneWay>;
  readonly endPhone: () => Promise<void>;
  readonly versions: (target: string) => Promise<AnswerVersion[]>;
}
