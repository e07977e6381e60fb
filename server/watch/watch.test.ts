import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ArrivalView } from '../../core/arrival/api';
import type { LiveView } from '../../core/live/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import type { WatchAct, WatchChange, WatchNews, WatchRoundRow, WatchView } from '../../core/watch/api';
import { doorCodeOf } from '../arrival/doorCode';
import { arrivals, audit, messages } from '../db/schema';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import type { TestDevice } from '../testing/TestDevice';

let app: Served;
let bram: ApiClient;
beforeAll(async () => {
  app = await serve();
  bram = app.staff('invigilator');
});
afterAll(() => app.close());

let version = 1;
const newRound = (settings: Parameters<Served['addRound']>[1] = {}) =>
  app.addRound({ ...samplePaper(), version: version++ }, settings);

async function arrived(link: string): Promise<ApiClient> {
  const client = new ApiClient(app.url);
  await client.post('/arrival/open', { link });
  await client.post('/arrival/details', { correction: null });
  await client.post('/arrival/rules', { version: '1', accepted: ['honest'] });
  return client;
}
const stageOf = async (client: ApiClient) => (await client.get<ArrivalView>('/arrival')).body.stage;
const watch = async (round: number) => (await bram.get<WatchView>(`/watch/${round}`)).body;
const act = async (round: number, name: WatchAct, minutes = 0, text = 'for a reason') => {
  const { invitation } = (await watch(round)).rows[0]!;
  return bram.post<WatchChange & Refusal>(`/watch/${round}/acts`, { act: name, invitation, text, minutes });
};
const timeOf = async ({ client }: TestDevice) => (await client.get<LiveView>('/live')).body.time!;

describe('the door', () => {
  it('opens by hand, and the act is on record with its reason', async () => {
    const round = newRound({ startRule: 'by hand' });
    const client = await arrived(app.invite(round));
    expect(await stageOf(client)).toEqual({ at: 'arriving', step: 'waiting' });
    expect((await watch(round)).rows).toMatchObject([{ state: 'waiting' }]);
    expect((await client.get<LiveView>('/live')).body.place).toBe(1);
    expect((await act(round, 'grant', 5)).body.code).toBe('not-started');
    await act(round, 'admit', 0, 'known by the picture');
    expect(await stageOf(client)).toEqual({ at: 'arriving', step: 'cover' });
    const last = app.wired.services.db.select().from(audit).all().at(-1);
    expect(last).toMatchObject({ act: 'admit', reason: 'known by the picture' });
  });

  it('opens without a reason for who passed all checks alone, and every raised hand is counted', async () => {
    const round = newRound({ startRule: 'by hand' });
    const client = await arrived(app.invite(round));
    const listed = async () =>
      (await bram.get<WatchRoundRow[]>('/watch')).body.find((one) => one.id === round)!;
    expect(await listed()).toMatchObject({ hands: 0, handSince: null });
    await client.post('/live/say', { text: 'May I start?', hand: true });
    await client.post('/live/say', { text: 'I am still waiting', hand: true });
    const at = app.wired.services.db.select().from(messages).all().at(-2)!.at;
    // Two questions of one person are one hand.
    expect(await listed()).toMatchObject({ hands: 1, handSince: at });
    await act(round, 'answer hand', 0, 'In a minute');
    expect(await listed()).toMatchObject({ hands: 0, handSince: null });
    const { invitation } = (await watch(round)).rows[0]!;
    const admit = (text: string) =>
      bram.post<Refusal>(`/watch/${round}/acts`, { act: 'admit', invitation, text, minutes: 0 });
    const checksBe = (outcome: 'good' | 'not working') =>
      app.wired.services.db
        .update(arrivals)
        .set({ checks: [{ name: 'sound', outcome, facts: {} }] })
        .where(eq(arrivals.invitationId, invitation))
        .run();
    checksBe('not working');
    expect((await watch(round)).rows[0]!.clean).toBe(false);
    for (const reason of ['', 'x']) expect((await admit(reason)).body.code).toBe('needs-reason');
    checksBe('good');
    expect((await admit('')).status).toBe(200);
    expect(await stageOf(client)).toEqual({ at: 'arriving', step: 'cover' });
    const asks = { act: 'grant', invitation, text: '', minutes: 5 };
    expect((await bram.post(`/watch/${round}/acts`, asks)).status).toBe(400);
  });

  it('opens by the code, five times tried at most', async () => {
    const round = newRound({ startRule: 'door code' });
    const [lucky, unlucky] = [await arrived(app.invite(round)), await arrived(app.invite(round))];
    const code = doorCodeOf(app.wired.services.secret, round);
    expect((await watch(round)).doorCode).toBe(code);
    const knock = (client: ApiClient, given: string) =>
      client.post<Refusal>('/arrival/door', { code: given });
    expect((await knock(lucky, code.toLowerCase().replace(' ', '-'))).status).toBe(200);
    expect(await stageOf(lucky)).toEqual({ at: 'arriving', step: 'cover' });
    // Six digits, as a code has, and another last one.
    const wrong = code.replace(/.$/, (digit) => String((Number(digit) + 1) % 10));
    const codes: string[] = [];
    for (let n = 0; n < 6; n++) codes.push((await knock(unlucky, wrong)).body.code);
    expect(codes).toEqual([...Array<string>(5).fill('wrong-code'), 'door-shut']);
    expect((await knock(unlucky, code)).body.code).toBe('door-shut');
    // All at once they are as many tries.
    const hasty = await arrived(app.invite(round));
    const replies = await Promise.all(codes.map(() => knock(hasty, wrong)));
    expect(replies.map(({ body }) => body.code).sort()).toEqual([
      'door-shut',
      ...Array<string>(5).fill('wrong-code'),
    ]);
  });

  it('waits for a correction to be settled where the round demands it', async () => {
    const round = newRound({ correctionsFirst: true });
    const client = new ApiClient(app.url);
    await client.post('/arrival/open', { link: app.invite(round) });
    await client.post('/arrival/details', { correction: 'My name is spelt with a k' });
    expect(await stageOf(client)).toEqual({ at: 'arriving', step: 'details' });
    const { invitation, notes } = (await watch(round)).rows[0]!;
    expect(notes).toEqual([{ code: 'note.details', values: { text: 'My name is spelt with a k' } }]);
    const coordinator = app.staff('coordinator');
    await coordinator.post(`/rounds/${round}/correction-settled`, { invitation, settled: true });
    expect(await stageOf(client)).toEqual({ at: 'arriving', step: 'rules' });
  });
});

describe('a running sitting', () => {
  it('is paused, goes on, is granted minutes; none of it costs the candidate', async () => {
    const round = newRound();
    const device = await app.sitting(app.invite(round));
    await device.save();
    const before = (await timeOf(device)).deadlineAt;
    await act(round, 'pause');
    expect(await timeOf(device)).toMatchObject({ stopped: { why: 'pause' } });
    app.clock.advance(20 * MINUTE_MS);
    await app.wired.sittings.sweep();
    await act(round, 'go on');
    await device.save();
    await device.save();
    await act(round, 'grant', 7);
    // 20 minutes of pause, 7 granted; what the calls themselves took is far below a second
    const later = (await timeOf(device)).deadlineAt - before - 27 * MINUTE_MS;
    expect(Math.abs(later)).toBeLessThan(5000);
    expect((await act(round, 'go on')).body.code).toBe('time-not-stopped');
  });

  it('takes a rest break within the allowance only', async () => {
    const round = newRound();
    const device = await app.sitting(app.invite(round, 0, { breakMinutes: 10 }));
    const { client } = device;
    await device.save();
    const none = await app.sitting(app.invite(round));
    const rest = (of: TestDevice) => of.client.post<Refusal>('/sitting/break', of.batch());
    expect((await rest(none)).body.code).toBe('time-no-break-left');
    await rest(device);
    app.clock.advance(4 * MINUTE_MS);
    const { body } = await client.post<LiveView>('/live/break-over');
    expect(Math.round(body.time!.breakLeftMs / MINUTE_MS)).toBe(6);
    await device.save();
    await device.save();
    await rest(device);
    app.clock.advance(60 * MINUTE_MS);
    // 30 minutes in all, of which the hour without anybody going on has used up what was left
    expect((await client.get<LiveView>('/live')).body.time).toMatchObject({ stopped: null, leftMs: 0 });
  });

  it('is readmitted after a hand-in, and the time in between does not count', async () => {
    const round = newRound();
    const device = await app.sitting(app.invite(round));
    await device.save();
    const left = (await timeOf(device)).leftMs;
    await device.finish();
    app.clock.advance(90 * MINUTE_MS);
    expect((await watch(round)).rows).toMatchObject([{ state: 'handed in' }]);
    await act(round, 'readmit', 3);
    expect(await stageOf(device.client)).toEqual({ at: 'running' });
    await device.save();
    await device.save();
    expect(Math.abs((await timeOf(device)).leftMs - left - 3 * MINUTE_MS)).toBeLessThan(5000);
    app.clock.advance(MINUTE_MS);
    const at = app.clock.now();
    const { receipt } = await device.finish();
    expect(receipt).toMatchObject({ closedBy: 'candidate' });
    expect(receipt!.handedInAt).toBeGreaterThanOrEqual(at);
  });
});

describe('words', () => {
  it('reach the other side by the stream', async () => {
    const round = newRound();
    const { client } = await app.sitting(app.invite(round));
    const views: LiveView[] = [];
    const stream = await client.stream('/live/stream');
    const next = async () => views.push(JSON.parse((await stream.next()).slice('data: '.length)) as LiveView);
    await next();
    await client.post('/live/say', { text: 'The sound stopped', hand: true });
    await next();
    expect(views[1]!.hand).toMatchObject({ text: 'The sound stopped' });
    expect((await watch(round)).rows[0]!.hand).toMatchObject({ text: 'The sound stopped' });
    await act(round, 'answer hand', 0, 'Try the headphones');
    await next();
    expect(views[2]).toMatchObject({ hand: null });
    await bram.post(`/watch/${round}/tell-all`, { text: 'Ten minutes left' });
    await next();
    expect(views[3]!.messages.map((m) => m.text)).toEqual([
      'The sound stopped',
      'Try the headphones',
      'Ten minutes left',
    ]);
    await stream.end();
  });
});

describe('the room', () => {
  const follow = async (round: number) => {
    const stream = await bram.stream(`/watch/${round}/stream`);
    const next = async () => JSON.parse((await stream.next()).slice('data: '.length)) as WatchNews;
    const first = await next();
    if (!('whole' in first)) throw new Error('the whole comes first');
    const change = async () => {
      const news = await next();
      if ('whole' in news) throw new Error('the whole comes once only');
      return news.change;
    };
    return { whole: first.whole, change, end: stream.end };
  };

  it('is sent whole once, then only the rows that changed', async () => {
    const round = newRound();
    const links = [app.invite(round), app.invite(round)];
    const { whole, change, end } = await follow(round);
    expect(whole.rows.map((r) => r.state)).toEqual(['not here', 'not here']);
    const device = await app.sitting(links[1]!);
    const started = async () => {
      for (;;) {
        const { rows } = await change();
        const row = rows.find((r) => r.state === 'writing');
        if (row) return { row, rows };
      }
    };
    const { row, rows } = await started();
    expect(rows).toHaveLength(1);
    expect(row.invitation).toBe(whole.rows[1]!.invitation);
    // Writing on alone is no reason to look everything up again at once; that something was heard follows.
    await device.save();
    const heard = async (): Promise<number> => {
      for (;;) {
        const told = (await change()).heard.find(([invitation]) => invitation === row.invitation);
        if (told) return told[1];
      }
    };
    expect(await heard()).toBeGreaterThanOrEqual(row.at);
    // Somebody invited only now is added.
    app.invite(round);
    const added = async () => {
      for (;;) {
        const late = (await change()).rows.find(
          (r) => !whole.rows.some((w) => w.invitation === r.invitation),
        );
        if (late) return late;
      }
    };
    expect(await added()).toMatchObject({ state: 'not here', heardAt: null });
    await end();
  });

  it('gives an act the changed row as its answer, and only for a candidate of the round', async () => {
    const round = newRound({ startRule: 'by hand' });
    const client = await arrived(app.invite(round));
    await arrived(app.invite(round));
    const { body } = await act(round, 'admit');
    expect(body.rows).toMatchObject([{ state: 'arriving' }]);
    expect(await stageOf(client)).toEqual({ at: 'arriving', step: 'cover' });
    const { invitation } = body.rows[0]!;
    const elsewhere = { act: 'note', invitation, text: 'not of this round', minutes: 0 };
    expect((await bram.post(`/watch/${newRound()}/acts`, elsewhere)).status).toBe(404);
    expect((await bram.get('/watch/9999/stream')).status).toBe(404);
  });

  it('moves everybody up who waits when one is let in', async () => {
    const round = newRound({ startRule: 'by hand' });
    const first = app.invite(round);
    const second = app.invite(round);
    await arrived(first);
    app.clock.advance(1000);
    const client = await arrived(second);
    const stream = await client.stream('/live/stream');
    const place = async () => (JSON.parse((await stream.next()).slice('data: '.length)) as LiveView).place;
    expect(await place()).toBe(2);
    await act(round, 'admit');
    expect(await place()).toBe(1);
    await stream.end();
  });
});

describe('pictures', () => {
  const DAY_MS = 24 * 60 * MINUTE_MS;
  const jpeg = async (shade: number) => {
    const create = {
      width: 32,
      height: 24,
      channels: 3,
      background: { r: 10 * shade, g: 90, b: 90 },
    } as const;
    return new Uint8Array(await sharp({ create }).jpeg().toBuffer());
  };
  const arriving = async (round: number) => {
    const client = new ApiClient(app.url);
    await client.post('/arrival/open', { link: app.invite(round) });
    await client.post('/arrival/details', { correction: null });
    const put = (body: Uint8Array<ArrayBuffer>) =>
      client.send('/arrival/picture/person', {
        method: 'PUT',
        headers: { 'Content-Type': 'image/jpeg' },
        body,
      });
    return put;
  };
  const kept = () => {
    const folder = path.join(app.wired.services.config.dataFolder, 'files');
    return readdirSync(folder, { recursive: true, withFileTypes: true }).filter((f) => f.isFile()).length;
  };

  it('are shown to invigilators, on record, and deleted after the retention time', async () => {
    const round = newRound({ checks: ['camera'], keptDays: 60 });
    const put = await arriving(round);
    expect((await put(Uint8Array.from([1, 2, 3]))).status).toBe(400);
    expect((await put(await jpeg(1))).status).toBe(200);
    const { invitation, pictures } = (await watch(round)).rows[0]!;
    expect(pictures).toEqual(['picture']);
    const shown = `/watch/${round}/pictures/${invitation}/picture`;
    expect((await bram.get(shown)).status).toBe(200);
    const before = kept();
    app.clock.advance(61 * DAY_MS);
    await app.wired.services.jobs.turn();
    expect(kept()).toBe(before - 1);
    expect((await bram.get(shown)).status).toBe(401);
  });

  it('that were taken again leave one, and one that another candidate shares stays with them', async () => {
    const before = kept();
    const [short, long] = [newRound({ checks: ['camera'], keptDays: 10 }), newRound({ checks: ['camera'] })];
    const [put, other] = [await arriving(short), await arriving(long)];
    for (let taken = 2; taken < 22; taken++) await put(await jpeg(taken));
    expect(kept()).toBe(before + 1);
    // The same picture, to the byte, of another candidate.
    await other(await jpeg(21));
    app.clock.advance(11 * DAY_MS);
    await app.wired.services.jobs.turn();
    expect(kept()).toBe(before + 1);
    app.clock.advance(50 * DAY_MS);
    await app.wired.services.jobs.turn();
    expect(kept()).toBe(before);
  });
});
