export interface Answered<T = unknown> {
  readonly status: number;
  readonly body: T;
}

/** Talks to a served API as a browser would: with JSON and the cookie it was given. */
export class ApiClient {
  readonly url: string;
  private readonly cookies = new Map<string, string>();

  constructor(url: string) {
    this.url = url;
  }

  get<T>(path: string): Promise<Answered<T>> {
    return this.send(path, {});
  }

  post<T>(path: string, body: unknown = {}, headers: Record<string, string> = {}): Promise<Answered<T>> {
    const init = { method: 'POST', body: JSON.stringify(body) };
    return this.send(path, { ...init, headers: { 'Content-Type': 'application/json', ...headers } });
  }

  async send<T>(path: string, init: RequestInit): Promise<Answered<T>> {
    const cookie = [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const headers = { ...(cookie ? { Cookie: cookie } : {}), ...(init.headers as Record<string, string>) };
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
