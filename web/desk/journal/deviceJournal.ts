import type { Entry } from '../../../core/journal/entry';
import { deviceDatabase, leaveBehind, takeLeftBehind, type StoredEntry } from './deviceStore';

/** Changes to the same place within this time become one entry, the first of them at once. */
const CALM_MS = 300;

export type Change = Pick<Entry, 'about' | 'target' | 'value'>;

/**
 * The journal on the device: every change is written to IndexedDB before anything is sent, under a running number of
 * this opening of the desk, and taken out only when the server says that it is durable.
 */
export class DeviceJournal {
  readonly sitting: string;
  private readonly device = crypto.randomUUID();
  private readonly db = deviceDatabase();
  private readonly now: () => number;
  private seq = 0;
  private memory: StoredEntry[] = [];
  private readonly unwritten = new Set<StoredEntry>();
  private recovered: Promise<void> | null = null;
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
    // Written now: what was left behind in case would only be older than what follows.
    takeLeftBehind(this.sitting);
  }

  /**
   * For when the page goes away, perhaps in this very moment: what is held back or not yet written is put where
   * nothing has to be waited for. The next opening of the desk takes it into the journal.
   */
  leaveBehind(): void {
    for (const [place, { timer }] of [...this.waiting]) {
      clearTimeout(timer);
      this.release(place);
    }
    leaveBehind(this.sitting, [...this.unwritten]);
  }

  /** Takes in what an opening before this one had to leave behind. */
  private async recover(): Promise<void> {
    const left = takeLeftBehind(this.sitting);
    if (left.length === 0) return;
    const db = await this.db;
    const known = [
      ...(await db.getAllFromIndex('entries', 'sitting', this.sitting)),
      ...(await db.getAllFromIndex('acknowledged', 'sitting', this.sitting)),
    ];
    const isKnown = (entry: StoredEntry) =>
      known.some((k) => k.device === entry.device && k.seq === entry.seq);
    for (const entry of left) if (!isKnown(entry)) await db.add('entries', entry);
  }

  /** What waits to be sent, in the order in which it was written; what the device could not keep comes last. */
  async unsent(most?: number): Promise<StoredEntry[]> {
    await (this.recovered ??= this.recover().catch(() => undefined));
    const stored = await this.db.then(
      (db) => db.getAllFromIndex('entries', 'sitting', this.sitting, most),
      () => [],
    );
    return [...stored, ...this.memory].slice(0, most);
  }

  async count(): Promise<number> {
    const stored = await this.db.then(
      (db) => db.countFromIndex('entries', 'sitting', this.sitting),
      () => 0,
    );
    return stored + this.memory.length;
  }

  /** Moves entries that the server holds durably out of the way of sending. */
  async acknowledge(entries: readonly StoredEntry[]): Promise<void> {
    const stored = this.forget(entries);
    if (stored.length === 0) return;
    const work = (await this.db).transaction(['entries', 'acknowledged'], 'readwrite');
    for (const entry of stored) {
      void work.objectStore('entries').delete(entry.turn!);
      void work.objectStore('acknowledged').put(entry);
    }
    await work.done;
  }

  /** Takes out entries that the server can never take. */
  async drop(entries: readonly StoredEntry[]): Promise<void> {
    const stored = this.forget(entries);
    if (stored.length === 0) return;
    const { store, done } = (await this.db).transaction('entries', 'readwrite');
    for (const { turn } of stored) void store.delete(turn!);
    await done;
  }

  /** Takes out what was only in memory; gives what the device itself holds. */
  private forget(entries: readonly StoredEntry[]): StoredEntry[] {
    this.memory = this.memory.filter((entry) => !entries.includes(entry));
    return entries.filter((entry) => entry.turn !== undefined);
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
    this.unwritten.add(entry);
    this.writes = this.writes
      .then(async () => (await this.db).add('entries', entry))
      .then(() => void this.unwritten.delete(entry))
      .catch((error: unknown) => {
        // A device that cannot keep it (a private window, no room) can still send it.
        this.unwritten.delete(entry);
        this.memory.push(entry);
        this.onTrouble(error);
      })
      .then(() => this.onWritten());
  }
}
