import { vi } from 'vitest';

type Answering = (body: unknown) => unknown;

export interface Call {
  readonly call: string;
  readonly body: unknown;
}

/** What the API refuses, with its words as an author's would be. */
export class Refused {
  readonly status: number;
  readonly code: string;
  readonly message: string;
  readonly details: unknown;
  constructor(status: number, code: string, message: string, details?: unknown) {
    [this.status, this.code, this.message, this.details] = [status, code, message, details];
  }
}

const answer = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });

/**
 * Stands in the place of the API in tests of the interface: `{ 'POST /arrival/details': (body) => view }`. What is not
 * named cannot be reached; an answer may take its time. Gives the calls as they were made.
 */
export function fakeServer(routes: Readonly<Record<string, Answering>>): Call[] {
  const calls: Call[] = [];
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    const call = `${init.method ?? 'GET'} ${url.replace(/^\/api/, '')}`;
    const body: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : undefined;
    calls.push({ call, body });
    const route = routes[call];
    if (!route) throw new TypeError('Failed to fetch');
    const given = await route(body);
    if (!(given instanceof Refused)) return answer(200, given);
    const message = { code: 'author.text', values: { text: given.message } };
    return answer(given.status, { code: given.code, message, details: given.details });
  });
  return calls;
}

/** Stands in the place of the browser's event streams; `say` sends to all that listen to a path. */
export class FakeEvents {
  static open: FakeEvents[] = [];
  readonly url: string;
  onmessage: ((event: { data: string }) => void) | null = null;
  onerror: (() => void) | null = null;
  closed = false;

  constructor(url: string) {
    this.url = url;
    FakeEvents.open.push(this);
  }

  close(): void {
    this.closed = true;
  }

  static install(): void {
    FakeEvents.open = [];
    vi.stubGlobal('EventSource', FakeEvents);
  }

  static say(path: string, message: unknown): void {
    for (const source of FakeEvents.open)
      if (source.url === `/api${path}/stream` && !source.closed)
        source.onmessage?.({ data: JSON.stringify(message) });
  }

  static fail(path: string): void {
    for (const source of FakeEvents.open) if (source.url === `/api${path}/stream`) source.onerror?.();
  }
}
