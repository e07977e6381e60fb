import { statSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readConfig } from '../config';
import { addStaff } from '../accounts/operations';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { QUERIES_MS } from './sessions';

/* What people who mean harm would try at the door. */

let app: Served;
let round: number;
beforeAll(async () => {
  app = await serve();
  round = app.addRound(samplePaper());
});
afterAll(() => app.close());

const told = ({ status, body }: { status: number; body: Refusal }) => [status, body.code];

describe('a request', () => {
  it.each(['null', 'no address', 'http://', 'http://elsewhere.example'])(
    'from the origin “%s” changes nothing',
    async (Origin) => {
      const { client } = await app.sitting(app.invite(round));
      expect(told(await client.post<Refusal>('/live/say', { text: 'x', hand: false }, { Origin }))).toEqual([
        403,
        'foreign-origin',
      ]);
    },
  );

  it.each([
    ['arrays', '['.repeat(100_000) + ']'.repeat(100_000)],
    ['arrays in a few bytes', '['.repeat(7000) + ']'.repeat(7000)],
    ['objects', '{"a":'.repeat(60_000) + '1' + '}'.repeat(60_000)],
    ['rich text', `{"entries":[${'{"content":['.repeat(20_000)}${']}'.repeat(20_000)}]}`],
  ])('nested thousands of levels deep is refused in words: %s', async (_, body) => {
    const { client } = await app.sitting(app.invite(round));
    for (const path of ['/live/say', '/sitting/journal', '/arrival/checks']) {
      const init = { method: 'POST', body, headers: { 'Content-Type': 'application/json' } };
      const answered = await client.send<Refusal>(path, init);
      expect([400, 413, 422]).toContain(answered.status);
      expect(answered.body.message.code).toMatch(/^error\./);
    }
  });

  it('for an echo is small, and not for strangers', async () => {
    const { client } = await app.sitting(app.invite(round));
    expect((await client.post('/echo', { text: 'x'.repeat(900) })).status).toBe(200);
    expect((await client.post('/echo', { text: 'x'.repeat(1100) })).status).toBe(413);
    // A rehearsal is open without a link, and its connection is checked like any other.
    expect((await new ApiClient(app.url).post('/echo', {})).status).toBe(200);
  });

  it('that may be large is read of those alone who may send it', async () => {
    // The list of people may have 4 MB: whoever may not send it learns that before anything is read.
    const tooLarge = new Uint8Array(5 * 1024 * 1024);
    const send = async (client: ApiClient) =>
      (
        await client.send<Refusal>(`/rounds/${round}/people/check`, {
          method: 'POST',
          body: tooLarge,
          headers: { 'Content-Type': 'application/octet-stream' },
        })
      ).status;
    expect(await send(new ApiClient(app.url))).toBe(401);
    expect(await send(app.staff('invigilator'))).toBe(403);
    expect(await send(app.staff('coordinator'))).toBe(413);
    // A picture may have 2 MB.
    const picture = await new ApiClient(app.url).put('/arrival/picture/person', tooLarge, {
      'Content-Type': 'image/jpeg',
    });
    expect(picture.status).toBe(401);
  });

  it('to say something is counted by the minute, and what was said before has arrived', async () => {
    const { client } = await app.sitting(app.invite(round));
    const say = () => client.post<Refusal & { messages: unknown[] }>('/live/say', { text: 'x', hand: false });
    for (let n = 0; n < 12; n++) expect((await say()).status).toBe(200);
    const refused = await say();
    expect([refused.status, refused.body.message.code]).toEqual([429, 'error.tooManyMessages']);
    expect((await client.get<{ messages: unknown[] }>('/live')).body.messages).toHaveLength(12);
  });
});

describe('a sitting', () => {
  it('takes what an honest device may have gathered, and no more; what it took is kept', async () => {
    const device = await app.sitting(app.invite(round));
    const flood = async () => {
      for (let n = 0; n < 2000; n++) device.write('the-number/A', { text: `${n}`, unit: null });
      return (await device.save()) as unknown as { status: number; body: Refusal };
    };
    expect([(await flood()).status, (await flood()).status]).toEqual([200, 200]);
    // The burst is 4,000 rows, and eight more come with every second: what is checked is what has been written before, so
    // that the third is taken where the first two took their time, and the fourth never.
    const third = await flood();
    const refused = third.status === 200 ? await flood() : third;
    expect([refused.status, refused.body.message.code]).toEqual([429, 'error.tooMuchWriting']);
    // Five minutes later 2,400 rows more may have come: the same batch, sent again, is taken.
    app.clock.advance(5 * 60_000);
    expect((await device.save()).status).toBe(200);
  });

  it('is told a name of its own, not the code that assessors know it by', async () => {
    const device = await app.sitting(app.invite(round));
    const scripts = app.wired.services.db.query.sittings.findMany().sync();
    const body = JSON.stringify([device.opened, (await device.client.get('/arrival')).body]);
    expect(scripts.filter(({ script }) => body.includes(script))).toEqual([]);
  });
});

describe('a session', () => {
  it('ends its streams when somebody signs out', async () => {
    const invigilator = app.staff('invigilator');
    const stream = await invigilator.stream(`/watch/${round}/stream`);
    await stream.next();
    await invigilator.post('/sign-out');
    await expect(stream.next()).rejects.toThrow('the stream has ended');
  });

  it('of a candidate, and the link, hold until the time for queries is over', async () => {
    const own = await serve();
    try {
      const link = own.invite(own.addRound(samplePaper()));
      const client = await own.atCover(link);
      const { closesAt } = own.wired.services.db.query.rounds.findFirst().sync()!;
      own.clock.advance(closesAt + QUERIES_MS - own.clock.now() - 1000);
      expect((await client.get('/arrival')).status).toBe(200);
      own.clock.advance(2000);
      expect((await client.get('/arrival')).status).toBe(401);
      expect((await new ApiClient(own.url).post('/arrival/open', { link })).status).toBe(404);
    } finally {
      await own.close();
    }
  });

  it('under https has cookies that browsers bind to this host, and tells them to stay with https', async () => {
    const secure = await serve({
      CLEAR_SITTING_URL: 'https://tests.example.org',
      CLEAR_SITTING_TEST_CLOCK: 'false',
    });
    try {
      const { db } = secure.wired.services;
      await addStaff(db, { email: 'o@example.org', name: 'O', password: 'a long password', roles: ['lead'] });
      const answer = await fetch(`${secure.url}/api/sign-in`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ email: 'o@example.org', password: 'a long password' }),
      });
      expect(answer.headers.getSetCookie()[0]).toMatch(
        /^__Host-clear_sitting_staff=[\w-]{27}; Path=\/; HttpOnly; Secure; SameSite=Strict$/,
      );
      for (const of of ['/sign-in', '/no-such-address'])
        expect((await fetch(`${secure.url}/api${of}`)).headers.get('strict-transport-security')).toContain(
          'max-age=',
        );
      const page = await fetch(secure.url);
      expect(page.headers.get('strict-transport-security')).toContain('max-age=31536000');
    } finally {
      await secure.close();
    }
  });
});

describe('the installation', () => {
  it.each(['CLEAR_SITTING_TEST_CLOCK', 'CLEAR_SITTING_STANDIN_CAMERA'])(
    'does not start with %s where people come by https',
    (name) =>
      expect(() => readConfig({ CLEAR_SITTING_URL: 'https://tests.example.org', [name]: 'true' })).toThrow(
        'not for a server that people reach by https',
      ),
  );

  it('keeps its database for its own account alone', () => {
    const { name } = app.wired.services.db.$client;
    for (const file of [name, `${name}-wal`]) expect(statSync(file).mode & 0o777).toBe(0o600);
  });
});
