import { forgetEditorStates } from '../ui/editorStates';
import type { PhoneOpened } from '../../core/files/phone';
import type { LiveView } from '../../core/live/api';
import type { SealedSection } from '../../core/papers/candidatePaper';
import type {
  AnswerVersion,
  EnterReply,
  HandInReply,
  HoldReply,
  JournalKept,
  PlayReply,
  SealedListing,
  TimeView,
} from '../../core/sittings/api';
import { ApiProblem, get, post, problem } from '../api/client';
import { openLink } from '../api/openLink';
import { LiveLine } from '../live/liveLine';
import type { PageBox } from '../pages/pageBox';
import type { DeskBackend, DeskEvents, DeskHelp, HandInOutcome } from './backend';
import { loadDirections } from './directions';
import type { DeskFiles } from './deskFiles';
import type { DeviceBatch, DeviceJournal, NotedChange } from './journal/deviceJournal';
import {
  dropHandIn,
  forgetSitting,
  keepHandIn,
  keepKeys,
  keepMoment,
  keepSitting,
  storedHandIn,
  storedSitting,
  storeName,
} from './journal/deviceStore';
import { sendOldHolds } from './journal/oldHolds';
import { Sender, type Remedy } from './journal/sender';
import { openSection } from './sealedPaper';
import type { ServerClock } from './serverClock';
import type { TabLock } from './tabLock';

const CLOCK_APART_MS = 2000;
/** A request that takes longer is given up and made again. */
const PATIENCE_MS = 20_000;

export interface SittingParts {
  readonly link: string;
  readonly sitting: string;
  /** The name of this page, made up when it was loaded. */
  readonly opening: string;
  readonly sealed: readonly SealedListing[];
  readonly files: DeskFiles;
  readonly pages: PageBox | null;
  readonly journal: DeviceJournal;
  readonly clock: ServerClock;
  readonly lock: TabLock;
}

const unreachable = (error: unknown) =>
  !(error instanceof ApiProblem) || error.status === 0 || error.status === 429 || error.status >= 500;

/** A sitting: every change is journalled on the device, sent in batches, and acknowledged when it is durable. */
export class SittingBackend implements DeskBackend {
  private readonly parts: SittingParts;
  private readonly sender: Sender;
  private events: DeskEvents | null = null;
  private ended = false;
  /** Handed in and complete: nothing is kept on this device any more. */
  private over = false;
  private elsewhere = false;
  private time: TimeView | null = null;
  private renewing: Promise<void> | null = null;

  constructor(parts: SittingParts) {
    this.parts = parts;
    const { journal, clock } = parts;
    this.sender = new Sender({
      journal,
      now: () => clock.now(),
      send: (batch, leaving) => this.sendBatch(batch, leaving),
      onState: (saved) => this.events?.onSaved(saved),
      onKept: (kept) => this.heard(kept),
      onRemedy: (remedy) => this.remedy(remedy),
      onGone: () => this.events?.onGone(),
      leftMs: () => this.leftMs(),
      atEnd: () => this.ended,
    });
    journal.onTrouble = (trouble) => this.events?.onTrouble(trouble);
    void parts.lock.lost.then(() => this.lose());
  }

  begin(events: DeskEvents): () => void {
    this.events = events;
    const line = new LiveLine<LiveView>('/live', (view) => this.seen(view));
    const leave = () => void this.leave();
    const hidden = () => document.visibilityState === 'hidden' && leave();
    const online = () => this.sender.wake();
    window.addEventListener('pagehide', leave);
    window.addEventListener('online', online);
    document.addEventListener('visibilitychange', hidden);
    this.sender.wake();
    void this.parts.pages?.begin();
    void sendOldHolds(this.parts.sitting, this.parts.journal.hold, this.parts.opening);
    return () => {
      line.end();
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('online', online);
      document.removeEventListener('visibilitychange', hidden);
      leave();
      this.sender.stop();
      this.parts.lock.release();
    };
  }

  note = (change: NotedChange): void => this.parts.journal.note(change);
  /** What was held back goes at once: no wait goes across a question that is left, or a stop. */
  settle = (): void => void this.parts.journal.settle().then(() => this.sender.flush());

  async handIn(by: 'candidate' | 'time'): Promise<HandInOutcome> {
    const { sitting, journal, clock } = this.parts;
    this.ended = true;
    await journal.settle();
    // One that waits already keeps its own time.
    const waiting = await storedHandIn(sitting);
    const handIn = waiting ?? { sitting, by, claimedAt: Math.round(clock.now()) };
    if (!waiting) await keepHandIn(handIn);
    try {
      return await this.deliver(handIn);
    } catch (error) {
      if (unreachable(error)) return { queuedAt: handIn.claimedAt };
      if (error instanceof ApiProblem && [401, 403].includes(error.status)) {
        await this.remedy('open the link').catch(() => undefined);
        return { queuedAt: handIn.claimedAt };
      }
      if (error instanceof ApiProblem && error.code === 'hold-unknown') {
        await this.remedy('fresh hold').catch(() => undefined);
        return { queuedAt: handIn.claimedAt };
      }
      await dropHandIn(sitting);
      throw error;
    }
  }

  async enter(section: string): Promise<SealedSection> {
    const { journal, sealed, link, files } = this.parts;
    await journal.settle();
    const reply = await this.ask<EnterReply>('/sitting/enter', await journal.batch(), { section });
    this.take(reply);
    await keepKeys(link, reply.keys);
    files.takeKeys(reply.keys.media);
    const opened = await openSection(sealed, section, reply.keys.paper[section]!);
    // The key is confirmed by the next head: it names a time after the entering.
    void this.sender.flush();
    return opened;
  }

  readonly directions = () => loadDirections(this.parts.sitting);

  readonly help: DeskHelp = {
    say: (text, hand) => post<LiveView>('/live/say', { text, hand }),
    takeBreak: async () => {
      await this.parts.journal.settle();
      this.take(await this.ask<JournalKept>('/sitting/break', await this.parts.journal.batch()));
      this.parts.journal.wholeNext();
    },
    endBreak: () => post<LiveView>('/live/break-over'),
    takeOver: () => this.takeOver(),
    goOn: () => this.goOn(),
    joinPhone: async (target) => {
      const { secret, code } = await post<PhoneOpened>('/sitting/phone', { target });
      const { origin, host } = window.location;
      return { address: `${origin}/p#${secret}`, typed: `${host}/p`, code };
    },
    endPhone: async () => void (await post('/sitting/phone/end')),
    play: async (file) => {
      const { journal } = this.parts;
      await journal.settle();
      const reply = await this.ask<PlayReply>('/sitting/play', await journal.batch(), { file });
      this.take(reply);
      return reply;
    },
    returnPlay: async (file) =>
      this.take(
        await this.ask<JournalKept>('/sitting/play/return', await this.parts.journal.batch(), { file }),
      ),
    versions: (target) => get<AnswerVersion[]>(`/sitting/versions/${target}`),
  };

  private async deliver({ sitting, by, claimedAt }: { sitting: string; by: string; claimedAt: number }) {
    const { journal, link, clock } = this.parts;
    // The head names all that was written; what does not fit into this request follows.
    const hand = async () => {
      const reply = await this.ask<HandInReply>('/sitting/hand-in', await journal.batch(), { by, claimedAt });
      this.take(reply);
      return reply;
    };
    let reply = await hand();
    if (!reply.closed) {
      this.ended = false;
      await dropHandIn(sitting);
      return { notYetMs: Math.max(0, reply.time.deadlineAt - clock.now()) };
    }
    if (!reply.receipt) {
      if (!(await this.sender.flush())) return { queuedAt: claimedAt };
      reply = await hand();
    }
    if (!reply.receipt) return { queuedAt: claimedAt };
    // One more round trip shows that nothing else can come: a time after the closing is named, all is here.
    await this.ask<JournalKept>('/sitting/journal', await journal.batch()).catch(() => undefined);
    this.sender.stop();
    this.over = true;
    journal.forget();
    forgetEditorStates();
    this.parts.files.close();
    this.parts.pages?.end();
    await dropHandIn(sitting);
    await forgetSitting(link, journal.waiting === 0);
    return { done: reply.receipt };
  }

  private sendBatch(batch: DeviceBatch, leaving: boolean): Promise<JournalKept> {
    return this.ask<JournalKept>('/sitting/journal', batch, {}, { keepalive: leaving });
  }

  private ask<T extends JournalKept>(
    path: string,
    batch: DeviceBatch,
    more: object = {},
    init: RequestInit = {},
  ): Promise<T> {
    const { clock, opening } = this.parts;
    const signal = AbortSignal.timeout(PATIENCE_MS);
    return clock.learn(() => post<T>(path, { ...batch, opening, ...more }, { signal, ...init }));
  }

  private take(kept: JournalKept): void {
    this.parts.journal.acknowledge(kept.held, kept.now);
    this.heard(kept);
  }

  private heard({ time, now, closed, current, otherVersions }: JournalKept): void {
    const { sitting } = this.parts;
    if (!this.over) void keepMoment({ sitting, serverAt: now, deviceAt: Date.now(), time });
    this.learn(time);
    this.events?.onOtherVersions(otherVersions);
    if (closed) this.events?.onClosed();
    else if (!current && !this.renewing) this.lose();
  }

  private learn(time: TimeView): void {
    const stops = time.stopped !== null && this.time?.stopped === null;
    this.time = time;
    if (stops) this.settle();
    this.events?.onTime(time);
  }

  private leftMs(): number | null {
    if (this.time === null || this.time.stopped !== null) return null;
    return this.time.deadlineAt - this.parts.clock.now();
  }

  private seen(view: LiveView): void {
    const { clock, journal } = this.parts;
    if (Math.abs(view.now - clock.now()) > CLOCK_APART_MS) void this.sender.flush();
    journal.heard = Math.max(journal.heard, view.now);
    if (view.time) this.learn(view.time);
    if (view.pages) this.parts.pages?.takeStates(view.pages.states);
    this.events?.onLive(view);
    if (view.hold !== null && view.hold > journal.hold && !this.renewing) this.lose();
    if (view.stage.at !== 'running') this.events?.onClosed();
  }

  /** Another device or tab writes now: what is here is still delivered, and nothing is added. */
  private lose(): void {
    if (this.elsewhere) return;
    this.elsewhere = true;
    this.parts.journal.stop();
    this.events?.onElsewhere();
    void this.sender.flush();
  }

  private async remedy(remedy: Remedy): Promise<void> {
    if (remedy === 'open the link') await openLink(this.parts.link);
    else await (this.renewing ??= this.renew().finally(() => (this.renewing = null)));
  }

  /** A fresh hold for this store, with whole values of all that is here and not there. */
  private async renew(): Promise<void> {
    if (this.elsewhere) return;
    const { journal, link, opening, sitting } = this.parts;
    const asked = { store: await storeName(), opening, takeOver: true };
    const reply = await post<HoldReply>('/sitting/hold', asked);
    const stored = await storedSitting(link);
    if (!reply.granted || !stored) return;
    if (reply.opened.sitting !== sitting) {
      // Another attempt of this candidate: nothing of this one belongs there.
      await forgetSitting(link, false);
      this.events?.onGone();
      return;
    }
    const { hold, keys, desk, now } = reply.opened;
    await keepSitting({ ...stored, hold, keys, base: desk }, now, journal.renew(hold, desk));
  }

  private async takeOver(): Promise<void> {
    const { link, opening, journal } = this.parts;
    await this.sender.flush();
    const asked = { store: await storeName(), opening, takeOver: true };
    const reply = await post<HoldReply>('/sitting/hold', asked);
    const stored = await storedSitting(link);
    if (!reply.granted || !stored) throw problem('notTakenOver');
    const { hold, keys, desk, now } = reply.opened;
    if (hold.hold !== journal.hold) await keepSitting({ ...stored, hold, keys, base: desk }, now, []);
  }

  /** Names a server time after the stop in a head, and waits until the server has it. */
  private async goOn(): Promise<void> {
    const { journal } = this.parts;
    journal.wholeNext();
    this.take(await this.ask<JournalKept>('/sitting/journal', await journal.batch()));
    this.take(await this.ask<JournalKept>('/sitting/journal', await journal.batch()));
  }

  private async leave(): Promise<void> {
    this.parts.journal.leaveBehind();
    await this.parts.journal.settle();
    await this.sender.flush(true);
  }
}
