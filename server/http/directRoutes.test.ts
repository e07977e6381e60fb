import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, expect, it, vi } from 'vitest';
import { LoopScheduler } from '../machine/loopScheduler';
import { directRoutes } from './directRoutes';
import type { Endpoint } from './endpoint';

const endpoint = {
  method: 'post',
  path: '/save',
  first: true,
  limitKb: 1,
  admit: () => 'Ada',
  run: (who: string, { body }: { body: unknown }) => ({ who, body }),
} as unknown as Endpoint;
const error = vi.fn();
const needs = { sessions: {}, scheduler: new LoopScheduler(), log: { error }, troubles: { take: vi.fn() } };
const direct = directRoutes(needs as never, [endpoint], true);

let server: Server;
let port: number;
/** What does not go the direct way is answered with 299. */
beforeAll(async () => {
  server = createServer((request, response) => {
    if (!direct(request, response)) response.writeHead(299).end();
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  ({ port } = server.address() as AddressInfo);
});
afterAll(() => void server.close());
beforeEach(() => error.mockClear());

const send = (body: string, headers: Record<string, string> = {}, path = '/api/save') =>
  fetch(`http://127.0.0.1:${port}${path}`, {
    method: 'POST',
    body,
    headers: { 'Content-Type': 'application/json', ...headers },
  });

it('answers with the headers of the API, for whoever was admitted', async () => {
  const answer = await send('{"text":"Åse"}');
  expect([answer.status, await answer.json()]).toEqual([200, { who: 'Ada', body: { text: 'Åse' } }]);
  expect(answer.headers.get('cache-control')).toBe('no-store');
  expect(answer.headers.get('strict-transport-security')).toContain('max-age=');
});

it.each([
  ['malformed', '{"text":', {}, 400],
  ['of another site', '{}', { Origin: 'https://elsewhere.example' }, 403],
])('refuses what is %s', async (_, body, headers, status) => {
  expect((await send(body, headers as Record<string, string>)).status).toBe(status);
});

it.each([
  ['another address', '{}', {}, '/api/other'],
  ['an address with a question', '{}', {}, '/api/save?x=1'],
  ['a packed body', '{}', { 'Content-Encoding': 'gzip' }, '/api/save'],
  ['another type', '{}', { 'Content-Type': 'text/plain' }, '/api/save'],
  ['other characters', '{}', { 'Content-Type': 'application/json; charset=latin1' }, '/api/save'],
  ['a body that is too long', `"${'x'.repeat(1100)}"`, {}, '/api/save'],
])('leaves to the usual way: %s', async (_, body, headers, path) => {
  expect((await send(body, headers as Record<string, string>, path)).status).toBe(299);
});

it('takes a device that goes away in the middle for no trouble of the server', async () => {
  const socket = connect(port, '127.0.0.1');
  const came = once(server, 'request') as Promise<
    [unknown, { once: (name: string, then: () => void) => void }]
  >;
  socket.write(
    'POST /api/save HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 90\r\n\r\n{"te',
  );
  const [, response] = await came;
  const over = new Promise<void>((done) => response.once('close', done));
  socket.destroy();
  await over;
  // Answered after it, when all that it brought about is over.
  expect((await send('{}')).status).toBe(200);
  expect(error).not.toHaveBeenCalled();
});
