import type { LiveView } from '../../core/live/api';
import { doorCodeOf } from './doorCode';
import sharp from 'sharp';
import { SMALL_PICTURE } from '../../core/testing/smallPicture';
import { documentAsText } from '../../core/documents/documentAsText';
import { say } from '../../core/messages/words';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { ArrivalOpened, ArrivalView } from '../../core/arrival/api';
import type { RoundSettings } from '../../core/rounds/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import { audit, arrivals } from '../db/schema';
import { ApiClient, type Answered, type Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
beforeAll(async () => (app = await serve()));
afterAll(() => app.close());

type Step = ArrivalView & Refusal;

let version = 1;
const newRound = (settings: Partial<RoundSettings> = {}) =>
  app.addRound({ ...samplePaper(), version: version++ }, settings);

/** Somebody who has opened their link; each step gives what the server answered. */
async function opened(round: number, arrangements: Parameters<Served['invite']>[2] = {}) {
  const client = new ApiClient(app.url);
  const link = app.invite(round, 0, arrangements);
  await client.post('/arrival/open', { link });
  const step = (path: string, body: object = {}) => client.post<Step>(`/arrival/${path}`, body);
  return {
    client,
    link,
    step,
    view: async () => (await client.get<ArrivalView>('/arrival')).body,
    live: async () => (await client.get<LiveView>('/live')).body,
    details: (correction: string | null = null) => step('details', { correction }),
    rules: (accepted = ['honest'], of = '1') => step('rules', { version: of, accepted }),
    checks: (names: readonly string[], goOn = true, outcome = 'good') =>
      step('checks', { results: names.map((name) => ({ name, outcome, facts: { measured: 1 } })), goOn }),
  };
}
const told = ({ status, body }: Answered<Refusal>) => [status, body.code];

describe('a rush', () => {
  it('lets people in one after the other; who sits a test, or is in, is not asked to wait', async () => {
    const own = await serve();
    // All come in the same moment, however long this machine takes for it.
    vi.useFakeTimers({ toFake: ['Date'] });
    try {
      const round = own.addRound({ ...samplePaper(), key: 'rush' });
      const sitting = own.invite(round);
      await own.sitting(sitting);
      vi.spyOn(own.wired.services.scheduler, 'backlog', 'get').mockReturnValue(100);
      const open = async (link: string, client = new ApiClient(own.url)) =>
        (await client.post<ArrivalOpened>('/arrival/open', { link })).body;
      const links = Array.from({ length: 200 }, () => own.invite(round));
      const replies = await Promise.all(links.map((link) => open(link)));
      const places = replies.map((reply) => ('queue' in reply ? reply.queue.place : 0));
      expect(places).toContain(1);
      const inside = links[places.indexOf(0)]!;
      const last = links[places.indexOf(Math.max(...places))]!;
      // A link that nobody was sent has no place, and nobody who works is sent back to the door.
      expect(await open('no-such-link')).toMatchObject({ code: 'wrong-link' });
      expect(await open(sitting)).toMatchObject({ stage: { at: 'running' } });
      expect(await open(inside)).toMatchObject({ stage: { at: 'arriving' } });
      expect(await open(last)).toHaveProperty('queue.place');
    } finally {
      vi.restoreAllMocks();
      vi.useRealTimers();
      await own.close();
    }
  });
});

describe('the link', () => {
  it('opens nothing when it is wrong, mangled or a piece of another', async () => {
    const client = new ApiClient(app.url);
    const link = app.invite(newRound());
    const tries = await Promise.all(
      ['x', link.slice(0, -1), `${link}x`, link.toUpperCase(), `${link}.`, `${link}%E2%8`, 'a b'].map(
        (wrong) => client.post<Refusal>('/arrival/open', { link: wrong }),
      ),
    );
    expect(tries.map(told)).toEqual(tries.map(() => [404, 'wrong-link']));
    expect(tries[0]!.body.message).toEqual({ code: 'error.wrongLink' });
    expect((await client.get('/arrival')).status).toBe(401);
    expect((await client.post('/arrival/open', { link: 7 })).status).toBe(400);
  });

  it('is not guessed loudly, while right ones go on being opened from the same address', async () => {
    const quiet = await serve();
    const client = new ApiClient(quiet.url);
    const wrong = () => client.post<Refusal>('/arrival/open', { link: 'no-such-link' });
    const round = quiet.addRound(samplePaper());
    const answered = await Promise.all(Array.from({ length: 125 }, wrong));
    const statuses = answered.map((a) => a.status);
    expect([statuses.filter((s) => s === 404).length, statuses.filter((s) => s === 429).length]).toEqual([
      120, 5,
    ]);
    expect((await client.post('/arrival/open', { link: quiet.invite(round) })).status).toBe(200);
    await quiet.close();
  });

  it.each([
    ['0', 429], // no proxy: anyone can write such a header, and it counts for nothing
    ['1', 404], // the proxy wrote it: another caller, which has not guessed yet
  ])(
    'behind %s proxies, a wrong one from another address after 120 is answered %i',
    async (proxies, status) => {
      const quiet = await serve({ CLEAR_SITTING_PROXIES: proxies });
      const client = new ApiClient(quiet.url);
      const wrongFrom = (address: string) =>
        client.post('/arrival/open', { link: 'no-such-link' }, { 'X-Forwarded-For': address });
      await Promise.all(Array.from({ length: 120 }, () => wrongFrom('203.0.113.1')));
      expect((await wrongFrom('203.0.113.1')).status).toBe(429);
      expect((await wrongFrom('203.0.113.2')).status).toBe(status);
      await quiet.close();
    },
  );

  it('opens for two hundred at once from one address', async () => {
    const round = newRound();
    const links = Array.from({ length: 200 }, () => app.invite(round));
    const opening = links.map((link) => new ApiClient(app.url).post('/arrival/open', { link }));
    expect(new Set((await Promise.all(opening)).map((a) => a.status))).toEqual(new Set([200]));
  });

  it('leads everybody to their own arrival, also on one device after the other', async () => {
    const round = newRound();
    const client = new ApiClient(app.url);
    const names: string[] = [];
    for (const link of [app.invite(round), app.invite(round)]) {
      // Behind two hundred others one may stand in the queue for a moment.
      await vi.waitFor(
        async () => expect((await client.post('/arrival/open', { link })).body).not.toHaveProperty('queue'),
        { timeout: 20_000 },
      );
      names.push((await client.get<ArrivalView>('/arrival')).body.candidate.name);
    }
    expect(new Set(names).size).toBe(2);
  });

  it('tells before the doors when they open, and after the window that it is over', async () => {
    const { view, step } = await opened(newRound({ doorsMinutes: 0 }));
    const { round } = await view();
    app.clock.advance(-2 * MINUTE_MS);
    expect((await view()).stage).toEqual({ at: 'too early' });
    expect(told(await step('details', { correction: null }))).toEqual([409, 'not-arriving']);
    app.clock.advance(2 * MINUTE_MS + (round.closesAt - round.opensAt));
    expect((await view()).stage).toEqual({ at: 'over' });
    app.clock.advance(round.opensAt - round.closesAt);
  });
});

describe('the steps', () => {
  it('come in their order, stay done, and end at the cover page', async () => {
    const round = newRound({ checks: ['browser', 'storage'] });
    const { view, details, checks, rules, client } = await opened(round);
    const at = async () => (await view()).stage;
    expect(await at()).toEqual({ at: 'arriving', step: 'details' });
    await details();
    expect(await at()).toEqual({ at: 'arriving', step: 'checks' });
    expect(told(await client.post<Refusal>('/sitting/prepare'))).toEqual([409, 'not-ready']);
    await checks(['browser'], false);
    expect(await at()).toEqual({ at: 'arriving', step: 'checks' });
    expect(told(await checks(['browser']))[0]).toBe(400);
    await checks(['browser', 'storage']);
    expect(await at()).toEqual({ at: 'arriving', step: 'rules' });
    await rules();
    expect(await at()).toEqual({ at: 'arriving', step: 'cover' });
    // A step taken again, as with a reload in between, takes nothing back.
    await details();
    expect(await at()).toEqual({ at: 'arriving', step: 'cover' });
  });

  it('goes on with a check that could be better; what was found is kept for the invigilator', async () => {
    const round = newRound({ checks: ['connection'] });
    const { view, details, checks } = await opened(round);
    await details();
    await checks(['connection'], true, 'could be better');
    expect((await view()).checks.results).toEqual([
      { name: 'connection', outcome: 'could be better', facts: { measured: 1 } },
    ]);
    expect((await view()).stage).toEqual({ at: 'arriving', step: 'rules' });
  });

  it.each([
    ['the same check twice', ['browser', 'browser'], 'good'],
    ['a check that is none', ['telepathy'], 'good'],
    ['an outcome that is none', ['browser'], 'splendid'],
  ])('takes no results with %s', async (_, names, outcome) => {
    const { details, checks, view } = await opened(newRound({ checks: ['browser'] }));
    await details();
    expect(told(await checks(names, true, outcome))).toEqual([400, 'malformed']);
    expect((await view()).checks.results).toEqual([]);
  });

  it('shows which checks need not pass, by arrangement, to the candidate alone', async () => {
    const round = newRound({ checks: ['browser', 'camera'] });
    const arranged = await opened(round, { waivedChecks: ['camera'], reason: 'in writing' });
    const other = await opened(round);
    expect((await arranged.view()).checks.waived).toEqual(['camera']);
    expect((await other.view()).checks.waived).toEqual([]);
    expect(JSON.stringify(await arranged.view())).not.toContain('in writing');
  });
});

describe('the rules', () => {
  it('have to be accepted item by item, and in the version that counts', async () => {
    const { details, rules, view } = await opened(newRound());
    await details();
    expect(told(await rules([]))).toEqual([400, 'malformed']);
    expect(told(await rules(['honest'], '0'))).toEqual([409, 'rules-changed']);
    expect((await view()).stage).toEqual({ at: 'arriving', step: 'rules' });
    const before = app.clock.now();
    await rules();
    const row = app.wired.services.db.select().from(arrivals).all().at(-1)!;
    expect(row.rulesVersion).toBe('1');
    expect(row.rulesAt! - before).toBeLessThan(MINUTE_MS);
  });
});

describe('a picture', () => {
  const asPicture = async (client: ApiClient, of: string, body: Buffer) =>
    client.send<Step>(`/arrival/picture/${of}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'image/jpeg' },
      body: new Uint8Array(body),
    });
  const whole = Buffer.from(SMALL_PICTURE, 'base64');
  const plain = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#999' } });

  it('is one that can be decoded: not what only begins like one, is cut off, of another kind, or a bomb', async () => {
    const { client, details } = await opened(newRound({ checks: ['camera'] }));
    await details();
    const tries = [
      Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 0, 0, 1]),
      (await plain(640, 480).jpeg().toBuffer()).subarray(0, 900),
      await plain(16, 12).png().toBuffer(),
      // 36 million points in 200 kB.
      await plain(6000, 6000).jpeg({ quality: 10 }).toBuffer(),
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="8" height="8"/>'),
      Buffer.alloc(0),
    ];
    for (const bytes of tries) {
      const refused = await asPicture(client, 'person', bytes);
      expect([refused.status, refused.body.message.code]).toEqual([400, 'error.pictureBroken']);
    }
    expect((await asPicture(client, 'person', whole)).body.pictureTaken).toBe(true);
  });

  it('is kept without what a camera writes into it, turned as it was taken', async () => {
    const { client, details } = await opened(newRound({ checks: ['camera'] }));
    await details();
    const exif = { IFD0: { Artist: 'a phone that tells', Orientation: '6' } };
    const told = await plain(40, 20).withExif(exif).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    expect((await asPicture(client, 'person', told)).status).toBe(200);
    const { files, db } = app.wired.services;
    const invitation = db.select().from(arrivals).all().at(-1)!.invitationId;
    const kept = files.find(invitation, 'picture')!;
    const { exif: left, width, height } = await sharp(kept).metadata();
    expect([left, width, height]).toEqual([undefined, 20, 40]);
    expect(kept.includes('a phone that tells')).toBe(false);
  });

  it('of an identity document is required where the round asks for one', async () => {
    const { client, details, rules, view } = await opened(newRound({ identityPicture: true }));
    await details();
    expect((await asPicture(client, 'person', whole)).body.stage).toEqual({
      at: 'arriving',
      step: 'picture',
    });
    await rules();
    expect((await view()).stage).toEqual({ at: 'arriving', step: 'picture' });
    const both = await asPicture(client, 'identity', whole);
    expect(both.body.stage).toEqual({ at: 'arriving', step: 'cover' });
  });
});

describe('without a camera', () => {
  it('one goes on without a picture, but not where the camera worked a moment ago', async () => {
    const round = newRound({ checks: ['camera'] });
    const works = await opened(round);
    await works.details();
    await works.checks(['camera']);
    expect(told(await works.step('no-picture'))).toEqual([409, 'camera-works']);
    const broken = await opened(round);
    await broken.details();
    await broken.checks(['camera'], true, 'not working');
    await broken.step('no-picture');
    expect(await broken.view()).toMatchObject({
      stage: { at: 'arriving', step: 'rules' },
      pictureTaken: false,
    });
  });

  it('no identity picture is taken where the round asks for none', async () => {
    const { client, details, checks } = await opened(newRound({ checks: ['camera'] }));
    await details();
    await checks(['camera']);
    const jpeg = Buffer.from(SMALL_PICTURE, 'base64');
    const headers = { 'Content-Type': 'image/jpeg' };
    const put = await client.send<Refusal>('/arrival/picture/identity', {
      method: 'PUT',
      headers,
      body: jpeg,
    });
    expect(told(put)).toEqual([400, 'malformed']);
  });
});

describe('at the door', () => {
  it('the code is refused before the opening, and every wrong one is on record', async () => {
    const round = newRound({ startRule: 'door code', doorsMinutes: 60 });
    const { details, rules, step, view, live } = await opened(round);
    app.clock.advance(-30 * MINUTE_MS);
    await details();
    await rules();
    expect((await view()).stage).toEqual({ at: 'arriving', step: 'waiting' });
    expect(told(await step('door', { code: 'WREN 11' }))).toEqual([409, 'not-open']);
    app.clock.advance(30 * MINUTE_MS);
    // What cannot be a code is no try.
    for (const code of ['MOSS 27', '12345', '1234567', 'nothing like it'])
      expect(told(await step('door', { code }))).toEqual([422, 'no-door-code']);
    const { triesLeft } = await live();
    expect(triesLeft).toBe(5);
    const right = doorCodeOf(app.wired.services.secret, round);
    const wrong = right.startsWith('9') ? '100 000' : '900 000';
    expect(told(await step('door', { code: wrong }))[1]).toBe('wrong-code');
    expect((await live()).triesLeft).toBe(4);
    const acts = app.wired.services.db.select().from(audit).all();
    expect(acts.at(-1)!.act).toBe('gave-wrong-door-code');
    expect((await step('door', { code: right.replace(' ', '–') })).status).toBe(200);
  });

  it('there is none where the opening time alone decides', async () => {
    const { details, rules, step } = await opened(newRound());
    await details();
    await rules();
    expect(told(await step('door', { code: 'WREN 11' }))).toEqual([409, 'no-door']);
  });
});

describe('what is told', () => {
  it('is the candidate’s own time, the window, and nothing of the paper’s questions', async () => {
    const round = newRound({ attemptsAllowed: 2, counts: 'mean' });
    const client = new ApiClient(app.url);
    const link = app.invite(round, 25, { breakMinutes: 10 });
    const { body } = await client.post<ArrivalView>('/arrival/open', { link });
    expect(body.time).toEqual({ limitMs: 30 * MINUTE_MS, extraPercent: 25, breakMinutes: 10 });
    expect(body.round).toMatchObject({ attemptsAllowed: 2, timeZone: 'Europe/Oslo' });
    expect(body.round.attempts.map(say)).toEqual([
      'You have 2 attempts.',
      'Your result is the mean of all your attempts.',
      'An attempt that you start and leave empty is an attempt like any other.',
    ]);
    expect(body.attempt).toBe(1);
    const paper = samplePaper();
    const prompts = paper.bank.flatMap((item) => item.parts.map((part) => documentAsText(part.prompt, say)));
    for (const prompt of prompts) expect(JSON.stringify(body)).not.toContain(prompt);
  });

  it('includes a calendar file with the window', async () => {
    const { client, view } = await opened(newRound());
    const { body } = await client.get<string>('/arrival/test-window.ics');
    const { opensAt } = (await view()).round;
    const stamp = new Date(opensAt)
      .toISOString()
      .replace(/[-:]|\.\d+/g, '')
      .slice(0, 13);
    expect(body).toContain(`DTSTART:${stamp}`);
    expect(body).not.toContain('/i/');
  });
});
