import { afterEach, describe, expect, it, vi } from 'vitest';
import { fakeServer, Refused } from '../testing/fakeServer';
import { ApiProblem, get, messageOf, post } from './client';

afterEach(() => vi.unstubAllGlobals());
const problem = async (asked: Promise<unknown>) => {
  const error = await asked.then(
    () => null,
    (e: unknown) => e,
  );
  if (!(error instanceof ApiProblem)) throw new Error('no problem');
  return error;
};

describe('the way to the API', () => {
  it('sends JSON and gives what was answered', async () => {
    const calls = fakeServer({ 'POST /echo': (body) => body, 'GET /config': () => ({ now: 7 }) });
    expect(await post('/echo', { a: 1 })).toEqual({ a: 1 });
    expect(await get('/config')).toEqual({ now: 7 });
    expect(calls.map((c) => c.call)).toEqual(['POST /echo', 'GET /config']);
  });

  it('tells a refusal by status, code and the words of the server', async () => {
    fakeServer({ 'POST /x': () => new Refused(409, 'not-ready', 'Some steps are still open.') });
    const refused = await problem(post('/x'));
    expect([refused.status, refused.code, messageOf(refused)]).toEqual([
      409,
      'not-ready',
      'Some steps are still open.',
    ]);
  });

  it('asks a busy server again for a while, with a growing wait, before it says so', async () => {
    vi.useFakeTimers();
    try {
      let refusals = 2;
      const busy = () => new Refused(503, 'busy', 'Much is going on.');
      const calls = fakeServer({ 'POST /x': () => (refusals-- > 0 ? busy() : { done: true }) });
      const answered = post('/x', { a: 1 });
      await vi.runAllTimersAsync();
      expect(await answered).toEqual({ done: true });
      expect(calls.map((c) => c.body)).toEqual([{ a: 1 }, { a: 1 }, { a: 1 }]);

      refusals = Infinity;
      const refused = problem(post('/x'));
      await vi.runAllTimersAsync();
      expect((await refused).status).toBe(503);
      // Three before; the first and seven more.
      expect(calls).toHaveLength(3 + 8);
    } finally {
      vi.useRealTimers();
    }
  });

  it('tells what cannot be reached in words that take the worry away', async () => {
    fakeServer({});
    const away = await problem(get('/live'));
    expect([away.status, away.code]).toEqual([0, 'unreachable']);
    expect(away.message).toContain('Your work is saved on this device');
  });

  it('takes an answer that is not the API’s own for a server that is not there', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('<h1>Bad gateway</h1>', { status: 502 })));
    const broken = await problem(get('/live'));
    expect([broken.status, broken.code]).toEqual([502, 'unreachable']);
    expect(broken.message).not.toContain('gateway');
  });
});
