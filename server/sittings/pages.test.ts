import { readdirSync, rmSync, truncateSync } from 'node:fs';
import path from 'node:path';
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import {
  MOST_PHONE_PAGES,
  PAGE_PART_BYTES,
  PHONE_MS,
  type Page,
  type PagePartReply,
} from '../../core/files/pages';
import type { PhoneOpened, PhoneView } from '../../core/files/phone';
import { emptyRich } from '../../core/kinds/shared/richText';
import type { LiveView } from '../../core/live/api';
import type { MarkingTableData } from '../../core/marking/api';
import type { RoundSettings } from '../../core/rounds/api';
import { MINUTE_MS, PAGES_MS } from '../../core/timing/deadline';
import { decisions, markingTasks, sittings } from '../db/schema';
import { sha256 } from '../secrets';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { TaggedPdf } from '../printing/TaggedPdf';
import { readPdf } from '../testing/readPdf';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import type { TestDevice } from '../testing/TestDevice';
import { answersOfReceipt, newestReceipt, receiptHolds } from './receipts';

let app: Served;
beforeAll(async () => {
  app = await serve();
  // Time stands still unless a test moves it.
  vi.useFakeTimers({ toFake: ['Date'] });
});
afterAll(async () => {
  vi.useRealTimers();
  await app.close();
});

const TARGET = 'the-upload/A';
let version = 1;
const newRound = (settings: Partial<RoundSettings> = {}) =>
  app.addRound({ ...samplePaper(), version: version++ }, settings);
const start = (round = newRound()) => app.sitting(app.invite(round));
const db = () => app.wired.services.db;
const rowOf = (device: TestDevice) =>
  db().select().from(sittings).where(eq(sittings.deviceName, device.opened.sitting)).get()!;
const later = async (ms: number) => {
  app.clock.advance(ms);
  await app.wired.services.jobs.turn();
};

type Bytes = Uint8Array<ArrayBuffer>;
/** A picture, another for each name; with the place where it was taken, as phones write it. */
const picture = async (name: string, side = 700): Promise<Bytes> => {
  const noise = { type: 'gaussian', mean: 128, sigma: 30 } as const;
  const made = await sharp({ create: { width: side, height: side, channels: 3, background: '#fff', noise } })
    .jpeg({ quality: 95 })
    .withExif({ IFD0: { Copyright: name }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '59/1 54/1 0/1' } })
    .toBuffer();
  return new Uint8Array(made);
};
const pageOf = (bytes: Bytes, more: Partial<Page> = {}): Page => ({
  hash: sha256(bytes),
  bytes: bytes.length,
  type: 'image/jpeg',
  turn: 0,
  ...more,
});
const answer = (...given: readonly Page[]) => ({
  version: 1,
  response: { pages: given, joined: 0, text: emptyRich },
});

type Reply = PagePartReply & Refusal;
const addressOf = (device: TestDevice, { hash, bytes }: Page, from: number) =>
  `/sitting/${device.opened.sitting}/pages/${hash}/${bytes}/${from}`;
const part = (bytes: Bytes, from: number) => bytes.slice(from, from + PAGE_PART_BYTES);

/** Sends a page as a device does, from where the server holds it. */
async function sends(device: TestDevice, bytes: Bytes, page = pageOf(bytes)): Promise<Reply> {
  for (let held = 0; ;) {
    const { status, body } = await device.client.put<Reply>(addressOf(device, page, held), part(bytes, held));
    expect(status).toBe(200);
    if (body.state !== 'partly') return body;
    held = body.held;
  }
}

describe('the bytes of a page', () => {
  it('come in parts, in their order; what comes twice or too early changes nothing', async () => {
    const device = await start();
    // Noise cannot be packed: several parts, and a last one that is shorter.
    const bytes = await picture('parts', 900);
    const page = pageOf(bytes);
    expect(bytes.length).toBeGreaterThan(2 * PAGE_PART_BYTES);
    const send = (from: number, what = part(bytes, from)) =>
      device.client.put<Reply>(addressOf(device, page, from), what).then(({ body }) => body.held);
    expect(await send(PAGE_PART_BYTES)).toBe(0);
    expect(await send(0)).toBe(PAGE_PART_BYTES);
    expect(await send(0)).toBe(PAGE_PART_BYTES);
    expect(await Promise.all([send(PAGE_PART_BYTES), send(PAGE_PART_BYTES)])).toEqual(
      Array(2).fill(2 * PAGE_PART_BYTES),
    );
    expect(await sends(device, bytes)).toEqual({ held: bytes.length, state: 'here' });
    expect(await sends(device, bytes)).toEqual({ held: bytes.length, state: 'here' });
    const seen = await device.client.bytes(`/sitting/pages/${page.hash}`);
    const facts = await sharp(seen.bytes).metadata();
    // Seen is a re-encoded picture: as large, and without the place where it was taken. The file itself is as sent.
    expect([seen.type, facts.width, facts.exif]).toEqual(['image/jpeg', 900, undefined]);
    expect(Buffer.from(app.wired.services.files.store.read(page.hash)!).equals(Buffer.from(bytes))).toBe(
      true,
    );
  });

  it.each(['gone', 'shorter'])('begin again where a restored backup has their draft %s', async (how) => {
    const device = await start();
    const bytes = await picture(`restored ${how}`, 900);
    const page = pageOf(bytes);
    const send = (from: number) => device.client.put<Reply>(addressOf(device, page, from), part(bytes, from));
    expect((await send(0)).body.held).toBe(PAGE_PART_BYTES);
    const { dataFolder } = app.wired.services.config;
    const [draft] = readdirSync(path.join(dataFolder, 'pages'));
    const at = path.join(dataFolder, 'pages', draft!);
    if (how === 'gone') rmSync(at);
    else truncateSync(at, 10);
    expect(await send(PAGE_PART_BYTES)).toMatchObject({ status: 200, body: { held: 0, state: 'partly' } });
    expect(await sends(device, bytes)).toEqual({ held: bytes.length, state: 'here' });
  });

  it('are checked by hash and by content, whatever the device says', async () => {
    const device = await start();
    const text = new Uint8Array(Buffer.from('<script>alert(1)</script>'.repeat(9)));
    expect((await sends(device, text)).state).toBe('unreadable');
    // 60 000 × 60 000 pixels in some bytes: refused by its head, before it is unpacked.
    const bomb = new Uint8Array(
      await sharp({ create: { width: 9, height: 9, channels: 3, background: '#fff' } })
        .png()
        .toBuffer(),
    );
    new DataView(bomb.buffer).setUint32(16, 60_000);
    new DataView(bomb.buffer).setUint32(20, 60_000);
    expect((await sends(device, bomb)).state).toBe('unreadable');
    const other = { ...pageOf(await picture('other', 50)), hash: 'e'.repeat(64) };
    const wrong = await picture('wrong', 50);
    // Something on the way has changed it: all of it once more, three times.
    expect((await sends(device, wrong, { ...other, bytes: wrong.length })).state).toBe('unreadable');
    for (const hash of [sha256(text), sha256(bomb), other.hash])
      expect((await device.client.get(`/sitting/pages/${hash}`)).status).toBe(404);
  });

  it('are refused where there are more of them than was said, or another size is said later', async () => {
    const device = await start();
    const bytes = await picture('sizes', 60);
    const page = pageOf(bytes);
    const short = { ...page, bytes: bytes.length - 1 };
    expect(await device.client.put(addressOf(device, short, 0), bytes)).toMatchObject({ status: 400 });
    // Begun with another size: one of the two is made up.
    await device.client.put(addressOf(device, short, 0), bytes.slice(0, -1));
    expect(await device.client.put(addressOf(device, page, 0), bytes)).toMatchObject({ status: 400 });
    const crumb = addressOf(device, { ...page, hash: 'd'.repeat(64) }, 0);
    expect(await device.client.put(crumb, bytes.slice(0, 9))).toMatchObject({ status: 400 });
    const huge = addressOf(device, { ...page, hash: 'f'.repeat(64), bytes: 13 * 1024 * 1024 }, 0);
    expect(await device.client.put(huge, bytes)).toMatchObject({ status: 400 });
    const large = await device.client.put(addressOf(device, page, 0), new Uint8Array(400 * 1024));
    expect(large.status).toBe(413);
  });

  it('are nobody else’s', async () => {
    const [device, stranger] = [await start(), await start()];
    const bytes = await picture('own', 60);
    await sends(device, bytes);
    const page = pageOf(bytes);
    expect((await stranger.client.get(`/sitting/pages/${page.hash}`)).status).toBe(404);
    expect((await stranger.client.put(addressOf(device, page, 0), bytes)).status).toBe(404);
  });
});

describe('after the hand-in', () => {
  const openOf = (device: TestDevice) =>
    db()
      .select()
      .from(decisions)
      .where(eq(decisions.sittingId, rowOf(device).id))
      .all()
      .filter((one) => one.decidedAt === null);
  const scored = (device: TestDevice) => rowOf(device).scoredAt !== null;
  const tasksOf = (device: TestDevice) =>
    db()
      .select()
      .from(markingTasks)
      .where(and(eq(markingTasks.sittingId, rowOf(device).id), eq(markingTasks.target, TARGET)))
      .all();

  it('marking waits for pages that the answers name, and nothing else is taken', async () => {
    const device = await start();
    const [named, unnamed] = [await picture('named'), await picture('unnamed', 60)];
    device.write(TARGET, answer(pageOf(named)));
    await device.finish();
    await later(0);
    expect(scored(device)).toBe(false);
    const stray = await device.client.put(addressOf(device, pageOf(unnamed), 0), part(unnamed, 0));
    expect(stray.status).toBe(404);
    await later(PAGES_MS - MINUTE_MS);
    await sends(device, named);
    await later(0);
    expect([scored(device), openOf(device), tasksOf(device).length]).toEqual([true, [], 1]);
  });

  it('a page that came too late is put before a coordinator; taken, it opens its own part again', async () => {
    const round = newRound();
    const device = await start(round);
    const [bytes, never] = [await picture('late', 60), pageOf(await picture('never', 60))];
    device.write(TARGET, answer(pageOf(bytes), never));
    await device.finish();
    await later(PAGES_MS + MINUTE_MS);
    expect(openOf(device)).toMatchObject([{ kind: 'late-pages', facts: { count: 2, late: 0 } }]);
    await sends(device, bytes);
    await later(0);
    const [open] = openOf(device);
    expect(open).toMatchObject({ facts: { count: 1, late: 1 } });
    const lead = app.staff('lead');
    const coordinator = app.staff('coordinator');
    const seenBy = (who: ApiClient) =>
      who.bytes(`/marking/tasks/${tasksOf(device)[0]!.id}/pages/${pageOf(bytes).hash}`);
    const decide = (id: number, choice: string) =>
      coordinator.post(`/rounds/${round}/decisions`, { id, choice, reason: 'the line was cut' });
    expect((await decide(open!.id, 'leave')).status).toBe(200);
    await later(0);
    const before = tasksOf(device)[0]!;
    expect([scored(device), (await seenBy(lead)).status]).toEqual([true, 404]);
    // Decided the other way, as with a second one that came: what was there then counts.
    db().update(decisions).set({ choice: 'take' }).where(eq(decisions.id, open!.id)).run();
    app.wired.sittings.closing.decided(rowOf(device).id);
    await later(0);
    expect((await seenBy(lead)).status).toBe(200);
    expect(tasksOf(device)[0]!.response).not.toBe(before.response);
  });

  it('an assessor sees the pages of their own script alone', async () => {
    const ada = app.staff('assessor');
    const round = newRound();
    const ben = app.staff('assessor');
    const device = await start(round);
    const bytes = await picture('marked', 60);
    device.write(TARGET, answer(pageOf(bytes)));
    await sends(device, bytes);
    await device.finish();
    await later(0);
    const tables = await Promise.all(
      [ada, ben].map((who) => who.get<MarkingTableData>(`/marking/piles/${round}/${TARGET}`)),
    );
    // It is with one of the two.
    const own = tables.findIndex(({ body }) => body.scripts.length > 0);
    const [has, other] = own === 0 ? [ada, ben] : [ben, ada];
    const address = `/marking/tasks/${tables[own]!.body.scripts[0]!.task}/pages`;
    expect(await has.bytes(`${address}/${pageOf(bytes).hash}`)).toMatchObject({
      status: 200,
      type: 'image/jpeg',
    });
    expect((await other.bytes(`${address}/${pageOf(bytes).hash}`)).status).toBe(404);
    expect((await has.bytes(`${address}/${'a'.repeat(64)}`)).status).toBe(404);
  });

  it('who marks sees of a document its pages alone: neither its writer nor when it came', async () => {
    // A lead may look at every script of the round, whoever it is with.
    const marker = app.staff('lead');
    const device = await start();
    const written = new TaggedPdf({ title: 'Working', author: 'Ada Roe <ada@example.org>', language: 'en' });
    const bytes = new Uint8Array(await written.end(() => 'the foot of the page'));
    const page = pageOf(bytes, { type: 'application/pdf' });
    device.write(TARGET, answer(page));
    expect((await sends(device, bytes, page)).state).toBe('here');
    await device.finish();
    await later(0);
    expect((await readPdf(bytes)).text).toContain('the foot of the page');
    const address = `/marking/tasks/${tasksOf(device)[0]!.id}/pages/${page.hash}`;
    const [seen, again] = [await marker.raw(address), await marker.bytes(address)];
    expect(['last-modified', 'etag'].map((name) => seen.headers.get(name))).toEqual([null, null]);
    const shown = Buffer.from(await seen.arrayBuffer());
    expect(again.bytes.equals(shown)).toBe(true);
    const { pdf, pages, text } = await readPdf(shown);
    const { width, height } = (await readPdf(bytes)).pages[0]!.getViewport({ scale: 1 });
    const viewport = pages[0]!.getViewport({ scale: 1 });
    expect([text, viewport.width, viewport.height]).toEqual(['', width, height]);
    const { info } = (await pdf.getMetadata()) as unknown as { info: Record<string, unknown> };
    expect([info.Author, info.Title, info.CreationDate]).toEqual([undefined, undefined, 'D:19700101000000Z']);
    // Its sender sees what was sent.
    expect((await device.client.bytes(`/sitting/pages/${page.hash}`)).bytes.equals(Buffer.from(bytes))).toBe(
      true,
    );
  });
});

describe('a joined phone', () => {
  /** Somebody without a session, with the secret of the code. */
  const phoneOf = (secret: string) => {
    const client = new ApiClient(app.url);
    const headers = { 'X-Phone': secret };
    return {
      view: () => client.send<PhoneView & Refusal>('/phone', { headers }),
      announce: (page: Page) => client.post<Refusal>('/phone/pages', page, headers),
      put: (bytes: Bytes) =>
        client.put<Reply>(`/phone/pages/${sha256(bytes)}/${bytes.length}/0`, part(bytes, 0), headers),
    };
  };
  const open = async (device: TestDevice, target = TARGET) =>
    device.client.post<PhoneOpened & Refusal>('/sitting/phone', { target });
  const joined = async (device: TestDevice) => phoneOf((await open(device)).body.secret);
  const live = async (device: TestDevice) => (await device.client.get<LiveView>('/live')).body.pages!;
  const covered = (device: TestDevice) =>
    answersOfReceipt(db(), newestReceipt(db(), rowOf(device).id)!)[TARGET];

  it('writes its pages into the answer, in the order of arrival, whatever the desk writes; the receipt covers them', async () => {
    const device = await start();
    const phone = await joined(device);
    const { body: view } = await phone.view();
    expect([view.title, view.part, view.pages]).toEqual(['A upload', null, []]);
    expect((await live(device)).phone).toMatchObject({ target: TARGET, joined: true });
    const [first, second] = [await picture('first', 60), await picture('second', 60)];
    for (const bytes of [first, second, first]) {
      expect((await phone.announce(pageOf(bytes))).status).toBe(200);
      expect((await phone.put(bytes)).body.state).toBe('here');
    }
    const own = await picture('own', 60);
    await sends(device, own);
    await device.answer(TARGET, answer(pageOf(own)));
    const told = await live(device);
    expect(told.joined[TARGET]).toEqual([pageOf(first), pageOf(second)]);
    expect(told.states[sha256(first)]).toBe('here');
    await device.finish();
    await later(0);
    expect(covered(device)).toEqual({ ...answer(pageOf(own)), pages: [pageOf(first), pageOf(second)] });
    expect(receiptHolds(db(), newestReceipt(db(), rowOf(device).id)!)).toBe(true);
    // The desk never took them in, and nothing waits for them: all three are marked.
    expect(rowOf(device).scoredAt).not.toBeNull();
  });

  it('is joined by a code that is typed, however it is written, once and in its time', async () => {
    const device = await start();
    const { secret, code } = (await open(device)).body;
    expect(code).toMatch(/^[A-Z2-9]{4}-[A-Z2-9]{4}$/);
    const typed = async (as: string) =>
      (await new ApiClient(app.url).post<{ secret?: string } & Refusal>('/phone/join', { code: as })).body;
    expect((await typed('AAAA-AAAA')).code).toBe('not-found');
    const own = (await typed(` ${code.toLowerCase().replace('-', ' ')} `)).secret!;
    expect((await phoneOf(own).view()).body.title).toBe('A upload');
    // Neither the code nor the QR code opens it for another phone.
    expect((await typed(code)).code).toBe('not-found');
    expect((await phoneOf(secret).view()).body.code).toBe('phone-ended');
    const next = (await open(device)).body.code;
    app.clock.advance(PHONE_MS);
    expect((await typed(next)).code).toBe('not-found');
  });

  it('makes an answer by itself where the desk wrote none', async () => {
    const device = await start();
    const phone = await joined(device);
    const bytes = await picture('alone', 60);
    await phone.announce(pageOf(bytes));
    await phone.put(bytes);
    const { body } = await device.handIn();
    expect(body.receipt).toMatchObject({ answered: 1 });
    expect(covered(device)).toEqual({ pages: [pageOf(bytes)] });
  });

  it('ends when the desk says so, when another joins, after ten minutes, and with the test', async () => {
    const device = await start();
    const page = pageOf(await picture('ended', 60));
    const ends: (() => Promise<unknown>)[] = [
      () => device.client.post('/sitting/phone/end'),
      () => open(device),
      () => Promise.resolve(app.clock.advance(PHONE_MS)),
      () => device.handIn(),
    ];
    for (const end of ends) {
      const phone = await joined(device);
      await end();
      expect(await phone.view()).toMatchObject({ status: 410, body: { code: 'phone-ended' } });
      expect((await phone.announce(page)).status).toBe(410);
    }
    // A code that was read badly joins nothing either, and says the same.
    for (const wrong of ['n'.repeat(27), 'cut', '%E2%8'])
      expect(await phoneOf(wrong).view()).toMatchObject({ status: 410, body: { code: 'phone-ended' } });
  });

  it('still completes what it had announced, and nothing else', async () => {
    const device = await start();
    const phone = await joined(device);
    const [announced, unknown] = [await picture('announced', 60), await picture('unknown', 60)];
    await phone.announce(pageOf(announced));
    expect((await phone.put(unknown)).status).toBe(404);
    await device.finish();
    await later(0);
    expect(rowOf(device).scoredAt).toBeNull();
    expect((await phone.put(announced)).body.state).toBe('here');
    await later(0);
    expect(rowOf(device).scoredAt).not.toBeNull();
  });

  it('adds nothing while the clock stands still, and is not there where the round or the question has none', async () => {
    const round = newRound();
    const device = await start(round);
    const phone = await joined(device);
    const { invitationId } = rowOf(device);
    const invigilator = app.staff('invigilator');
    const act = (name: string) =>
      invigilator.post(`/watch/${round}/acts`, {
        act: name,
        invitation: invitationId,
        text: 'an alarm',
        minutes: 0,
      });
    await act('pause');
    const page = pageOf(await picture('paused', 60));
    expect(await phone.announce(page)).toMatchObject({ status: 409, body: { code: 'phone-not-now' } });
    expect((await open(device)).status).toBe(409);
    await act('go on');
    expect((await phone.announce(page)).status).toBe(200);
    // After a pause everything is judged again: the page was judged when it came.
    await device.finish();
    expect(covered(device)).toEqual({ pages: [page] });
    expect((await open(await start(round), 'the-number/A')).body.code).toBe('no-phones');
    expect((await open(await start(newRound({ joinedPhones: false })))).body.code).toBe('no-phones');
  });

  it('adds nothing to a question that was passed', async () => {
    const sample = samplePaper();
    const sections = sample.sections.map((one) => ({ ...one, navigation: 'forward only' as const }));
    const device = await start(app.addRound({ ...sample, version: version++, sections }));
    const goes = (item: string) => {
      device.write(item, true, { about: 'opened' });
      device.write(item, null, { about: 'place' });
      return device.save();
    };
    await goes('the-upload');
    const phone = await joined(device);
    const page = pageOf(await picture('in time', 60));
    expect((await phone.announce(page)).status).toBe(200);
    // Whatever comes after it in the paper: the last of all.
    await goes(sample.sections[0]!.items.at(-1)!.key);
    expect((await phone.announce(pageOf(await picture('passed', 60)))).body.code).toBe('phone-not-now');
    expect((await open(device)).status).toBe(409);
  });

  it('sends no more than an answer can hold beside what the desk adds', async () => {
    const device = await start();
    const phone = await joined(device);
    const page = (n: number): Page => ({ ...pageOf(new Uint8Array([n])), bytes: 1 });
    const statuses: number[] = [];
    for (let n = 0; n <= MOST_PHONE_PAGES; n++) statuses.push((await phone.announce(page(n))).status);
    expect([statuses.filter((s) => s === 200).length, statuses.at(-1)]).toEqual([MOST_PHONE_PAGES, 429]);
  });

  it('cannot write as the desk does: what a device says of joined phones is not taken', async () => {
    const device = await start();
    const page = pageOf(await picture('claimed', 60));
    await device.answer(TARGET, { ...answer(), pages: [page] });
    device.write(TARGET, [page], { about: 'page' as never });
    await device.save();
    expect((await live(device)).joined).toEqual({});
    await device.finish();
    expect(covered(device)).toBeUndefined();
  });
});
