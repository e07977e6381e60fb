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

  it('tells what cannot be reached in words that take the worry away', async () => {
    fakeServer({});
    const away = await problem(get('/live'));
    expect([away.status, away.code]).toEqual([0, 'unreachable']);
    expect(away.message).toContain('what you have done is kept');
  });

  it('takes an answer that is not the API’s own for a server that is not there', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('<h1>Bad gateway</h1>', { status: 502 })));
    const broken = await problem(get('/live'));
    expect([broken.status, broken.code]).toEqual([502, 'unreachable']);
    expect(broken.message).not.toContain('gateway');
  });
});
