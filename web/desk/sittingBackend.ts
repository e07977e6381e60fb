import type { LiveView } from '../../core/live/api';
import type { JournalKept, Receipt } from '../../core/sittings/api';
import { ApiProblem, post } from '../api/client';
import { LiveLine } from '../live/liveLine';
import type { DeskBackend, DeskEvents, HandInOutcome } from './backend';
import type { DeviceJournal } from './journal/deviceJournal';
import {
  dropHandIn,
  forgetSitting,
  storeHandIn,
  storeMoment,
  storedHandIn,
  type StoredEntry,
  type StoredHandIn,
} from './journal/deviceStore';
import { Sender } from './journal/sender';
import type { ServerClock } from './serverClock';

/** So often the desk says that it is there, where nothing else was sent; the answer also puts the clock right. */
const BEAT_MS = 10_000;
const CLOCK_APART_MS = 2000;

export interface SittingParts {
  readonly link: string;
  readonly sitting: string;
  readonly opening: string;
  readonly journal: DeviceJournal;
  readonly clock: ServerClock;
}

const onTheWire = ({ device, seq, about, target, value, at }: StoredEntry) => ({
  ...{ device, seq, about, target, value, at },
});

const unreachable = (error: unknown) =>
  !(error instanceof ApiProblem) || error.status === 0 || error.status >= 500;

/** A sitting: every change is journalled on the device, sent in batches, and acknowledged when it is durable. */
export class SittingBackend implements DeskBackend {
  private readonly parts: SittingParts;
  private readonly sender: Sender;
  private events: DeskEvents | null = null;

  constructor(parts: SittingParts) {
    this.parts = parts;
    const { journal, clock } = parts;
    this.sender = new Sender({
      journal,
      now: () => clock.now(),
      send: (entries, leaving) => this.send(entries, leaving),
      onState: (saved) => this.events?.onSaved(saved),
      onKept: (kept) => this.heard(kept),
      onClosed: () => this.events?.onClosed(),
    });
    journal.onTrouble = () => this.events?.onTrouble();
  }

  begin(events: DeskEvents): () => void {
    this.events = events;
    const line = new LiveLine<LiveView>('/live', (view) => this.seen(view));
    const beat = setInterval(() => void this.beat(), BEAT_MS);
    const leave = () => void this.leave();
    const hidden = () => document.visibilityState === 'hidden' && leave();
    const online = () => this.sender.wake();
    window.addEventListener('pagehide', leave);
    window.addEventListener('online', online);
    document.addEventListener('visibilitychange', hidden);
    this.sender.wake();
    return () => {
      clearInterval(beat);
      line.end();
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('online', online);
      document.removeEventListener('visibilitychange', hidden);
      leave();
      this.sender.stop();
    };
  }

  note = (change: Parameters<DeviceJournal['note']>[0]): void => this.parts.journal.note(change);

  async handIn(by: 'candidate' | 'time'): Promise<HandInOutcome> {
    const { sitting, journal, clock } = this.parts;
    await journal.settle();
    // One that waits already keeps its true time.
    const waiting = await storedHandIn(sitting);
    const handIn = waiting ?? { sitting, by, at: Math.round(clock.now()) };
    if (!waiting) await storeHandIn(handIn);
    try {
      return await this.deliver(handIn);
    } catch (error) {
      if (unreachable(error)) return { queuedAt: handIn.at };
      await dropHandIn(sitting);
      throw error;
    }
  }

  readonly help = {
    say: (text: string, hand: boolean) => post<LiveView>('/live/say', { text, hand }),
    takeBreak: () => post<LiveView>('/live/break'),
    endBreak: () => post<LiveView>('/live/break-over'),
    takeOver: async () => {
      await post('/sitting/hold', { opening: this.parts.opening, takeOver: true });
    },
  };

  private async deliver({ sitting, by, at }: StoredHandIn): Promise<HandInOutcome> {
    const { journal, link } = this.parts;
    await this.sender.flush();
    const entries = (await journal.unsent(500)).map(onTheWire);
    try {
      const done = await post<Receipt>('/sitting/hand-in', { entries, by, at });
      this.sender.stop();
      await dropHandIn(sitting);
      await forgetSitting(link);
      return { done };
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.code !== 'not-yet') throw error;
      await dropHandIn(sitting);
      await this.beat();
      return { notYet: true };
    }
  }

  private send(entries: readonly StoredEntry[], leaving: boolean): Promise<JournalKept> {
    const body = { entries: entries.map(onTheWire) };
    return this.parts.clock.learn(() => post<JournalKept>('/sitting/journal', body, { keepalive: leaving }));
  }

  /** Says that the desk is there, and learns the time. */
  private async beat(): Promise<void> {
    try {
      this.heard(await this.send([], false));
    } catch {
      // The sender says so where it matters: when an answer cannot be delivered.
    }
  }

  private heard({ time, now, closed }: JournalKept): void {
    void storeMoment(this.parts.link, { serverAt: now, deviceAt: Date.now() });
    this.events?.onTime(time);
    if (closed) this.events?.onClosed();
  }

  private seen(view: LiveView): void {
    const { clock } = this.parts;
    if (Math.abs(view.now - clock.now()) > CLOCK_APART_MS) void this.beat();
    if (view.time) this.events?.onTime(view.time);
    this.events?.onLive(view);
    if (view.holder !== null && view.holder !== this.parts.opening) this.events?.onElsewhere();
    if (view.stage.at !== 'running') this.events?.onClosed();
  }

  private async leave(): Promise<void> {
    this.parts.journal.leaveBehind();
    await this.parts.journal.settle();
    await this.sender.flush(true);
  }
}
