import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Desk } from '../../../core/journal/desk';
import type { Entry } from '../../../core/journal/entry';
import type {
  GrantedHold,
  MediaListing,
  PlayCounts,
  SealedListing,
  SittingKeys,
  TimeView,
} from '../../../core/sittings/api';

/** A sitting as this browser store has it: what is needed to go on, with or without the network. */
export interface StoredSitting {
  readonly link: string;
  readonly sitting: string;
  readonly sealed: readonly SealedListing[];
  readonly media: readonly MediaListing[];
  readonly keys: SittingKeys;
  readonly hold: GrantedHold;
  /** Of the recordings, as the server had them when the hold was granted. */
  readonly plays: PlayCounts;
  /** The desk as the server had it when the hold was granted. */
  readonly base: Desk;
}

/** A moment of the server's time, and what this device's own clock said then. */
export interface Moment {
  readonly sitting: string;
  readonly serverAt: number;
  readonly deviceAt: number;
  readonly time: TimeView;
}

export interface StoredEntry {
  readonly sitting: string;
  readonly hold: number;
  readonly number: number;
  readonly entry: Entry;
  /** The chain up to this entry once it is frozen; null while later changes may still merge into it. */
  readonly chain: string | null;
}

/** A hold of this store, how much of it the server holds, and the latest server time it has received. */
export interface StoredHold extends GrantedHold {
  readonly sitting: string;
  readonly held: number;
  readonly heard: number;
}

/** A hand-in that waits for the network, and when it was made. */
export interface StoredHandIn {
  readonly sitting: string;
  readonly by: 'candidate' | 'time';
  readonly claimedAt: number;
}

/** The last play of a recording that was granted to this store. */
export interface StoredPlay {
  readonly sitting: string;
  readonly file: string;
  readonly number: number;
  /** Noted before the sound starts, so that no reload gives it back. */
  readonly used: boolean;
  /** Started and not heard to its end. */
  readonly begun: boolean;
}

interface Schema extends DBSchema {
  settings: { key: string; value: string };
  sealed: { key: string; value: Uint8Array<ArrayBuffer> };
  sittings: { key: string; value: StoredSitting };
  moments: { key: string; value: Moment };
  holds: { key: [string, number]; value: StoredHold };
  entries: { key: [string, number, number]; value: StoredEntry };
  handIns: { key: string; value: StoredHandIn };
  mediaParts: { key: [string, number]; value: Uint8Array<ArrayBuffer> };
  plays: { key: [string, string]; value: StoredPlay };
}

export type DeviceDatabase = IDBPDatabase<Schema>;

let opening: Promise<DeviceDatabase> | null = null;

/** The one database of this device. */
export const deviceDatabase = (): Promise<DeviceDatabase> => (opening ??= open());

/** Async, so that a browser that throws at once is a rejection like any other. */
const open = async (): Promise<DeviceDatabase> =>
  openDB<Schema>('clear-sitting-desk', 1, {
    upgrade(db) {
      db.createObjectStore('settings');
      db.createObjectStore('sealed');
      db.createObjectStore('sittings', { keyPath: 'link' });
      db.createObjectStore('moments', { keyPath: 'sitting' });
      db.createObjectStore('holds', { keyPath: ['sitting', 'hold'] });
      db.createObjectStore('entries', { keyPath: ['sitting', 'hold', 'number'] });
      db.createObjectStore('handIns', { keyPath: 'sitting' });
      db.createObjectStore('mediaParts');
      db.createObjectStore('plays', { keyPath: ['sitting', 'file'] });
    },
  });

/** What a device that can keep nothing does as well: nothing. The desk says so beside the saved line. */
async function orNothing<T>(work: (db: DeviceDatabase) => Promise<T>): Promise<T | undefined> {
  try {
    return await work(await deviceDatabase());
  } catch {
    return undefined;
  }
}

/** What is also kept as long as the page lives: a device that can keep nothing can still sit the test. */
const inMemory = {
  store: null as string | null,
  sealed: new Map<string, Uint8Array<ArrayBuffer>>(),
  sittings: new Map<string, StoredSitting>(),
  /** Only what the database did not take. */
  mediaParts: new Map<string, Map<number, Uint8Array<ArrayBuffer>>>(),
};

/**
 * The name of this browser store, made up once. The tab remembers it too: a store that fails later is still known to have
 * been this one.
 */
export async function storeName(): Promise<string> {
  const known = await orNothing((db) => db.get('settings', 'store'));
  const name = known ?? ofTab() ?? (inMemory.store ??= crypto.randomUUID());
  if (!known) await orNothing((db) => db.put('settings', name, 'store'));
  ofTab(name);
  return name;
}

/** What this tab remembers as the name of its store, or is to remember. */
function ofTab(name?: string): string | null {
  try {
    if (name !== undefined) sessionStorage.setItem('clear-sitting-store', name);
    return sessionStorage.getItem('clear-sitting-store');
  } catch {
    return null;
  }
}

export async function keepSealed(hash: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  inMemory.sealed.set(hash, bytes);
  await orNothing((db) => db.put('sealed', bytes, hash));
}

export const findSealed = async (hash: string): Promise<Uint8Array<ArrayBuffer> | undefined> =>
  inMemory.sealed.get(hash) ?? orNothing((db) => db.get('sealed', hash));

/** A part of a sealed file; kept in memory where the database has no room for it. */
export async function keepMediaPart(
  hash: string,
  part: number,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<void> {
  const kept = await orNothing(async (db) => (await db.put('mediaParts', bytes, [hash, part]), true));
  if (kept) return;
  const parts = inMemory.mediaParts.get(hash) ?? new Map<number, Uint8Array<ArrayBuffer>>();
  inMemory.mediaParts.set(hash, parts.set(part, bytes));
}

const ofFile = (hash: string) => IDBKeyRange.bound([hash], [hash, []]);

/** The parts of a sealed file that are here. */
export async function mediaParts(hash: string): Promise<ReadonlySet<number>> {
  const keys = (await orNothing((db) => db.getAllKeys('mediaParts', ofFile(hash)))) ?? [];
  return new Set([...keys.map(([, part]) => part), ...(inMemory.mediaParts.get(hash)?.keys() ?? [])]);
}

/** A sealed file, put together from its parts; null where one is missing. */
export async function storedMedia(hash: string, count: number): Promise<Uint8Array<ArrayBuffer> | null> {
  const own = inMemory.mediaParts.get(hash);
  const parts: Uint8Array<ArrayBuffer>[] = [];
  for (let part = 0; part < count; part++) {
    const bytes = own?.get(part) ?? (await orNothing((db) => db.get('mediaParts', [hash, part])));
    if (!bytes) return null;
    parts.push(bytes);
  }
  const whole = new Uint8Array(parts.reduce((sum, one) => sum + one.length, 0));
  let at = 0;
  for (const one of parts) {
    whole.set(one, at);
    at += one.length;
  }
  return whole;
}

export async function forgetMedia(hashes: readonly string[]): Promise<void> {
  for (const hash of hashes) {
    inMemory.mediaParts.delete(hash);
    await orNothing((db) => db.delete('mediaParts', ofFile(hash)));
  }
}

/** Whether it is durable: a play that cannot be noted here is lost with the page. */
export const keepPlay = async (play: StoredPlay): Promise<boolean> =>
  (await orNothing(async (db) => (await db.put('plays', play), true))) === true;
export const storedPlays = async (sitting: string): Promise<StoredPlay[]> =>
  (await orNothing((db) => db.getAll('plays', IDBKeyRange.bound([sitting], [sitting, []])))) ?? [];

/**
 * Keeps a sitting with a hold that was just granted at the server time `heard`, and the first entries of that hold, all
 * or nothing. What lies here under the number of that hold is of a server that was restored since: where first entries
 * are given they take its place, else it is written again into the new hold.
 */
export async function keepSitting(
  stored: StoredSitting,
  heard: number,
  first?: readonly StoredEntry[],
): Promise<void> {
  inMemory.sittings.set(stored.link, stored);
  await orNothing(async (db) => {
    const work = db.transaction(['sittings', 'holds', 'entries'], 'readwrite');
    void work.objectStore('sittings').put(stored);
    void work.objectStore('holds').put({ sitting: stored.sitting, ...stored.hold, held: 0, heard });
    const { sitting, hold } = stored;
    const entries = work.objectStore('entries');
    if (first) void entries.delete(IDBKeyRange.bound([sitting, hold.hold], [sitting, hold.hold, []]));
    for (const entry of first ?? []) void entries.put(entry);
    await work.done;
  });
}

/** Keeps what has changed of a sitting that is known: a section's key. */
export async function keepKeys(link: string, keys: SittingKeys): Promise<void> {
  const known = inMemory.sittings.get(link) ?? (await storedSitting(link));
  if (!known) return;
  const stored = { ...known, keys };
  inMemory.sittings.set(link, stored);
  await orNothing((db) => db.put('sittings', stored));
}

export const storedSitting = async (link: string): Promise<StoredSitting | undefined> =>
  (await orNothing((db) => db.get('sittings', link))) ?? inMemory.sittings.get(link);

/** Notes a moment of the server's time, for a page that is loaded again without the network. */
export const keepMoment = (moment: Moment): Promise<unknown> => orNothing((db) => db.put('moments', moment));
export const storedMoment = (sitting: string): Promise<Moment | undefined> =>
  orNothing((db) => db.get('moments', sitting));

export const keepHold = (hold: StoredHold): Promise<unknown> => orNothing((db) => db.put('holds', hold));
export const storedHolds = async (sitting: string): Promise<StoredHold[]> =>
  (await orNothing((db) => db.getAll('holds', IDBKeyRange.bound([sitting], [sitting, []])))) ?? [];

/** Entries of a hold in their order. */
export const storedEntries = async (sitting: string, hold: number): Promise<StoredEntry[]> =>
  (await orNothing((db) => db.getAll('entries', IDBKeyRange.bound([sitting, hold], [sitting, hold, []])))) ??
  [];

export const storedHandIn = (sitting: string): Promise<StoredHandIn | undefined> =>
  orNothing((db) => db.get('handIns', sitting));
export const keepHandIn = (handIn: StoredHandIn): Promise<unknown> =>
  orNothing((db) => db.put('handIns', handIn));
export const dropHandIn = (sitting: string): Promise<unknown> =>
  orNothing((db) => db.delete('handIns', sitting));

/**
 * After the hand-in: paper and keys go, and the answers too once all of them are acknowledged. What is not stays, without
 * the paper, so that it can still be delivered.
 */
export async function forgetSitting(link: string, whole: boolean): Promise<void> {
  const stored = await storedSitting(link);
  inMemory.sittings.delete(link);
  if (!stored) return;
  for (const { hash } of stored.sealed) inMemory.sealed.delete(hash);
  await forgetMedia(stored.media.map((one) => one.hash));
  await orNothing(async (db) => {
    const stores = ['sittings', 'sealed', 'moments', 'holds', 'entries', 'plays'] as const;
    const work = db.transaction(stores, 'readwrite');
    const { sitting } = stored;
    void work.objectStore('sittings').delete(link);
    for (const { hash } of stored.sealed) void work.objectStore('sealed').delete(hash);
    void work.objectStore('moments').delete(sitting);
    void work.objectStore('plays').delete(IDBKeyRange.bound([sitting], [sitting, []]));
    if (whole) {
      void work.objectStore('holds').delete(IDBKeyRange.bound([sitting], [sitting, []]));
      void work.objectStore('entries').delete(IDBKeyRange.bound([sitting], [sitting, []]));
    }
    await work.done;
  });
}

const leftBehindKey = (sitting: string) => `clear-sitting-left-behind-${sitting}`;

/** Puts entries where writing waits for nothing: a page that is going away may not live to see the database answer. */
export function leaveBehind(sitting: string, entries: readonly StoredEntry[]): void {
  try {
    if (entries.length > 0) localStorage.setItem(leftBehindKey(sitting), JSON.stringify(entries));
  } catch {
    // No room or not allowed: the database may still have it.
  }
}

/** What an opening before this one left behind, once. */
export function takeLeftBehind(sitting: string): StoredEntry[] {
  try {
    const text = localStorage.getItem(leftBehindKey(sitting));
    localStorage.removeItem(leftBehindKey(sitting));
    return text ? (JSON.parse(text) as StoredEntry[]) : [];
  } catch {
    return [];
  }
}
