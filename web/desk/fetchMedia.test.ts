import 'fake-indexeddb/auto';
import { createHash, randomBytes } from 'node:crypto';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { fetchMedia, type MediaProgress } from './fetchMedia';
import { forgetMedia, mediaParts, storedMedia } from './journal/deviceStore';

const PART = 512 * 1024;
const bytes = randomBytes(3 * PART + 77);
const hashOf = (of: Uint8Array) => createHash('sha256').update(of).digest('hex');
const listing = { name: 'n', hash: hashOf(bytes), bytes: bytes.length };

/** The ranges that were asked for. */
let asked: string[];
/** What the server does with each request; at its end it delivers. */
let plan: ('cut' | 'busy' | 'damaged' | 'all')[];
let progress: MediaProgress[];

beforeEach(() => {
  [asked, plan, progress] = [[], [], []];
  vi.spyOn(Math, 'random').mockReturnValue(0);
  // The browser is online again at once.
  const page = new EventTarget();
  vi.stubGlobal('window', page);
  vi.spyOn(page, 'addEventListener').mockImplementation((_, go) => (go as () => void)());
  vi.stubGlobal('fetch', (_: string, init: { headers: { Range: string } }) => {
    const { Range } = init.headers;
    asked.push(Range);
    const [from, to] = Range.slice('bytes='.length).split('-').map(Number) as [number, number];
    const what = plan.shift();
    if (what === 'cut') return Promise.reject(new TypeError('network'));
    if (what === 'busy') return Promise.resolve(new Response('', { status: 503 }));
    // A proxy that knows no ranges gives everything.
    if (what === 'all') return Promise.resolve(new Response(bytes));
    const part = Uint8Array.from(bytes.subarray(from, to + 1));
    if (what === 'damaged') part[0]! ^= 1;
    return Promise.resolve(new Response(part, { status: 206 }));
  });
});
afterEach(async () => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
  await forgetMedia([listing.hash]);
});

const run = (signal = new AbortController().signal) =>
  fetchMedia([listing], (one) => progress.push(one), signal);
const whole = async () => Buffer.from((await storedMedia(listing.hash, 4))!).equals(bytes);

it('comes in parts, tells how far it is, and is there as it was sent', async () => {
  await run();
  expect(asked).toEqual([
    'bytes=0-524287',
    'bytes=524288-1048575',
    'bytes=1048576-1572863',
    'bytes=1572864-1572940',
  ]);
  expect(progress.map((one) => one.doneBytes)).toEqual([PART, 2 * PART, 3 * PART, bytes.length]);
  expect(progress.every((one) => one.allBytes === bytes.length && !one.waiting)).toBe(true);
  expect(await whole()).toBe(true);
});

it('goes on after a cut where it was, says that it waits, and asks again only for what is missing', async () => {
  plan = ['all', 'cut', 'busy'];
  await run();
  expect(asked.map((range) => range.split('-')[0])).toEqual([
    'bytes=0',
    'bytes=524288',
    'bytes=524288',
    'bytes=524288',
    'bytes=1048576',
    'bytes=1572864',
  ]);
  expect(progress.filter((one) => one.waiting).map((one) => one.doneBytes)).toEqual([PART, PART]);
  expect(await whole()).toBe(true);
});

it('goes on where a page before this one left off, and fetches nothing twice', async () => {
  const leaving = new AbortController();
  const left = fetchMedia(
    [listing],
    ({ doneBytes }) => doneBytes === 2 * PART && leaving.abort(),
    leaving.signal,
  );
  await expect(left).rejects.toThrow();
  expect(await mediaParts(listing.hash)).toEqual(new Set([0, 1]));
  asked = [];
  await run();
  expect(asked).toHaveLength(2);
  asked = [];
  await run();
  expect(asked).toEqual([]);
});

it('is fetched once more where it came damaged; damaged again, it is told', async () => {
  plan = ['damaged'];
  await run();
  expect([asked.length, await whole()]).toEqual([8, true]);
  await forgetMedia([listing.hash]);
  plan = ['damaged', undefined!, undefined!, undefined!, 'damaged'];
  await expect(run()).rejects.toThrow('did not arrive completely');
  expect(await mediaParts(listing.hash)).toEqual(new Set());
});
