import type { JournalKept } from '../../../core/sittings/api';
import { SAVE_MS, savePauseMs } from '../../../core/timing/saving';
import { ApiProblem } from '../../api/client';
import { retryAfterMs } from '../../api/retryAfterMs';
import type { DeviceBatch, DeviceJournal } from './deviceJournal';

export type SavedState =
  /** In a rehearsal: it stays on this page. */
  | { readonly state: 'not saved' }
  | { readonly state: 'saved'; readonly at: number | null }
  /** On the device, and sent with what follows within some seconds. */
  | { readonly state: 'noted' }
  /** `slow`: it takes longer than people would think nothing of. */
  | { readonly state: 'saving'; readonly slow: boolean }
  | { readonly state: 'kept'; readonly since: number };

/** Changes are gathered for as long as they merge into one entry. */
const CALM_MS = 1000;
/** Where the server has said nothing yet. */
const FIRST_WAIT_MS = CALM_MS;
/** So often the desk says that it is there, where nothing else was sent and the server is not busy; the answer also puts the clock right. */
const BEAT_MS = 9000;
/** How much sooner than it may the desk says that it is there. */
const BEFORE_MS = 1500;
/** A save that takes longer is told, so that nobody thinks it is lost. */
const SLOW_MS = 5000;
/** From an end until the grace is over: heads count only so long. */
const LAST_RETRY_AT_END_MS = 4000;

/** What the sender needs of a journal. */
export type SendableJournal = Pick<DeviceJournal, 'batch' | 'acknowledge' | 'smaller' | 'onWritten'> & {
  readonly waiting: number;
};

/** What else than waiting can be done about a refusal. */
export type Remedy = 'open the link' | 'fresh hold';

export interface SenderShell {
  readonly journal: SendableJournal;
  readonly send: (batch: DeviceBatch, leaving: boolean) => Promise<JournalKept>;
  readonly now: () => number;
  readonly onState: (state: SavedState) => void;
  readonly onKept: (kept: JournalKept) => void;
  /** Does what a refusal asks for; after it the sender tries again, not before its back-off. */
  readonly onRemedy: (remedy: Remedy) => Promise<void>;
  /** There is no sitting of this candidate any more. */
  readonly onGone: () => void;
  /** Time left until the end; null where the clock stands still. */
  readonly leftMs: () => number | null;
  /** Whether an end has come: then it is tried again sooner. */
  readonly atEnd: () => boolean;
}

/** The wait before the next try, as it is from an end until its grace is over. */
export const retryAtEndMs = (failures: number, random: number): number =>
  retryAfterMs(failures, random, LAST_RETRY_AT_END_MS);

/** The planned answer to a refusal of the API; null where only waiting helps. */
export function remedyFor(problem: ApiProblem): Remedy | 'gone' | 'smaller' | null {
  if (problem.status === 401 || problem.status === 403) return 'open the link';
  if (problem.status === 413) return 'smaller';
  if (problem.status === 409) return problem.code === 'no-sitting' ? 'gone' : 'fresh hold';
  if (problem.status === 400 || problem.status === 422) return 'fresh hold';
  return null;
}

/** Sends what the device's journal holds, in its order, until the server has said that all of it is durable. */
export class Sender {
  readonly shell: SenderShell;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private sending: Promise<boolean> | null = null;
  private failures = 0;
  private since: number | null = null;
  private stopped = false;
  /** How long the server lets the device wait from one request to the next save. */
  private waitMs = FIRST_WAIT_MS;
  private sentAt = -Infinity;
  private savedAt = -Infinity;
  private beat: ReturnType<typeof setTimeout> | null = null;

  constructor(shell: SenderShell) {
    this.shell = shell;
    shell.journal.onWritten = () => this.soon(this.pauseMs());
  }

  /** How long what was just written waits for what follows it: a busy server is spared every request. */
  private pauseMs(): number {
    const from = this.waitMs > SAVE_MS ? this.sentAt : this.savedAt;
    const due = from + savePauseMs(this.waitMs, this.shell.leftMs());
    return Math.max(CALM_MS, due - performance.now());
  }

  /**
   * Sends everything now, at least a head; resolves when nothing waits any more (true), or when an attempt has failed
   * (false): then it is tried again by itself, later and later.
   */
  flush(leaving = false): Promise<boolean> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.sending ??= this.sendAll(leaving).finally(() => (this.sending = null));
    return this.sending;
  }

  /** The network is back: no need to wait. */
  wake(): void {
    this.failures = 0;
    void this.flush();
  }

  stop(): void {
    this.stopped = true;
    if (this.timer) clearTimeout(this.timer);
    if (this.beat) clearTimeout(this.beat);
  }

  /** Says that the device is there where nothing else does, as late as the server allows. */
  private beatLater(): void {
    if (this.beat) clearTimeout(this.beat);
    if (this.stopped) return;
    this.beat = setTimeout(() => void this.flush(), Math.max(BEAT_MS, this.waitMs - BEFORE_MS));
  }

  private soon(ms: number): void {
    if (this.stopped) return;
    if (this.since === null)
      this.shell.onState(ms > CALM_MS ? { state: 'noted' } : { state: 'saving', slow: false });
    this.timer ??= setTimeout(() => void this.flush(), ms);
  }

  /** Sends one batch; where that takes long it is told. */
  private async sendOne(batch: DeviceBatch, leaving: boolean): Promise<JournalKept> {
    const slow = setTimeout(() => {
      if (this.since === null && batch.entries.length > 0)
        this.shell.onState({ state: 'saving', slow: true });
    }, SLOW_MS);
    this.sentAt = performance.now();
    if (batch.entries.length > 0) this.savedAt = this.sentAt;
    try {
      const kept = await this.shell.send(batch, leaving);
      this.waitMs = kept.nextSaveMs;
      return kept;
    } finally {
      clearTimeout(slow);
      this.beatLater();
    }
  }

  private async sendAll(leaving: boolean): Promise<boolean> {
    const { journal, onState, onKept, now } = this.shell;
    try {
      for (;;) {
        const batch = await journal.batch();
        const before = journal.waiting;
        if (batch.entries.length > 0 && this.since === null) onState({ state: 'saving', slow: false });
        const kept = await this.sendOne(batch, leaving);
        journal.acknowledge(kept.held, kept.now);
        onKept(kept);
        if (kept.renew || kept.refused.some((r) => r.code !== 'foreign')) {
          await this.shell.onRemedy('fresh hold');
          return this.later();
        }
        // A server that has moved by nothing is not asked again at once.
        if (journal.waiting > 0 && journal.waiting >= before && batch.entries.length > 0) return this.later();
        [this.failures, this.since] = [0, null];
        if (journal.waiting > 0) continue;
        onState({ state: 'saved', at: now() });
        return true;
      }
    } catch (error) {
      return this.failed(error);
    }
  }

  private async failed(error: unknown): Promise<boolean> {
    const { journal, onGone, onRemedy } = this.shell;
    const remedy = error instanceof ApiProblem ? remedyFor(error) : null;
    if (remedy === 'gone') {
      onGone();
      return false;
    }
    if (remedy === 'smaller') {
      // One entry that is too long for whoever is on the way: its value goes again as a whole, in a fresh hold.
      if (!journal.smaller()) await onRemedy('fresh hold').catch(() => undefined);
    } else if (remedy) await onRemedy(remedy).catch(() => undefined);
    return this.later();
  }

  private later(): false {
    const { onState, now, atEnd, journal } = this.shell;
    this.failures++;
    if (journal.waiting > 0) {
      this.since ??= now();
      onState({ state: 'kept', since: this.since });
    }
    const wait = atEnd() ? retryAtEndMs : retryAfterMs;
    if (journal.waiting > 0 || atEnd()) {
      if (!this.stopped)
        this.timer ??= setTimeout(() => void this.flush(), wait(this.failures, Math.random()));
    }
    return false;
  }
}
