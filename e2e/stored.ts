import type { Page } from '@playwright/test';

/** In the page: what this browser keeps for the application, in databases, storages and caches, but not its files. */
async function look(wanted: readonly string[] | null): Promise<{ readable: string[]; left: string[] }> {
  const readable = new Set<string>();
  const left: string[] = [];
  const decoder = new TextDecoder();
  const search = async (value: unknown): Promise<void> => {
    if (wanted === null) return;
    if (value instanceof Blob) return search(await value.arrayBuffer());
    if (value instanceof ArrayBuffer || ArrayBuffer.isView(value)) return search(decoder.decode(value));
    if (typeof value === 'string') {
      for (const text of wanted) if (value.includes(text)) readable.add(text);
    } else if (typeof value === 'object' && value !== null)
      for (const entry of Object.entries(value)) for (const part of entry) await search(part);
  };
  const asked = <T>(request: IDBRequest<T>) =>
    new Promise<T>((done, failed) => {
      request.onsuccess = () => done(request.result);
      request.onerror = () => failed(new Error('the database does not answer'));
    });
  for (const { name } of await indexedDB.databases()) {
    const db = await asked(indexedDB.open(name!));
    for (const store of db.objectStoreNames) {
      const rows = () => db.transaction(store).objectStore(store);
      const count = await asked(rows().count());
      if (count > 0 && store !== 'settings') left.push(`${count} in ${name}/${store}`);
      if (wanted !== null) await search(await asked(rows().getAll()));
    }
    db.close();
  }
  for (const entry of [...Object.entries(localStorage), ...Object.entries(sessionStorage)]) {
    if (entry[0].startsWith('clear-sitting-left')) left.push(entry[0]);
    await search(entry);
  }
  for (const name of await caches.keys()) {
    const cache = await caches.open(name);
    for (const request of await cache.keys()) {
      const { pathname } = new URL(request.url);
      if (pathname.startsWith('/api/')) left.push(pathname);
      const ofOurs = /^\/(assets|vendor)\//.test(pathname);
      if (wanted !== null && !ofOurs) await search(await (await cache.match(request))!.blob());
    }
  }
  return { readable: [...readable], left };
}

/** Which of these texts can be read in what the browser keeps. */
export const readableOf = async (page: Page, texts: readonly string[]): Promise<string[]> =>
  (await page.evaluate(look, texts)).readable;

/** What is left of a sitting, by its place and count; empty where nothing is. */
export const leftBehind = async (page: Page): Promise<string[]> => (await page.evaluate(look, null)).left;
