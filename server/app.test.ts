import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { eq } from 'drizzle-orm';
import express from 'express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { kindNames } from '../core/kinds/kindNames';
import { sumMarks } from '../core/marks';
import { allEndpoints, serveWeb } from './app';
import { journal, marks, sittings } from './db/schema';
import { workerPolicy } from './http/security';
import { ApiClient, type Refusal } from './testing/ApiClient';
import { bestOf, isReadByPeople, machineMarks, samplePaper } from './testing/samplePaper';
import { serve, type Served } from './testing/serve';

let app: Served;
let round: number;
beforeAll(async () => {
  app = await serve();
  round = app.addRound(samplePaper());
});
afterAll(() => app.close());

const journalled = () => app.wired.services.db.select().from(journal).all().length;

describe('who may call what', () => {
  const endpoints = () => allEndpoints(app.wired.services, app.wired.outbox, app.wired.sittings);
  const pathOf = (path: string) => path.replace(/:\w+/g, '1');
  const callAs = (client: ApiClient, { method, path }: { method: string; path: string }) =>
    client.send<Refusal>(pathOf(path), { method: method.toUpperCase() });

  it('every change names what it takes', () => {
    expect(
      endpoints()
        .filter((e) => !e.checksBody)
        .map((e) => e.path),
    ).toEqual([]);
  });

  it('refuses strangers everywhere but at the doors', async () => {
    const stranger = new ApiClient(app.url);
    for (const endpoint of endpoints().filter((e) => e.who !== 'anyone')) {
      const { status, body } = await callAs(stranger, endpoint);
      const code = endpoint.who === 'candidate' ? 'link-needed' : 'not-signed-in';
      expect([endpoint.path, status, body.code]).toEqual([endpoint.path, 401, code]);
    }
  });

  it('refuses staff of another role, and staff in the place of a candidate', async () => {
    const invigilator = app.staff('invigilator');
    for (const endpoint of endpoints().filter((e) => e.who !== 'anyone')) {
      if (Array.isArray(endpoint.who) && endpoint.who.includes('invigilator')) continue;
      const { status } = await callAs(invigilator, endpoint);
      expect([endpoint.path, status]).toEqual([endpoint.path, endpoint.who === 'candidate' ? 401 : 403]);
    }
  });
});

describe('what is malformed, oversized or foreign changes nothing', () => {
  it.each<[string, (whole: object) => unknown, number, string]>([
    ['not an object', () => 7, 400, 'malformed'],
    ['no entries', (whole) => ({ ...whole, entries: undefined }), 400, 'malformed'],
    ['no head', (whole) => ({ ...whole, head: undefined }), 400, 'malformed'],
    ['a name too much', (whole) => ({ ...whole, more: 1 }), 400, 'malformed'],
    ['too many entries', (whole) => ({ ...whole, entries: Array(2001).fill({}) }), 400, 'malformed'],
    ['a body of a megabyte', (whole) => ({ ...whole, entries: ['x'.repeat(1_000_000)] }), 413, 'too-large'],
  ])('%s', async (_, change, status, code) => {
    const device = await app.sitting(app.invite(round));
    const before = journalled();
    const answered = await device.client.post<Refusal>('/sitting/journal', change(device.batch()));
    expect([answered.status, answered.body.code]).toEqual([status, code]);
    expect(answered.body.message).not.toBe('');
    expect(journalled()).toBe(before);
  });

  it('refuses what another site’s page asks for, and what is no JSON', async () => {
    const { client, ...device } = await app.sitting(app.invite(round));
    const headers = { Origin: 'http://elsewhere.example' };
    const foreign = await client.post<Refusal>('/sitting/journal', { opening: device.opening }, headers);
    expect([foreign.status, foreign.body.code]).toEqual([403, 'foreign-origin']);
    const init = { method: 'POST', body: '{"entries":[', headers: { 'Content-Type': 'application/json' } };
    const broken = await client.send<Refusal>('/sitting/journal', init);
    expect([broken.status, broken.body.code]).toEqual([400, 'malformed']);
  });

  it('lets nobody reach another candidate’s paper or a step out of its turn', async () => {
    const [first, second] = [app.invite(round), app.invite(round)];
    const { client: one, opened } = await app.sitting(first);
    const [copy] = opened.sealed;
    expect((await one.get(`/sitting/sealed/${copy!.hash}`)).status).toBe(200);
    const two = new ApiClient(app.url);
    await two.post('/arrival/open', { link: second });
    expect((await two.get(`/sitting/sealed/${copy!.hash}`)).status).toBe(409);
    const body = { store: 'a-store-of-mine', opening: 'an-opening', takeOver: true, sealed: [copy!.hash] };
    const early = await two.post<Refusal>('/sitting/start', body);
    expect([early.status, early.body.code]).toEqual([409, 'no-sitting']);
    const result = await one.get<Refusal>('/result');
    expect([result.status, result.body.code]).toEqual([409, 'not-released']);
  });
});

describe('the journal', () => {
  it('acknowledges nothing when the disk is full, and takes the same batch when there is room', async () => {
    const device = await app.sitting(app.invite(round));
    const { $client } = app.wired.services.db;
    const before = journalled();
    const pages = $client.pragma('page_count', { simple: true }) as number;
    $client.pragma(`max_page_count = ${pages}`);
    // Larger than what is free in the pages there are.
    const response = { language: 'python', programs: { python: { 'program.py': '#'.repeat(40_000) } } };
    const program = { version: 1, response };
    for (let n = 0; n < 3; n++) device.write('the-code/A', program);
    const batch = device.batch();
    const full = await device.client.post<Refusal>('/sitting/journal', batch);
    expect([full.status, full.body.code]).toEqual([507, 'storage-full']);
    expect(journalled()).toBe(before);
    $client.pragma('max_page_count = 1000000');
    expect((await device.save()).body.held).toBe(3);
    expect(journalled()).toBe(before + 3);
  });

  it('hands in once: later entries are kept but not counted, and the code can be checked', async () => {
    const device = await app.sitting(app.invite(round));
    for (const kind of kindNames) device.write(`the-${kind}/A`, bestOf(kind));
    const { receipt } = await device.finish();
    expect(receipt).toMatchObject({ closedBy: 'candidate', answered: kindNames.length });
    expect((await device.answer('the-number/A', { version: 1, response: { typed: '-1' } })).body.closed).toBe(
      true,
    );
    expect((await device.handIn()).body.receipt).toEqual(receipt);
    const check = (code: string) => device.client.post('/arrival/receipt-check', { code });
    expect((await check(receipt!.code.toLowerCase())).body).toEqual({ matches: true, whole: true });
    for (const wrong of ['AAAA-BBBB-CCCC', `My receipt is ${receipt!.code}, as I wrote it down that day.`])
      expect((await check(wrong)).body).toEqual({ matches: false, whole: false });
  });
});

describe('after the hand-in', () => {
  it('scores the best answers with full marks and waits for people where they mark', async () => {
    const { services } = app.wired;
    const fresh = app.addRound({ ...samplePaper(), version: 2 });
    const device = await app.sitting(app.invite(fresh));
    for (const kind of kindNames) device.write(`the-${kind}/A`, bestOf(kind));
    await device.finish();
    await services.jobs.turn();
    const sitting = services.db.select().from(sittings).all().at(-1)!;
    const given = services.db.select().from(marks).where(eq(marks.sittingId, sitting.id)).all();
    expect(given.every((m) => m.verdict === 'right')).toBe(true);
    for (const kind of kindNames) {
      const own = given.filter((m) => m.target === `the-${kind}/A`).map((m) => m.hundredths);
      expect(sumMarks(own)).toBe(machineMarks(kind));
    }
    const coordinator = app.staff('coordinator');
    const { body } = await coordinator.get<{ rows: { total: number | null }[] }>(
      `/rounds/${fresh}/candidates`,
    );
    expect(body.rows).toMatchObject([{ total: null }]);
    const lead = app.staff('lead');
    const refused = await lead.post<Refusal>(`/marking/rounds/${fresh}/sign-off`);
    expect([refused.status, refused.body.code]).toEqual([409, 'not-finished']);
    const count = kindNames.filter(isReadByPeople).length;
    expect(refused.body.reasons).toEqual([{ code: 'error.openMarking', values: { count } }]);
    const early = await coordinator.post<Refusal>(`/rounds/${fresh}/release`);
    expect([early.status, early.body.code]).toEqual([409, 'not-signed-off']);
  });

  it('tells the truth about its health', async () => {
    const { body } = await new ApiClient(app.url).get<Record<string, unknown>>('/health');
    expect(body).toMatchObject({ status: 'well', troubles: [], journalMode: 'wal', outbox: 0 });
  });
});

it('an address that cannot be read gets the page all the same, which says that it leads nowhere', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'web-'));
  writeFileSync(path.join(folder, 'index.html'), '<title>The page</title>');
  const files = express();
  serveWeb(files, folder);
  const server = files.listen(0);
  const { port } = server.address() as AddressInfo;
  for (const [address, status] of [
    ['/i/secret', 200],
    ['/i/secret%', 400],
    ['/%E2%8', 400],
    ['/i/%00', 200],
  ] as const) {
    const answer = await fetch(`http://127.0.0.1:${port}${address}`);
    expect([address, answer.status, await answer.text()]).toEqual([
      address,
      status,
      '<title>The page</title>',
    ]);
  }
  server.close();
  rmSync(folder, { recursive: true });
});

it('files of the application go out as they were packed, to anyone who takes that, with the rules of their kind', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'web-'));
  mkdirSync(path.join(folder, 'assets'));
  const script = 'export const answer = 42;';
  for (const name of ['assets/page.js', 'assets/tryWorker.js']) {
    writeFileSync(path.join(folder, name), script);
    writeFileSync(path.join(folder, `${name}.br`), brotliCompressSync(script));
  }
  const files = express();
  serveWeb(files, folder);
  const server = files.listen(0);
  const { port } = server.address() as AddressInfo;
  const told = async (name: string, encoding: string) => {
    const headers = { 'Accept-Encoding': encoding };
    const answer = await fetch(`http://127.0.0.1:${port}/assets/${name}`, { headers });
    const of = (header: string) => answer.headers.get(header);
    expect([await answer.text(), of('content-type')!.toLowerCase()]).toEqual([
      script,
      'text/javascript; charset=utf-8',
    ]);
    expect(of('cache-control')).toContain('immutable');
    return [of('content-encoding'), of('content-security-policy')];
  };
  for (const [asked, sent] of [
    ['gzip, br', 'br'],
    ['identity', null],
  ] as const) {
    expect(await told('page.js', asked)).toEqual([sent, null]);
    // A worker has a policy of its own, packed or not: programs are compiled in it.
    expect(await told('tryWorker.js', asked)).toEqual([sent, workerPolicy]);
  }
  server.close();
  rmSync(folder, { recursive: true });
});
