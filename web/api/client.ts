import type { Message } from '../../core/messages/message';
import { say } from '../words';
import { retryAfterMs } from './retryAfterMs';

interface Refusal {
  readonly code: string;
  readonly message: Message;
  readonly reasons?: readonly Message[];
  readonly details?: unknown;
}

/** A refusal of the API, or a server that cannot be reached (`status` 0). Its message is meant for people. */
export class ApiProblem extends Error {
  readonly status: number;
  readonly code: string;
  readonly details: unknown;
  constructor(status: number, { code, message, reasons = [], details }: Refusal) {
    super([message, ...reasons].map(say).join(' '));
    this.status = status;
    this.code = code;
    this.details = details;
  }
}

/** A failure on this device, in words for people. */
export const problem = (key: string): ApiProblem =>
  new ApiProblem(0, { code: 'local', message: { code: `error.${key}` } });

const unreachable: Refusal = { code: 'unreachable', message: { code: 'error.unreachable' } };

async function problemOf(response: Response): Promise<ApiProblem> {
  const body = (await response.json().catch(() => null)) as Partial<Refusal> | null;
  const told = body?.code !== undefined && body.message !== undefined;
  return new ApiProblem(response.status, told ? (body as Refusal) : unreachable);
}

/** Told to the page when a member of staff is not signed in any more. */
export const SIGNED_OUT = 'clear-sitting:signed-out';

/** With the wait before each, about a minute. */
const MOST_TRIES_WHILE_BUSY = 7;

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** What a busy server refused has had no effect: it is sent again for a while before a person is told. */
async function send(path: string, init: RequestInit, refusals = 0): Promise<Response> {
  const response = await fetch(`/api${path}`, init).catch(() => {
    throw new ApiProblem(0, unreachable);
  });
  if (response.ok) return response;
  const refused = await problemOf(response);
  if (refused.code === 'not-signed-in' && typeof window !== 'undefined')
    window.dispatchEvent(new Event(SIGNED_OUT));
  if (refused.code !== 'busy' || refusals >= MOST_TRIES_WHILE_BUSY || init.signal?.aborted) throw refused;
  await pause(retryAfterMs(refusals + 1, Math.random()));
  return send(path, init, refusals + 1);
}

const json = async <T>(path: string, init: RequestInit): Promise<T> =>
  (await (await send(path, init)).json()) as T;

export const get = <T>(path: string, more: RequestInit = {}): Promise<T> => json<T>(path, more);

export const getBytes = async (path: string, init: RequestInit = {}): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await (await send(path, init)).arrayBuffer());

export const post = <T>(path: string, body: object = {}, more: RequestInit = {}): Promise<T> =>
  json<T>(path, {
    method: 'POST',
    ...more,
    headers: { 'Content-Type': 'application/json', ...more.headers },
    body: JSON.stringify(body),
  });

export const put = <T>(path: string, body: object): Promise<T> => post<T>(path, body, { method: 'PUT' });

export const postBytes = <T>(path: string, bytes: Uint8Array<ArrayBuffer>): Promise<T> =>
  json<T>(path, { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: bytes });

/** A blob without a type goes as plain bytes. */
export const putBytes = <T>(path: string, bytes: Blob, more: RequestInit = {}): Promise<T> =>
  json<T>(path, {
    ...more,
    method: 'PUT',
    headers: { 'Content-Type': bytes.type || 'application/octet-stream', ...more.headers },
    body: bytes,
  });

export const messageOf = (error: unknown): string =>
  error instanceof ApiProblem ? error.message : say({ code: 'error.unknown' });
