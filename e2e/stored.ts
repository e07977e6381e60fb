import type { Page } from '@playwright/test';

/* What this browser keeps for the application: databases, storages and caches, but not its files. */

/** Which of these texts can be read in it. */
export const readableOf = (page: Page, texts: readonly string[]): Promise<string[]> =>
  page.evaluate(async (wanted) => {
    const found = new Set<string>();
    const decoder = new TextDecoder();
    const search = async (value: unknown): Promise<void> => {
      if (value instanceof Blob) return search(await value.arrayBuffer());
      if (value instanceof ArrayBuffer || ArrayBuffer.isView(value)) return search(decoder.decode(value));
      if (typeof value === 'string') {
        for (const text of wanted) if (value.includes(text)) found.add(text);
      } else if (typeof value === 'object' && value !== null)
        for (const entry of Object.entries(value)) for (const part of entry) await search(part);
    };
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((done, failed) => {
        const opening = indexedDB.open(name!);
        opening.onsuccess = () => done(opening.result);
        opening.onerror = () => failed(new Error('the database does not open'));
      });
      for (const store of db.objectStoreNames) {
        const rows = await new Promise<unknown[]>((done) => {
          const all = db.transaction(store).objectStore(store).getAll();
          all.onsuccess = () => done(all.result as unknown[]);
        });
        await search(rows);
      }
      db.close();
    }
    await search([{ ...localStorage }, { ...sessionStorage }]);
    for (const name of await caches.keys()) {
      const cache = await caches.open(name);
      for (const request of await cache.keys()) {
        await search(request.url);
        if (!/\/(assets|vendor)\//.test(request.url))
          await search(await (await cache.match(request))!.blob());
      }
    }
    return [...found];
  }, texts);

/** What is left of a sitting, by its kind and count; empty where nothing is. */
export const leftBehind = (page: Page): Promise<string[]> =>
  page.evaluate(async () => {
    const left: string[] = [];
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((done, failed) => {
        const opening = indexedDB.open(name!);
        opening.onsuccess = () => done(opening.result);
        opening.onerror = () => failed(new Error('the database does not open'));
      });
      for (const store of db.objectStoreNames) {
        if (store === 'settings') continue;
        const count = await new Promise<number>((done) => {
          const counted = db.transaction(store).objectStore(store).count();
          counted.onsuccess = () => done(counted.result);
        });
        if (count > 0) left.push(`${count} in ${name}/${store}`);
      }
      db.close();
    }
    for (const key of [...Object.keys(localStorage), ...Object.keys(sessionStorage)])
      if (key.startsWith('clear-sitting-left')) left.push(key);
    for (const name of await caches.keys())
      for (const { url } of await (await caches.open(name)).keys())
        if (new URL(url).pathname.startsWith('/api/')) left.push(url);
    return left;
  });
