import type { Entry } from '../../core/journal/entry';
import { HoldWriter } from '../../core/journal/holdWriter';
import type {
  HandInReply,
  HoldReply,
  JournalKept,
  PlayReply,
  Prepared,
  SittingOpened,
} from '../../core/sittings/api';
import type { Clock } from '../machine/clock';
import { sha256 } from '../secrets';
import type { Answered, ApiClient } from './ApiClient';

interface Refusal {
  readonly code: string;
  readonly message: string;
}

let made = 0;

/** A candidate's device without a browser: keeps its entries, numbers and chains them, and says how far it has come. */
export class TestDevice {
  readonly client: ApiClient;
  opened: SittingOpened;
  writer: HoldWriter;
  readonly entries: Entry[] = [];
  readonly opening = `opening-${++made}`;
  readonly store = `store-number-${made}`;
  heard: number;
  private sent = 0;
  private readonly clock: Clock;

  private constructor(client: ApiClient, clock: Clock, opened: SittingOpened | null) {
    [this.client, this.clock, this.opened] = [client, clock, opened!];
    this.writer = new HoldWriter(opened?.hold ?? { hold: 1, token: '' }, sha256);
    this.heard = opened?.now ?? 0;
  }

  /** Prepares and starts the sitting of a client who is at the cover page. */
  static async start(client: ApiClient, clock: Clock): Promise<TestDevice> {
    const device = new TestDevice(client, clock, null);
    const { body: prepared } = await client.post<Prepared>('/sitting/prepare');
    const { store, opening } = device;
    const sealed = [...prepared.sealed, ...prepared.media].map((copy) => copy.hash);
    const { body } = await client.post<HoldReply>('/sitting/start', {
      store,
      opening,
      takeOver: false,
      sealed,
    });
    if (!body.granted) throw new Error(`not started: ${JSON.stringify(body)}`);
    return device.take(body.opened);
  }

  /** Another device of the same candidate; `null` where the desk is held and not taken over. */
  static async open(client: ApiClient, clock: Clock, takeOver = true): Promise<TestDevice | null> {
    const device = new TestDevice(client, clock, null);
    const { store, opening } = device;
    const { body } = await client.post<HoldReply>('/sitting/hold', { store, opening, takeOver });
    return body.granted ? device.take(body.opened) : null;
  }

  private take(opened: SittingOpened): this {
    this.opened = opened;
    this.writer = new HoldWriter(opened.hold, sha256);
    this.heard = opened.now;
    return this;
  }

  /** Writes on the device, and sends nothing. */
  write(target: string, value: unknown, more: Partial<Entry> = {}): Entry {
    const about = 'answer' as const;
    const entry = this.writer.append({ about, target, value, at: this.clock.now(), ...more });
    this.entries.push(entry);
    return entry;
  }

  head() {
    return this.writer.head(this.heard);
  }

  /** What has not been sent yet, with the head; `entries` and `head` may be made up. */
  batch(more: object = {}) {
    const entries = this.entries.slice(this.sent);
    return { head: this.head(), opening: this.opening, entries, ...more };
  }

  async save(more: object = {}): Promise<Answered<JournalKept & Refusal>> {
    return this.deliver(await this.client.post('/sitting/journal', this.batch(more)));
  }

  async handIn(
    by: 'candidate' | 'time' = 'candidate',
    more: object = {},
  ): Promise<Answered<HandInReply & Refusal>> {
    const body = { ...this.batch(), by, claimedAt: this.clock.now(), ...more };
    return this.deliver(await this.client.post('/sitting/hand-in', body));
  }

  /** Hands in, and shows with one more request that nothing else can come: the usual way. */
  async finish(): Promise<HandInReply> {
    const { body } = await this.handIn();
    await this.save();
    return body;
  }

  async answer(target: string, value: unknown): Promise<Answered<JournalKept & Refusal>> {
    this.write(target, value);
    return this.save();
  }

  /** Asks for a play of a recording, with what has not been sent yet. */
  async play(file: string, more: object = {}): Promise<Answered<PlayReply & Refusal>> {
    return this.deliver(await this.client.post('/sitting/play', { ...this.batch(), file, ...more }));
  }

  /** Gives back a play that was held ready, after the desk was lost. */
  async returnPlay(file: string): Promise<Answered<JournalKept & Refusal>> {
    return this.deliver(await this.client.post('/sitting/play/return', { ...this.batch(), file }));
  }

  private deliver<T extends Partial<JournalKept>>(answered: Answered<T>): Answered<T> {
    if (answered.status === 200) {
      this.heard = Math.max(this.heard, answered.body.now ?? 0);
      this.sent = this.entries.length;
    }
    return answered;
  }
}
