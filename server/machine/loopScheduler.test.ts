import { createServer, connect, type AddressInfo } from 'node:net';
import { once } from 'node:events';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { LoopScheduler } from './loopScheduler';

/** Time passes by work alone: a machine that is busy elsewhere makes no difference. */
let at = 0;
const busyFor = (ms: number) => void (at += ms);
beforeEach(() => void vi.spyOn(performance, 'now').mockImplementation(() => at));
afterEach(() => void vi.restoreAllMocks());

describe('turns of the event loop', () => {
  it('do what is saved first, then what requests ask in their order, a piece a turn, and what else there is only when they leave room', async () => {
    const turns = new LoopScheduler();
    const done: string[] = [];
    const piece = (name: string) => () => {
      busyFor(5);
      done.push(name);
    };
    const rest = [1, 2].map((n) => turns.inBetween(piece(`view ${n}`)));
    const asked = [1, 2].map((n) => turns.request(piece(`request ${n}`)));
    const saved = [turns.save(piece('save'))];
    let between = 0;
    const count = () => {
      between++;
      if (done.length < 5) setImmediate(count);
    };
    setImmediate(count);
    await Promise.all([...rest, ...asked, ...saved]);
    expect(done).toEqual(['save', 'request 1', 'request 2', 'view 1', 'view 2']);
    // Of five pieces one request shares the turn of the save: each other takes longer than a turn has.
    expect(between).toBeGreaterThanOrEqual(2);
  });

  it('takes up new connections while much waits to be done', async () => {
    const turns = new LoopScheduler();
    const server = createServer().listen(0, '127.0.0.1');
    await once(server, 'listening');
    let [open, left] = [0, 60];
    server.on('connection', (socket) => {
      open++;
      socket.destroy();
    });
    const { port } = server.address() as AddressInfo;
    const clients = Array.from({ length: 10 }, () => connect(port, '127.0.0.1').on('error', () => undefined));
    await Promise.all(clients.map((client) => once(client, 'connect')));
    const works = Array.from({ length: left }, () =>
      turns.request(() => {
        busyFor(3);
        left--;
      }),
    );
    while (open < 10) await new Promise((next) => setImmediate(next));
    expect(left).toBeGreaterThan(0);
    await Promise.all(works);
    server.close();
  });

  it('do less in a turn in which somebody came in', async () => {
    const turns = new LoopScheduler();
    const doneIn = async (newcomer: boolean) => {
      let done = 0;
      const works = Array.from({ length: 6 }, () =>
        turns.request(() => {
          busyFor(2.5);
          done++;
        }),
      );
      if (newcomer) turns.noteConnection();
      // The turn of these works comes before this one: it was asked for first.
      const after = await new Promise<number>((next) => setImmediate(() => next(done)));
      await Promise.all(works);
      return after;
    };
    expect(await doneIn(true)).toBe(1);
    expect(await doneIn(false)).toBeGreaterThan(1);
  });

  it('give back what a piece of work gave, waited for, or threw', async () => {
    const turns = new LoopScheduler();
    const broken = turns.request(() => {
      throw new Error('no such candidate');
    });
    const later = turns.request(() => Promise.resolve(7));
    await expect(broken).rejects.toThrow('no such candidate');
    await expect(later).resolves.toBe(7);
    await expect(turns.inBetween(() => 8)).resolves.toBe(8);
  });
});
