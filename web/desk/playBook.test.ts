import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { storedPlays } from './journal/deviceStore';
import { PlayBook } from './playBook';

const FILE = 'a'.repeat(64);
let sitting: string;
let made = 0;
/** What the server has granted; null while it cannot be reached. */
let server: { granted: number; allowed: number; used: number } | null;
let noted: number[];

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  vi.stubGlobal('window', new EventTarget());
  sitting = `sitting ${++made}`;
  server = { granted: 0, allowed: 2, used: 0 };
  noted = [];
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const countOf = ({ granted, allowed, used }: NonNullable<typeof server>) => ({
  granted,
  allowed,
  unused: granted > used ? [granted] : [],
});
const givenBack: string[] = [];
const giveBack = (file: string) => {
  if (!server) return Promise.reject(new Error('unreachable'));
  givenBack.push(file);
  return Promise.resolve();
};

/** As the server grants: the open one again, then the next one. */
function ask() {
  if (!server) return Promise.reject(new Error('unreachable'));
  server.used = Math.max(server.used, ...noted);
  const open = server.granted > server.used;
  if (!open && server.granted < server.allowed) server.granted += 1;
  const number = server.granted > server.used ? server.granted : null;
  return Promise.resolve({ number, plays: { [FILE]: countOf(server) } });
}

async function opened(granted = 0): Promise<PlayBook> {
  const counts = { [FILE]: { granted, allowed: 2, unused: [] } };
  const book = new PlayBook({ sitting, counts, stored: await storedPlays(sitting), ask, giveBack });
  book.onUse = (_, number) => noted.push(number);
  book.begin();
  await settled(book);
  return book;
}
/** Until nothing is under way any more. */
const settled = async (book: PlayBook, ms = 0) => {
  await vi.advanceTimersByTimeAsync(ms);
  // The browser's database answers in turns of its own.
  for (let turn = 0; turn < 20; turn++) await new Promise((next) => setImmediate(next));
  return book.stateOf(FILE, 2);
};

it('holds one ready, uses it up before the sound, and then the next', async () => {
  const book = await opened();
  expect(await settled(book)).toMatchObject({ allowed: 2, left: 2, ready: true, broken: false });
  expect(await book.use(FILE)).toBe(true);
  expect(await settled(book)).toMatchObject({ left: 1, ready: true, broken: false });
  book.finish(FILE, true);
  expect(await book.use(FILE)).toBe(true);
  expect(await settled(book)).toMatchObject({ left: 0, ready: false });
  expect(await book.use(FILE)).toBe(false);
  expect(noted).toEqual([1, 2]);
});

it('is not won back by loading the page again, and tells that the last play broke off', async () => {
  const book = await opened();
  await book.use(FILE);
  // The page is gone in the middle of it.
  book.close();
  const again = await opened(1);
  expect(await settled(again)).toMatchObject({ left: 1, ready: true, broken: true });
  await again.use(FILE);
  again.finish(FILE, true);
  again.close();
  const last = await opened(2);
  expect(await settled(last)).toMatchObject({ left: 0, ready: false, broken: false });
});

it('without a connection there is the one that was held ready, and the next when it is back', async () => {
  const book = await opened();
  server = null;
  await book.use(FILE);
  book.finish(FILE, true);
  expect(await settled(book, 60_000)).toMatchObject({ left: 1, ready: false });
  expect(await book.use(FILE)).toBe(false);
  server = { granted: 1, allowed: 2, used: 0 };
  window.dispatchEvent(new Event('online'));
  expect(await settled(book)).toMatchObject({ left: 1, ready: true });
});

it('waits where the server has yet to hear of the last use, and asks again', async () => {
  const book = await opened();
  // Its use is on the way: the server names the same play again.
  book.onUse = () => undefined;
  await book.use(FILE);
  expect(await settled(book)).toMatchObject({ left: 1, ready: false });
  noted.push(1);
  expect(await settled(book, 10_000)).toMatchObject({ left: 1, ready: true });
});

it('is told of one that was given back', async () => {
  const book = await opened();
  for (const _ of [1, 2]) {
    await book.use(FILE);
    book.finish(FILE, true);
    await settled(book);
  }
  server!.allowed = 3;
  book.takeCounts({ [FILE]: { granted: 2, allowed: 3, unused: [] } });
  expect(await settled(book)).toMatchObject({ allowed: 3, left: 1, ready: true });
});

it('gives back what it holds ready when another device has the desk, also after a while without a connection', async () => {
  const book = await opened();
  const known = server;
  server = null;
  book.lose();
  await settled(book);
  // It is of no use here from that moment on.
  expect([await book.use(FILE), givenBack]).toEqual([false, []]);
  server = known;
  await settled(book, 60_000);
  expect(givenBack).toEqual([FILE]);
  // Opened again, it does not count as held.
  expect((await storedPlays(sitting)).map(({ used }) => used)).toEqual([true]);
});

it('says what another device holds', async () => {
  const book = await opened();
  book.takeCounts({ [FILE]: { granted: 2, allowed: 2, unused: [1, 2] } });
  expect(book.stateOf(FILE, 2)).toMatchObject({ ready: true, elsewhere: 1 });
});
