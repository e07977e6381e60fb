import { createServer as createListener } from 'node:net';
import type { Server } from 'node:http';
import koffi from 'koffi';

/** Linux, `fcntl(2)`: a copy of a descriptor, closed in programs that this process starts. */
const F_DUPFD_CLOEXEC = 1030;

interface Listening {
  readonly _handle: { readonly fd: number };
}

type Copying = (descriptor: number, command: number, argument: number) => number;

/** Null elsewhere than on Linux with its usual library. */
function copying(): Copying | null {
  if (process.platform !== 'linux') return null;
  try {
    return koffi.load('libc.so.6').func('int fcntl(int, int, int)') as Copying;
  } catch {
    return null;
  }
}

/**
 * Lets a server that listens take up several new connections in each turn of the event loop. A listener takes up one a
 * turn (libuv since 1.45): when thousands open their links while the machine is slow, those who come would wait for
 * minutes behind work that is short for everybody who is in. The same socket is listened to by several listeners, since
 * this version of Node.js cannot open a port more than once. Gives how to stop them. Where that cannot be done it changes
 * nothing.
 */
export function acceptMore(server: Server, { listeners, backlog }: { listeners: number; backlog: number }) {
  const copy = copying();
  const { fd: own } = (server as unknown as Listening)._handle;
  // As a server of HTTP makes its own (`http.createServer`).
  const like = { allowHalfOpen: true, noDelay: true };
  const more = Array.from({ length: copy ? listeners - 1 : 0 }, () => {
    const listener = createListener(like, (socket) => server.emit('connection', socket));
    // One less is no trouble: the server itself goes on.
    listener.on('error', () => undefined);
    const fd = copy!(own, F_DUPFD_CLOEXEC, 0);
    // The length of the queue is the socket's: each who listens sets it, and among the options it would not be read.
    return fd < 0 ? listener : listener.listen({ fd }, backlog);
  });
  return () => more.forEach((listener) => listener.close());
}
