import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Page } from '../../core/files/pages';

/** A page as this browser store keeps it until the server has it and the test is handed in. */
export interface StoredPage {
  /** The sitting, or the joined phone, by its name. */
  readonly owner: string;
  /** The candidate's link; empty on a joined phone. */
  readonly link: string;
  readonly page: Page;
  readonly bytes: ArrayBuffer;
}

interface Schema extends DBSchema {
  pages: { key: [string, string]; value: StoredPage; indexes: { link: string } };
}

let opening: Promise<IDBPDatabase<Schema>> | null = null;

const open = async (): Promise<IDBPDatabase<Schema>> =>
  openDB<Schema>('clear-sitting-pages', 1, {
    upgrade(db) {
      db.createObjectStore('pages', { keyPath: ['owner', 'page.hash'] }).createIndex('link', 'link');
    },
  });

/** A device that can keep nothing holds its pages in memory alone; they are sent all the same. */
async function orNothing<T>(work: (db: IDBPDatabase<Schema>) => Promise<T>): Promise<T | undefined> {
  try {
    return await work(await (opening ??= open()));
  } catch {
    return undefined;
  }
}

export const keepStoredPage = async (stored: StoredPage): Promise<boolean> =>
  (await orNothing(async (db) => (await db.put('pages', stored), true))) === true;

export const storedPages = async (owner: string): Promise<StoredPage[]> =>
  (await orNothing((db) => db.getAll('pages', IDBKeyRange.bound([owner], [owner, []])))) ?? [];

export const dropStoredPage = (owner: string, hash: string): Promise<unknown> =>
  orNothing((db) => db.delete('pages', [owner, hash]));

/** Whose pages this device has of a link. */
export const ownersOf = async (link: string): Promise<string[]> => {
  const all = (await orNothing((db) => db.getAllFromIndex('pages', 'link', link))) ?? [];
  return [...new Set(all.map((one) => one.owner))];
};
