import type { Message } from '../../core/messages/message';
export interface Answered<T = unknown> {
  readonly status: number;
  readonly body: T;
}

/** What the API answers where it refuses. */
export interface Refusal {
  readonly code: string;
  readonly message: Message;
  readonly reasons: readonly Message[];
  readonly details?: unknown;
}

/** Talks to a served API as a browser would: with JSON and the cookie it was given. */
export class ApiClient {
  readonly url: string;
  private readonly cookies = new Map<string, string>();

  /** `cookie` of somebody who is known already, as `name=value`. */
  constructor(url: string, cookie?: string) {
    this.url = url;
    if (cookie !== undefined) this.cookies.set(...(cookie.split('=') as [string, string]));
  }

  get<T>(path: string): Promise<Answered<T>> {
    return this.send(path, {});
  }

  post<T>(path: string, body: unknown = {}, headers: Record<string, string> = {}): Promise<Answered<T>> {
    const init = { method: 'POST', body: JSON.stringify(body) };
    return this.send(path, { ...init, headers: { 'Content-Type': 'application/json', ...headers } });
  }

  putJson<T>(path: string, body: unknown): Promise<Answered<T>> {
    const headers = { 'Content-Type': 'application/json' };
    return this.send(path, { method: 'PUT', body: JSON.stringify(body), headers });
  }

  /** Sends bytes as they are. */
  put<T>(
    path: string,
    bytes: Uint8Array<ArrayBuffer>,
    headers: Record<string, string> = {},
  ): Promise<Answered<T>> {
    const type = { 'Content-Type': 'application/octet-stream' };
    return this.send(path, { method: 'PUT', body: bytes, headers: { ...type, ...headers } });
  }

  /** A stream of server-sent events, one block after the other; beats are passed over. */
  async stream(path: string): Promise<{ next: () => Promise<string>; end: () => Promise<void> }> {
    const response = await fetch(`${this.url}/api${path}`, { headers: { Cookie: this.cookie() } });
    const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
    let held = '';
    const next = async (): Promise<string> => {
      for (;;) {
        const end = held.indexOf('\n\n');
        if (end >= 0) {
          const block = held.slice(0, end);
          held = held.slice(end + 2);
          if (!block.startsWith(':')) return block;
          continue;
        }
        const { value, done } = await reader.read();
        if (done) throw new Error('the stream has ended');
        held += value;
      }
    };
    return { next, end: () => reader.cancel() };
  }

  private cookie(): string {
    return [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
  }

  /** The response itself, where bytes or headers matter. */
  raw(path: string, init: RequestInit = {}): Promise<Response> {
    return fetch(`${this.url}/api${path}`, { ...init, headers: { Cookie: this.cookie() } });
  }

  /** The bytes of a file, or of a part of it. */
  async bytes(path: string, headers: Record<string, string> = {}) {
    const response = await fetch(`${this.url}/api${path}`, {
      headers: { ...headers, Cookie: this.cookie() },
    });
    const type = response.headers.get('content-type')?.split(';')[0];
    return { status: response.status, type, bytes: Buffer.from(await response.arrayBuffer()) };
  }

  async send<T>(path: string, init: RequestInit): Promise<Answered<T>> {
    const headers: Record<string, string> = { ...(init.headers as Record<string, string>) };
    if (this.cookies.size > 0) headers.Cookie = this.cookie();
    const response = await fetch(`${this.url}/api${path}`, { ...init, headers });
    for (const line of response.headers.getSetCookie()) {
      const [name, value] = line.split(';')[0]!.split('=');
      this.cookies.set(name!, value!);
    }
    const text = await response.text();
    const isJson = response.headers.get('content-type')?.includes('json');
    return { status: response.status, body: (isJson ? JSON.parse(text) : text) as T };
  }
}
