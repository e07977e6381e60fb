import Dexie, { type Table } from 'dexie';
import type { Entry } from '../../../core/journal/entry';

export interface StoredEntry extends Entry {
  readonly sitting: string;
  /** Counts up over all openings of the desk on this device, so that sending keeps their order. */
  readonly turn?: number;
}

class JournalDatabase extends Dexie {
  declare entries: Table<StoredEntry, number>;
  constructor() {
    super('clear-sitting-journal');
    this.version(1).stores({ entries: '++turn, sitting, &[sitting+device+seq]' });
  }
}

/** Changes to the same place within this time become one entry, the first of them at once. */
const CALM_MS = 300;

type Change = Pick<Entry, 'about' | 'target' | 'value'>;

/**
 * The journal on the device: every change is written to IndexedDB before anything is sent, under a running number of
 * this opening of the desk, and taken out only when the server says that it is durable.
 */
export class DeviceJournal {
  readonly sitting: string;
  private readonly device = crypto.randomUUID();
  private readonly db = new JournalDatabase();
  private readonly now: () => number;
  private seq = 0;
  private readonly waiting = new Map<string, { change: Change; timer: ReturnType<typeof setTimeout> }>();
  private writes: Promise<unknown> = Promise.resolve();
  /** Called when entries wait to be sent. */
  onWritten: () => void = () => undefined;
  /** Called when the device itself cannot keep an entry; what is typed is then only in memory. */
  onTrouble: (error: unknown) => void = () => undefined;

  constructor(sitting: string, now: () => number) {
    this.sitting = sitting;
    this.now = now;
  }

  note(change: Change): void {
    const place = `${change.about} ${change.target}`;
    const held = this.waiting.get(place);
    if (held) {
      held.change = change;
      return;
    }
    this.write(change);
    this.hold(place, change);
  }

  /** Writes what is still held back, for when the page goes away. Resolves when it is on the device. */
  async settle(): Promise<void> {
    for (const [place, { timer }] of [...this.waiting]) {
      clearTimeout(timer);
      this.release(place);
    }
    await this.writes;
  }

  unsent(most: number): Promise<StoredEntry[]> {
    return this.db.entries.where('sitting').equals(this.sitting).limit(most).sortBy('turn');
  }

  count(): Promise<number> {
    return this.db.entries.where('sitting').equals(this.sitting).count();
  }

  async remove(entries: readonly StoredEntry[]): Promise<void> {
    await this.db.entries.bulkDelete(entries.map((e) => e.turn!));
  }

  close(): void {
    this.db.close();
  }

  private hold(place: string, first: Change): void {
    const timer = setTimeout(() => this.release(place), CALM_MS);
    this.waiting.set(place, { change: first, timer });
    this.written.set(place, first);
  }

  private readonly written = new Map<string, Change>();

  private release(place: string): void {
    const held = this.waiting.get(place);
    this.waiting.delete(place);
    if (!held || this.written.get(place) === held.change) return;
    this.write(held.change);
    this.hold(place, held.change);
  }

  private write({ about, target, value }: Change): void {
    const entry: StoredEntry = {
      ...{ sitting: this.sitting, device: this.device, seq: ++this.seq },
      ...{ about, target, value, at: Math.round(this.now()) },
    };
    this.writes = this.writes
      .then(() => this.db.entries.add(entry))
      .then(
        () => this.onWritten(),
        (error: unknown) => this.onTrouble(error),
      );
  }
}
