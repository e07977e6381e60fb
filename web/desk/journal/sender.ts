import type { JournalKept } from '../../../core/sittings/api';
import { ApiProblem } from '../../api/client';
import { retryAfterMs } from '../../api/retryAfterMs';
import type { DeviceBatch, DeviceJournal } from './deviceJournal';

export type SavedState =
  /** In a rehearsal: it stays on this page. */
  | { readonly state: 'not saved' }
  | { readonly state: 'saved'; readonly at: number | null }
  | { readonly state: 'saving' }
  | { readonly state: 'kept'; readonly since: number };

/** Changes are gathered for as long as they merge into one entry. */
const CALM_MS = 1000;
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

  constructor(shell: SenderShell) {
    this.shell = shell;
    shell.journal.onWritten = () => this.soon(CALM_MS);
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
  }

  private soon(ms: number): void {
    if (this.stopped) return;
    if (this.since === null) this.shell.onState({ state: 'saving' });
    this.timer ??= setTimeout(() => void this.flush(), ms);
  }

  private async sendAll(leaving: boolean): Promise<boolean> {
    const { journal, onState, onKept, now } = this.shell;
    try {
      for (;;) {
        const batch = await journal.batch();
        const before = journal.waiting;
        const kept = await this.shell.send(batch, leaving);
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
