import type { Random } from '../../core/random';
import { storeResponse } from '../../core/kinds/stored';
import { emptyDesk } from '../../core/journal/desk';
import type { HandInReply, HoldReply, JournalKept, Receipt, SittingOpened } from '../../core/sittings/api';
import { ApiProblem, problem } from '../../web/api/client';
import { DeviceJournal, type DeviceBatch } from '../../web/desk/journal/deviceJournal';
import { keepSitting } from '../../web/desk/journal/deviceStore';
import { Sender } from '../../web/desk/journal/sender';

const HOURS_3 = 3 * 3_600_000;
export const ESSAY = 'incident-note/A';

/** Talks to the server as a candidate; refusals are problems, as in the browser. */
export class Caller {
  refused = 0;
  /** Refusals that should never be: the server broke. */
  broken = 0;
  private readonly url: string;
  private readonly cookie: string;

  constructor(url: string, cookie: string) {
    [this.url, this.cookie] = [url, cookie];
  }

  async post<T>(path: string, body: object): Promise<T> {
    const response = await fetch(`${this.url}/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Cookie: this.cookie },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(20_000),
    });
    const answer: unknown = await response.json();
    if (response.ok) return answer as T;
    this.refused++;
    if (response.status === 500) this.broken++;
    throw new ApiProblem(response.status, answer as ConstructorParameters<typeof ApiProblem>[1]);
  }

  /** As often as it takes. */
  async until<T>(path: string, body: object): Promise<T> {
    for (;;)
      try {
        return await this.post<T>(path, body);
      } catch {
        await new Promise((again) => setTimeout(again, 100));
      }
  }
}

/**
 * One device of a candidate: types at an essay, and keeps and sends it with the product's own journal and sender; its
 * clock jumps by hours now and then.
 */
export class SimulatedDesk {
  readonly caller: Caller;
  readonly name: string;
  journal!: DeviceJournal;
  receipt: Receipt | null = null;
  /** Codes of all receipts that it was shown. */
  readonly shown: string[] = [];
  /** Numbers of the present hold that the server has said to hold. */
  held = 0;
  offline = false;
  renewals = 0;
  text: string;
  private readonly random: Random;
  private sender!: Sender;
  private jump = 0;
  sitting = '';

  constructor(caller: Caller, name: string, text: string, random: Random) {
    [this.caller, this.name, this.text, this.random] = [caller, name, text, random];
  }

  async open(): Promise<this> {
    const reply = await this.caller.until<HoldReply>('/sitting/hold', this.asking());
    if (!reply.granted) throw new Error('no hold was granted');
    this.sitting = reply.opened.sitting;
    this.journal = await DeviceJournal.open(this.stored(reply.opened), () => this.now());
    await keepSitting(this.stored(reply.opened), reply.opened.now);
    this.sender = new Sender({
      journal: this.journal,
      now: () => this.now(),
      send: (batch) => this.send(batch),
      onState: () => undefined,
      onKept: () => undefined,
      onRemedy: () => this.renew(),
      onGone: () => undefined,
      leftMs: () => null,
      atEnd: () => false,
    });
    return this;
  }

  private asking() {
    return { store: `store-${this.name}`, opening: `page-of-${this.name}`, takeOver: true };
  }

  private stored({ sitting, sealed, media, keys, hold, plays }: SittingOpened) {
    const own = { link: this.name, sitting: `${sitting} ${this.name}`, sealed, media, keys, hold, plays };
    return { ...own, base: emptyDesk };
  }

  /** One keystroke, at the end or somewhere within. */
  type(): void {
    if (this.random() < 0.01) this.jump = [0, HOURS_3, -HOURS_3][Math.floor(this.random() * 3)]!;
    const at = this.random() < 0.2 ? Math.floor(this.random() * this.text.length) : this.text.length;
    const sign = 'abcdefghij klmno'[Math.floor(this.random() * 16)]!;
    this.text = this.text.slice(0, at) + sign + this.text.slice(at);
    const paragraph = { type: 'paragraph', content: [{ type: 'text', text: this.text }] };
    const value = storeResponse('writing', { text: { type: 'doc', content: [paragraph] } });
    this.journal.note({ about: 'answer', target: ESSAY, value });
  }

  /** Until everything is delivered. */
  async deliver(): Promise<void> {
    while (this.journal.waiting > 0) {
      await this.sender.flush();
      await new Promise((go) => setTimeout(go, 20));
    }
  }

  /** Delivers, and hands in as often as it takes; then shows that nothing else can come. */
  async finish(): Promise<void> {
    await this.deliver();
    this.sender.stop();
    while (!this.receipt)
      try {
        const batch = await this.journal.batch();
        const body = { ...batch, opening: this.asking().opening, by: 'candidate', claimedAt: Date.now() };
        const reply = await this.caller.post<HandInReply>('/sitting/hand-in', body);
        this.take(reply);
        this.receipt = reply.receipt;
        if (reply.receipt) this.shown.push(reply.receipt.code);
      } catch {
        await new Promise((again) => setTimeout(again, 50 + this.random() * 200));
      }
    await this.caller.until('/sitting/journal', {
      ...(await this.journal.batch()),
      opening: this.asking().opening,
    });
  }

  private now(): number {
    return Date.now() + this.jump;
  }

  private async send(batch: DeviceBatch): Promise<JournalKept> {
    if (this.offline) throw problem('unreachable');
    const kept = await this.caller.post<JournalKept>('/sitting/journal', {
      ...batch,
      opening: this.asking().opening,
    });
    this.held = kept.held;
    return kept;
  }

  private take(kept: JournalKept): void {
    this.held = kept.held;
    this.journal.acknowledge(kept.held, kept.now);
  }

  private async renew(): Promise<void> {
    const reply = await this.caller.post<HoldReply>('/sitting/hold', this.asking());
    if (!reply.granted) return;
    this.renewals++;
    this.held = 0;
    const { hold, desk, now } = reply.opened;
    await keepSitting(this.stored(reply.opened), now, this.journal.renew(hold, desk));
  }
}
