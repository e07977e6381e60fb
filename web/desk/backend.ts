import type { LiveView } from '../../core/live/api';
import type { Receipt, TimeView } from '../../core/sittings/api';
import type { Change } from './journal/deviceJournal';
import type { SavedState } from './journal/sender';

/** What the desk is told by what stands behind it. */
export interface DeskEvents {
  readonly onSaved: (saved: SavedState) => void;
  readonly onTime: (time: TimeView) => void;
  readonly onLive: (view: LiveView) => void;
  /** The device itself cannot keep entries. */
  readonly onTrouble: () => void;
  /** Another window or device has taken the desk over. */
  readonly onElsewhere: () => void;
  /** The sitting is closed on the server. */
  readonly onClosed: () => void;
}

export type HandInOutcome =
  | { readonly done: Receipt }
  /** Kept on the device with its true time until the network is back. */
  | { readonly queuedAt: number }
  /** The device took its time to be over; the server knows better. */
  | { readonly notYet: true };

/** What stands behind a desk: the server with its journal for a sitting, nothing at all for a rehearsal. */
export interface DeskBackend {
  /** Begins to send and to listen; the returned function ends it. */
  begin(events: DeskEvents): () => void;
  note(change: Change): void;
  handIn(by: 'candidate' | 'time'): Promise<HandInOutcome>;
  /** What can be asked of the invigilator and the clock; null in a rehearsal. */
  readonly help: {
    readonly say: (text: string, hand: boolean) => Promise<LiveView>;
    readonly takeBreak: () => Promise<LiveView>;
    readonly endBreak: () => Promise<LiveView>;
    /** Takes the desk from the other window or device that holds it. */
    readonly takeOver: () => Promise<void>;
  } | null;
}
