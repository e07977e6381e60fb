import type { Entry } from '../../core/journal/entry';
import { HoldWriter } from '../../core/journal/holdWriter';
import type { Random } from '../../core/random';
import type { HandInReply, HoldReply, JournalKept } from '../../core/sittings/api';
import { sha256 } from '../../server/secrets';
import type { Caller } from './SimulatedDesk';

/**
 * A candidate's client that lies: about times, heads and numbers, with entries withheld, doubled, altered and malformed.
 * It must neither break the server nor harm anybody else.
 */
export class LyingDesk {
  private readonly caller: Caller;
  private readonly random: Random;
  private readonly entries: Entry[] = [];
  private writer: HoldWriter | null = null;

  constructor(caller: Caller, random: Random) {
    [this.caller, this.random] = [caller, random];
  }

  private one<T>(all: readonly T[]): T {
    return all[Math.floor(this.random() * all.length)]!;
  }

  /** One request, whatever it comes to. */
  async act(): Promise<void> {
    try {
      if (!this.writer || this.random() < 0.02) await this.open();
      for (let n = this.random() * 3; n > 0; n--) this.write();
      await this.caller.post<JournalKept>('/sitting/journal', this.lie());
    } catch {
      // Refused or cut: it goes on lying.
    }
  }

  async finish(): Promise<void> {
    // Its last hold may be one that the restored server never granted.
    const head = (await this.open()).head(0);
    await this.caller.until<HandInReply>('/sitting/hand-in', {
      head,
      opening: 'a-lying-page',
      entries: [],
      by: 'candidate',
      claimedAt: Date.now(),
    });
  }

  private async open(): Promise<HoldWriter> {
    const asked = {
      store: `a-store-${Math.floor(this.random() * 3)}`,
      opening: 'a-lying-page',
      takeOver: true,
    };
    const reply = await this.caller.until<HoldReply>('/sitting/hold', asked);
    if (!reply.granted) throw new Error('no hold');
    this.entries.length = 0;
    this.writer = new HoldWriter(reply.opened.hold, sha256);
    return this.writer;
  }

  private write(): void {
    const responses = [{ typed: '7' }, { typed: '8' }, { chosen: ['no'] }];
    const stored = responses.map((response) => ({ version: 1, response }));
    const value = this.one<unknown>([...stored, { version: 9, response: {} }, null, [[[]]]]);
    const target = this.one(['reading-the-dial/A', 'moisture/A', 'incident-note/A', 'nowhere/A']);
    const at = Math.floor(this.random() * 2e12);
    this.entries.push(this.writer!.append({ about: 'answer', target, at, value }));
  }

  private lie(): object {
    const head = this.writer!.head(Math.floor(this.random() * 2e12));
    const sent: unknown[] = this.entries.filter(() => this.random() < 0.5);
    if (this.random() < 0.1) sent.push({ ...this.one(this.entries), value: { typed: 'else' } });
    if (this.random() < 0.1) sent.push({ number: -1 }, null, 'nothing', { value: 'x'.repeat(300_000) });
    const patch = { base: { hold: 1, number: 1 }, place: 9e6, cut: 1, put: 'x', sum: '0'.repeat(16) };
    if (this.random() < 0.1) sent.push({ ...this.one(this.entries), value: undefined, patch });
    const told = this.random() < 0.2 ? { ...head, number: head.number + 3, chain: 'ab'.repeat(32) } : head;
    return { head: told, opening: 'a-lying-page', entries: sent };
  }
}
