import { once } from 'node:events';
import { createServer } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { text } from 'node:stream/consumers';
import { expect, it } from 'vitest';
import { acceptMore } from './acceptMore';

/** The most connections that are taken up in one turn of the loop when sixty come at once, and what they are told. */
async function rush(listeners: number) {
  const server = createServer((_, response) => response.end('here'));
  const backlog = 100;
  await once(server.listen({ port: 0, host: '127.0.0.1', backlog }), 'listening');
  const stop = acceptMore(server, { listeners, backlog });
  let [now, most, all] = [0, 0, 0];
  server.on('connection', () => {
    now++;
    all++;
  });
  const turn = () => {
    most = Math.max(most, now);
    now = 0;
    if (all < 60) setImmediate(turn);
  };
  setImmediate(turn);
  const { port } = server.address() as AddressInfo;
  const told = await Promise.all(
    Array.from({ length: 60 }, () => {
      const socket = connect(port, '127.0.0.1');
      socket.write('GET / HTTP/1.1\r\nHost: here\r\nConnection: close\r\n\r\n');
      return text(socket);
    }),
  );
  stop();
  await new Promise((done) => server.close(done));
  return { most, told: told.filter((answer) => answer.endsWith('here')).length };
}

it.runIf(process.platform === 'linux')(
  'takes up several connections in a turn, and answers each',
  async () => {
    expect(await rush(1)).toEqual({ most: 1, told: 60 });
    const { most, told } = await rush(8);
    expect(told).toBe(60);
    expect(most).toBeGreaterThan(1);
    expect(most).toBeLessThanOrEqual(8);
  },
);
