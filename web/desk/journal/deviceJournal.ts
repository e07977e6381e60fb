import { canonicalJson } from '../../../core/journal/canonicalJson';
import { applyChange, type Change, type Desk } from '../../../core/journal/desk';
import {
  BATCH_LIMIT,
  byteLength,
  ENTRY_LIMIT,
  slotOf,
  type Entry,
  type EntryRef,
} from '../../../core/journal/entry';
import type { Head } from '../../../core/journal/chain';
import { HoldWriter } from '../../../core/journal/holdWriter';
import { applyPatch, farApart, makePatch, SHORT_TEXT, WHOLE_AFTER } from '../../../core/journal/patch';
import type { GrantedHold } from '../../../core/sittings/api';
import {
  deviceDatabase,
  keepHold,
  leaveBehind,
  storedEntries,
  storedHolds,
  takeLeftBehind,
  type StoredEntry,
} from './deviceStore';
import { checkSum, digest } from './digest';

/** Changes to the same place within this time become one entry. */
const MERGE_MS = 1000;
/** What is written on keystroke by keystroke. */
const MERGED: readonly Change['about'][] = ['answer', 'rough-work'];
/** Room for what an entry says beside its value, in bytes. */
const ENTRY_HEAD = 1024;

export type { Change };

/** Reads a change and whether it brings back an earlier version. */
export interface NotedChange extends Change {
  readonly restored?: EntryRef;
}

interface OpenEntry {
  readonly change: NotedChange;
  readonly text: string;
  readonly at: number;
}

/** The text that the next patch of a place builds on. */
interface Base {
  readonly number: number;
  readonly text: string;
  readonly patches: number;
}

export interface JournalStart {
  readonly sitting: string;
  readonly hold: GrantedHold;
  readonly base: Desk;
}

export interface DeviceBatch {
  readonly head: Head;
  readonly entries: readonly Entry[];
}

/** Why a change was not noted: it is longer than can be saved. */
export type NoteTrouble = 'too-long' | 'device';

/**
 * The journal on the device. Every change is written to IndexedDB before anything is sent; a long value travels as a
 * patch on an earlier entry of this hold. An entry is frozen once a head covers it: from then on its bytes never change.
 */
export class DeviceJournal {
  readonly sitting: string;
  /** Called at every change: from now on something waits to be sent. */
  onWritten: () => void = () => undefined;
  /** Called when the device itself cannot keep an entry (it is then only in memory), or when a value is too long. */
  onTrouble: (trouble: NoteTrouble) => void = () => undefined;
  /** The latest server time received. */
  heard = 0;
  /** The desk that the entries lead to. */
  desk: Desk;
  private readonly now: () => number;
  private writer: HoldWriter;
  private frozen: Entry[] = [];
  private open: OpenEntry | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly bases = new Map<string, Base>();
  private held = 0;
  private limit = BATCH_LIMIT;
  private readonly db = deviceDatabase();
  private writes: Promise<unknown> = Promise.resolve();
  private readonly unwritten = new Map<number, StoredEntry>();
  private stopped = false;
  private forgotten = false;

  private constructor({ sitting, hold, base }: JournalStart, now: () => number) {
    [this.sitting, this.desk, this.now] = [sitting, base, now];
    this.writer = new HoldWriter(hold, digest);
    // A device without a database is found out by the first write.
    this.db.catch(() => undefined);
  }

  /** Opens the journal of a hold where it was left. */
  static async open(start: JournalStart, now: () => number): Promise<DeviceJournal> {
    const journal = new DeviceJournal(start, now);
    await journal.recover(start);
    return journal;
  }

  get hold(): number {
    return this.writer.hold;
  }

  /** Another tab or device has the desk: nothing is written any more, and what is there is still sent. */
  stop(): void {
    this.freeze();
    this.stopped = true;
  }

  /** Everything was handed in: nothing of it is put on this device again. */
  forget(): void {
    this.stop();
    this.forgotten = true;
  }

  note(change: NotedChange): void {
    if (this.stopped) return;
    const text = canonicalJson(change.value);
    if (byteLength(text) > ENTRY_LIMIT - ENTRY_HEAD) {
      this.onTrouble('too-long');
      return;
    }
    this.desk = applyChange(this.desk, change);
    if (this.open && !this.merges(this.open, change, text)) this.freeze();
    if (!this.open) this.timer = setTimeout(() => this.freeze(), MERGE_MS);
    this.open = { change, text, at: this.claim() };
    // Single acts are not merged: nothing follows them that would replace them.
    if (!MERGED.includes(change.about) || change.restored) this.freeze();
    else this.write(wholeEntry(this.open, this.writer.number + 1), null);
    this.onWritten();
  }

  /** Freezes what is open: changes never merge across a question, a stop or an end. Resolves when it is on the device. */
  async settle(): Promise<void> {
    this.freeze();
    await this.writes;
    // Written now: what was left behind in case would only be older than what follows.
    takeLeftBehind(this.sitting);
  }

  /** For when the page goes away, perhaps in this very moment. The next opening of the desk takes it into the journal. */
  leaveBehind(): void {
    this.freeze();
    leaveBehind(this.sitting, [...this.unwritten.values()]);
  }

  /** The next entries that the server does not hold, at most so much that a batch stays small; and how far it goes. */
  async batch(): Promise<DeviceBatch> {
    await this.settle();
    const entries: Entry[] = [];
    let length = 0;
    for (const entry of this.frozen.slice(this.held)) {
      length += byteLength(JSON.stringify(entry)) + 1;
      if (entries.length > 0 && length > this.limit) break;
      entries.push(entry);
    }
    return { head: this.head(), entries };
  }

  head(): Head {
    return this.writer.head(this.heard);
  }

  /** How many entries the server does not hold yet. */
  get waiting(): number {
    return this.writer.number - this.held + (this.open ? 1 : 0);
  }

  /** The server holds entries up to a number: what lies above it is sent (again). */
  acknowledge(held: number, heard: number): void {
    this.held = Math.min(held, this.frozen.length);
    this.heard = Math.max(this.heard, heard);
    const { hold, token } = this.writer;
    if (!this.forgotten)
      void keepHold({ sitting: this.sitting, hold, token, held: this.held, heard: this.heard });
  }

  /** A batch was too large for whoever is on the way: smaller ones from now on. False where it cannot get smaller. */
  smaller(): boolean {
    if (this.limit <= 1) return false;
    this.limit = this.limit > 2048 ? Math.floor(this.limit / 2) : 1;
    return true;
  }

  /** The next value of every place is a whole one: after a stop, or when the server could not follow. */
  wholeNext(): void {
    this.freeze();
    this.bases.clear();
  }

  /**
   * Goes on in a fresh hold with whole values: all that the desk has here and the server's has not. Gives the entries, to
   * be kept together with the hold.
   */
  renew(hold: GrantedHold, server: Desk): StoredEntry[] {
    this.freeze();
    this.writer = new HoldWriter(hold, digest);
    [this.frozen, this.held, this.limit] = [[], 0, BATCH_LIMIT];
    this.bases.clear();
    return changesBetween(server, this.desk).map((change) => {
      const text = canonicalJson(change.value);
      return this.append({ change, text, at: this.claim() });
    });
  }

  private merges(open: OpenEntry, change: NotedChange, text: string): boolean {
    const slot = slotOf(change);
    if (slotOf(open.change) !== slot || change.restored) return false;
    const base = this.bases.get(slot);
    return base === undefined || !farApart(base.text, open.text, text);
  }

  private claim(): number {
    return Math.max(0, Math.floor(this.now()));
  }

  private freeze(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    if (!this.open) return;
    const stored = this.append(this.open);
    this.open = null;
    this.write(stored.entry, stored.chain);
  }

  /** Numbers an entry and takes it into the chain. */
  private append(open: OpenEntry): StoredEntry {
    const { number: _, ...rest } = this.asEntry(open, this.writer.number + 1);
    const entry = this.writer.append(rest);
    this.frozen.push(entry);
    this.rebase(slotOf(entry), entry, open.text);
    const { sitting, writer } = this;
    return { sitting, hold: writer.hold, number: entry.number, entry, chain: writer.chain };
  }

  private rebase(slot: string, { number, patch }: Entry, text: string): void {
    const before = this.bases.get(slot);
    this.bases.set(slot, { number, text, patches: patch ? (before?.patches ?? 0) + 1 : 0 });
  }

  private asEntry(open: OpenEntry, number: number): Entry {
    const { change, text } = open;
    const base = this.bases.get(slotOf(change));
    const whole = wholeEntry(open, number);
    if (!base || change.restored || text.length < SHORT_TEXT || base.patches >= WHOLE_AFTER) return whole;
    const ref = { hold: this.writer.hold, number: base.number };
    const patch = makePatch(ref, { from: base.text, to: text }, checkSum);
    const { value: _, ...head } = whole;
    return patch.put.length > text.length / 2 ? whole : { ...head, patch };
  }

  private write(entry: Entry, chain: string | null): void {
    const stored = { sitting: this.sitting, hold: this.writer.hold, number: entry.number, entry, chain };
    if (this.forgotten) return;
    this.unwritten.set(entry.number, stored);
    this.writes = this.writes
      .then(async () => (await this.db).put('entries', stored))
      .then(() => {
        if (this.unwritten.get(entry.number) === stored) this.unwritten.delete(entry.number);
      })
      // A device that cannot keep it (a private window, no room) can still send it.
      .catch(() => this.onTrouble('device'));
  }

  private async recover({ sitting, hold }: JournalStart): Promise<void> {
    const known = new Map((await storedEntries(sitting, hold.hold)).map((one) => [one.number, one]));
    for (const left of takeLeftBehind(sitting)) {
      if (left.hold !== hold.hold || known.get(left.number)?.chain) continue;
      known.set(left.number, left);
      this.write(left.entry, left.chain);
    }
    for (let next = known.get(1); next; next = known.get(this.writer.number + 1)) {
      const { number: _, ...rest } = next.entry;
      const entry = this.writer.append(rest);
      this.frozen.push(entry);
      // What was still open is frozen as it lies here.
      if (next.chain !== this.writer.chain) this.write(entry, this.writer.chain);
      const text = this.textOf(entry);
      if (text === null) continue;
      this.rebase(slotOf(entry), entry, text);
      this.desk = applyChange(this.desk, { ...entry, value: JSON.parse(text) as unknown });
    }
    // A page that was loaded again begins with whole values.
    this.bases.clear();
    const stored = (await storedHolds(sitting)).find((one) => one.hold === hold.hold);
    [this.held, this.heard] = [Math.min(stored?.held ?? 0, this.frozen.length), stored?.heard ?? 0];
  }

  private textOf({ patch, value, ...entry }: Entry): string | null {
    if (!patch) return canonicalJson(value ?? null);
    const base = this.bases.get(slotOf(entry));
    return base?.number === patch.base.number ? applyPatch(base.text, patch, checkSum) : null;
  }
}

function wholeEntry({ change, at }: OpenEntry, number: number): Entry {
  const { about, target, value, restored } = change;
  return { number, about, target, at, value, ...(restored ? { restored } : {}) };
}

/** What has to be written to lead from one desk to another. */
function changesBetween(from: Desk, to: Desk): Change[] {
  const differing = <T>(
    about: Change['about'],
    a: Readonly<Record<string, T>>,
    b: Readonly<Record<string, T>>,
  ): Change[] =>
    Object.entries(b).flatMap(([target, value]) =>
      canonicalJson(a[target]) === canonicalJson(value) ? [] : [{ about, target, value }],
    );
  return [
    ...differing('opened', from.opened, to.opened),
    ...differing('flag', from.flags, to.flags),
    ...differing('event', from.events, to.events),
    ...differing('answer', from.answers, to.answers),
    ...differing('highlights', from.highlights, to.highlights),
    ...differing('rough-work', from.roughWork, to.roughWork),
    ...differing('aid', from.aids, to.aids),
    ...(to.place !== null && to.place !== from.place
      ? [{ about: 'place' as const, target: to.place, value: null }]
      : []),
  ];
}
