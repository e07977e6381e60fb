import type { Random } from '../../core/random';
import type { JournalKept, Receipt } from '../../core/sittings/api';
import { ApiProblem } from '../../web/api/client';
import type { StoredEntry } from '../../web/desk/journal/deviceStore';
import { Sender, type SendableJournal } from '../../web/desk/journal/sender';

const HOURS_3 = 3 * 3_600_000;

/** The device's journal without a device: the same face, in memory. */
class MemoryJournal implements SendableJournal {
  readonly all: StoredEntry[] = [];
  private waiting: StoredEntry[] = [];
  onWritten: () => void = () => undefined;

  write(entry: StoredEntry): void {
    this.all.push(entry);
    this.waiting.push(entry);
    this.onWritten();
  }
  unsent = (most?: number) => Promise.resolve(this.waiting.slice(0, most));
  count = () => Promise.resolve(this.waiting.length);
  acknowledge = (entries: readonly StoredEntry[]) => this.drop(entries);
  drop(entries: readonly StoredEntry[]): Promise<void> {
    const gone = new Set(entries);
    this.waiting = this.waiting.filter((entry) => !gone.has(entry));
    return Promise.resolve();
  }
}

/** One candidate: types, and sends with the product's own sender; its clock jumps by hours now and then. */
export class SimulatedDesk {
  readonly device = crypto.randomUUID();
  readonly acknowledged = new Set<number>();
  readonly journal = new MemoryJournal();
  receipt: Receipt | null = null;
  refused = 0;
  private readonly url: string;
  private readonly cookie: string;
  private readonly random: Random;
  private readonly sender: Sender;
  private jump = 0;
  private text = '';

  constructor(url: string, cookie: string, random: Random) {
    [this.url, this.cookie, this.random] = [url, cookie, random];
    this.sender = new Sender({
      journal: this.journal,
      now: () => this.now(),
      send: (entries) => this.send(entries),
      onState: () => undefined,
      onKept: () => undefined,
      onClosed: () => undefined,
    });
  }

  /** One keystroke, as an entry. */
  type(): void {
    if (this.random() < 0.01) this.jump = [0, HOURS_3, -HOURS_3][Math.floor(this.random() * 3)]!;
    this.text += 'abcdefghij klmno'[Math.floor(this.random() * 16)]!;
    const paragraph = { type: 'paragraph', content: [{ type: 'text', text: this.text }] };
    this.journal.write({
      ...{ sitting: 'simulated', device: this.device, seq: this.journal.all.length + 1 },
      ...{
        about: 'answer',
        target: 'incident-note/A',
        value: { text: { type: 'doc', content: [paragraph] } },
      },
      at: this.now(),
    });
  }

  /** Until everything is delivered; then the hand-in, as often as it takes. */
  async finish(): Promise<void> {
    while ((await this.journal.count()) > 0) await this.sender.flush();
    this.sender.stop();
    while (!this.receipt)
      try {
        const body = { entries: [], by: 'candidate', at: this.now() };
        this.receipt = await this.post<Receipt>('/sitting/hand-in', body);
      } catch {
        await new Promise((again) => setTimeout(again, 50 + this.random() * 200));
      }
  }

  private now(): number {
    return Date.now() + this.jump;
  }

  private async send(entries: readonly StoredEntry[]): Promise<JournalKept> {
    const wire = entries.map(({ device, seq, about, target, value, at }) => ({
      ...{ device, seq, about, target, value, at },
    }));
    const kept = await this.post<JournalKept>('/sitting/journal', { entries: wire });
    for (const { seq } of entries) this.acknowledged.add(seq);
    return kept;
  }

  private async post<T>(path: string, body: object): Promise<T> {
    const response = await fetch(`${this.url}/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Cookie: this.cookie },
      body: JSON.stringify(body),
    });
    const answer = (await response.json()) as { code?: string; message?: string };
    if (response.ok) return answer as T;
    this.refused++;
    throw new ApiProblem(response.status, answer.code ?? 'unknown', answer.message ?? '', answer);
  }
}
