/*
 * Makes the desk work without the network: pages come from the network, or as the last kept shell; scripts, styles and
 * fonts carry a hash in their name and come from the cache once kept. The API is never touched here: what must not be
 * lost is in the journal, not in a cache.
 */
const worker = self as unknown as {
  addEventListener: typeof self.addEventListener;
  skipWaiting(): Promise<void>;
  readonly clients: { claim(): Promise<void> };
  readonly registration: object;
};

interface Lasting extends Event {
  waitUntil(work: Promise<unknown>): void;
}
interface Fetching extends Lasting {
  readonly request: Request;
  respondWith(answer: Promise<Response>): void;
}

const CACHE = 'clear-sitting-shell';
const SHELL = '/';
const SLOW_MS = 4000;

const kept = () => caches.open(CACHE);

/** Everything the arrival and the desk are made of, as the build listed it in groups; what is no longer named is dropped. */
async function keepAll(groups: readonly string[]): Promise<void> {
  const answer = await fetch('/desk-files.json', { cache: 'no-cache' });
  const listed = (await answer.json()) as Record<string, string[]>;
  const files = groups.flatMap((group) => listed[group] ?? []);
  const cache = await kept();
  const present = new Set((await cache.keys()).map((request) => new URL(request.url).pathname));
  await cache.add(new Request(SHELL, { cache: 'no-cache' }));
  await Promise.all(files.filter((file) => !present.has(file)).map((file) => cache.add(file)));
  // With another build come other engines under the same names.
  const sameBuild = files.every((name) => present.has(name));
  const wanted = new Set([SHELL, ...Object.values(listed).flat()]);
  await Promise.all(
    [...present]
      .filter((file) => !wanted.has(file) && !(sameBuild && file.startsWith('/vendor/')))
      .map((file) => cache.delete(file)),
  );
}

const late = () => new Promise<never>((_, reject) => setTimeout(() => reject(new Error('slow')), SLOW_MS));

/** A page: from the network where it answers in time, else the kept shell, which finds its way by the address. */
async function page(request: Request): Promise<Response> {
  try {
    return await Promise.race([fetch(request), late()]);
  } catch {
    return (await (await kept()).match(SHELL)) ?? fetch(request);
  }
}

async function file(request: Request): Promise<Response> {
  const cache = await kept();
  const known = await cache.match(request.url);
  if (known) return known;
  const answer = await fetch(request);
  // What cannot be kept (a part of a file, no room) is still delivered.
  if (answer.status === 200) await cache.put(request.url, answer.clone()).catch(() => undefined);
  return answer;
}

worker.addEventListener('install', () => void worker.skipWaiting());
worker.addEventListener('activate', (event) => (event as Lasting).waitUntil(worker.clients.claim()));
worker.addEventListener('message', (event) => {
  const { ports } = event;
  const { keep } = event.data as { readonly keep: readonly string[] };
  const work = keepAll(keep).finally(() => ports[0]?.postMessage('kept'));
  (event as unknown as Lasting).waitUntil(work);
});
worker.addEventListener('fetch', (event) => {
  const { request } = event as Fetching;
  const { pathname, origin } = new URL(request.url);
  if (request.method !== 'GET' || origin !== location.origin || pathname.startsWith('/api/')) return;
  if (request.mode === 'navigate') (event as Fetching).respondWith(page(request));
  else if (pathname.startsWith('/assets/') || pathname.startsWith('/vendor/'))
    (event as Fetching).respondWith(file(request));
});
