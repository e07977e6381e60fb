import type { JournalKept } from '../../../core/sittings/api';
import { ApiProblem } from '../../api/client';
import type { DeviceJournal } from './deviceJournal';
import type { StoredEntry } from './deviceStore';

export type SavedState =
  | { readonly state: 'saved'; readonly at: number | null }
  | { readonly state: 'saving' }
  | { readonly state: 'kept'; readonly since: number };

const BATCH = 200;
const CALM_MS = 700;
const FIRST_RETRY_MS = 1000;
const LAST_RETRY_MS = 15_000;

/** What the sender needs of a journal. */
export type SendableJournal = Pick<DeviceJournal, 'unsent' | 'acknowledge' | 'drop' | 'count' | 'onWritten'>;

export interface SenderShell {
  readonly journal: SendableJournal;
  readonly send: (entries: readonly StoredEntry[], leaving: boolean) => Promise<JournalKept>;
  readonly now: () => number;
  readonly onState: (state: SavedState) => void;
  readonly onKept: (kept: JournalKept) => void;
  /** The server no longer takes entries for this sitting. */
  readonly onClosed: () => void;
}

/** Double the wait at each failure, up to 15 s, and spread by half, so that a hall does not come back at one moment. */
export const retryAfterMs = (failures: number, random: number): number =>
  Math.min(LAST_RETRY_MS, FIRST_RETRY_MS * 2 ** (failures - 1)) * (0.75 + random / 2);

/** Sends what the device's journal holds, in its order, until the server has said that all of it is durable. */
export class Sender {
  readonly shell: SenderShell;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private sending: Promise<void> | null = null;
  private failures = 0;
  private since: number | null = null;
  private stopped = false;

  constructor(shell: SenderShell) {
    this.shell = shell;
    shell.journal.onWritten = () => this.soon(CALM_MS);
  }

  /** Sends everything now; resolves when nothing waits any more, or when an attempt has failed. */
  flush(leaving = false): Promise<void> {
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

  private async sendAll(leaving: boolean): Promise<void> {
    const { journal, onState, onKept, now } = this.shell;
    try {
      for (let batch = await journal.unsent(BATCH); batch.length > 0; batch = await journal.unsent(BATCH)) {
        const kept = await this.shell.send(batch, leaving);
        await journal.acknowledge(batch);
        this.failures = 0;
        this.since = null;
        onKept(kept);
        onState({ state: 'saved', at: now() });
      }
    } catch (error) {
      await this.failed(error);
    }
  }

  private async failed(error: unknown): Promise<void> {
    const { journal, onClosed, onState, now } = this.shell;
    if (error instanceof ApiProblem && error.status === 422) {
      await this.dropRefused(error);
      this.soon(0);
      return;
    }
    if (error instanceof ApiProblem && (error.code === 'no-sitting' || error.code === 'link-needed')) {
      onClosed();
      return;
    }
    if ((await journal.count()) === 0) return;
    this.since ??= now();
    this.failures++;
    onState({ state: 'kept', since: this.since });
    this.soon(retryAfterMs(this.failures, Math.random()));
  }

  /** Entries that the server cannot read would block all that follow; only they are left out. */
  private async dropRefused(problem: ApiProblem): Promise<void> {
    const { refused } = problem.details as { refused: { device: string; seq: number }[] };
    const waiting = await this.shell.journal.unsent(BATCH);
    await this.shell.journal.drop(
      waiting.filter((e) => refused.some((r) => r.device === e.device && r.seq === e.seq)),
    );
  }
}
