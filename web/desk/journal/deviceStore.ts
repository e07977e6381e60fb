import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Entry } from '../../../core/journal/entry';
import type { SittingOpened } from '../../../core/sittings/api';

export interface StoredEntry extends Entry {
  readonly sitting: string;
  /** Counts up over all openings of the desk on this device, so that sending keeps their order. */
  readonly turn?: number;
}

/** What a device needs to go on without the network: the paper, the desk as the server had it, and the time. */
export interface StoredSitting {
  readonly link: string;
  readonly opened: SittingOpened;
  readonly paperText: string;
  /** A moment of the server's time, and what this device's own clock said then. */
  readonly serverAt: number;
  readonly deviceAt: number;
}

/** A hand-in that waits for the network, with its true time. */
export interface StoredHandIn {
  readonly sitting: string;
  readonly by: 'candidate' | 'time';
  readonly at: number;
}

interface Schema extends DBSchema {
  /** Waiting to be sent. */
  entries: { key: number; value: StoredEntry; indexes: { sitting: string } };
  /** Acknowledged since the desk was last fetched from the server: needed to lay it out again without the network. */
  acknowledged: { key: number; value: StoredEntry; indexes: { sitting: string } };
  sittings: { key: string; value: StoredSitting };
  handIns: { key: string; value: StoredHandIn };
}

export type DeviceDatabase = IDBPDatabase<Schema>;

let opening: Promise<DeviceDatabase> | null = null;

/** The one database of this device. */
export const deviceDatabase = (): Promise<DeviceDatabase> => (opening ??= open());

const open = async (): Promise<DeviceDatabase> =>
  openDB<Schema>('clear-sitting', 1, {
    upgrade(db) {
      const entries = db.createObjectStore('entries', { keyPath: 'turn', autoIncrement: true });
      entries.createIndex('sitting', 'sitting');
      const acknowledged = db.createObjectStore('acknowledged', { keyPath: 'turn' });
      acknowledged.createIndex('sitting', 'sitting');
      db.createObjectStore('sittings', { keyPath: 'link' });
      db.createObjectStore('handIns', { keyPath: 'sitting' });
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

/** Keeps a freshly fetched sitting; what was acknowledged before is part of it now. */
export async function storeSitting(stored: StoredSitting): Promise<void> {
  const db = await deviceDatabase();
  const work = db.transaction(['sittings', 'acknowledged'], 'readwrite');
  void work.objectStore('sittings').put(stored);
  const old = await work.objectStore('acknowledged').index('sitting').getAllKeys(stored.opened.sitting);
  for (const key of old) void work.objectStore('acknowledged').delete(key);
  await work.done;
}

export const storedSitting = async (link: string): Promise<StoredSitting | undefined> =>
  orNothing(async (db) => db.get('sittings', link));

/** Notes a moment of the server's time, for a page that is loaded again without the network. */
export async function storeMoment(
  link: string,
  moment: Pick<StoredSitting, 'serverAt' | 'deviceAt'>,
): Promise<void> {
  await orNothing(async (db) => {
    const work = db.transaction('sittings', 'readwrite');
    const stored = await work.store.get(link);
    if (stored) void work.store.put({ ...stored, ...moment });
    await work.done;
  });
}

export const acknowledgedEntries = async (sitting: string): Promise<StoredEntry[]> =>
  (await deviceDatabase()).getAllFromIndex('acknowledged', 'sitting', sitting);

export const storedHandIn = async (sitting: string): Promise<StoredHandIn | undefined> =>
  orNothing(async (db) => db.get('handIns', sitting));

export async function storeHandIn(handIn: StoredHandIn): Promise<void> {
  await orNothing(async (db) => db.put('handIns', handIn));
}

export async function dropHandIn(sitting: string): Promise<void> {
  await orNothing(async (db) => db.delete('handIns', sitting));
}

/** Forgets a sitting that the server has whole and closed. */
export async function forgetSitting(link: string): Promise<void> {
  await orNothing(async (db) => db.delete('sittings', link));
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
