import { afterAll, beforeAll, expect, it } from 'vitest';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
beforeAll(async () => (app = await serve()));
afterAll(() => app.close());

it('a candidate has four streams at a time, and another once one has ended', async () => {
  const client = await app.atCover(app.invite(app.addRound(samplePaper())));
  const other = await app.atCover(app.invite(app.addRound({ ...samplePaper(), version: 2 })));
  const ends: (() => void)[] = [];
  const open = async (who = client) => {
    const abort = new AbortController();
    ends.push(() => abort.abort());
    const response = await who.raw('/live/stream', { signal: abort.signal });
    if (!response.ok) await response.body?.cancel();
    return response.status;
  };
  const statuses = async (count: number) => {
    const all: number[] = [];
    for (let n = 0; n < count; n++) all.push(await open());
    return all;
  };
  expect(await statuses(6)).toEqual([200, 200, 200, 200, 429, 429]);
  expect(await open(other)).toBe(200);
  ends[0]!();
  await expect.poll(() => open()).toBe(200);
  expect(await open()).toBe(429);
  for (const end of ends) end();
});
