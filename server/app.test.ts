import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Entry } from '../core/journal/entry';
import { kindNames, kindOf } from '../core/kinds/registry';
import type { JournalKept, Receipt } from '../core/sittings/api';
import { GRACE_MS, MINUTE_MS } from '../core/timing/deadline';
import { allEndpoints } from './app';
import { journal, marks, sittings } from './db/schema';
import { ApiClient } from './testing/ApiClient';
import { samplePaper, sampleOf } from './testing/samplePaper';
import { serve, type Served } from './testing/serve';

let house: Served;
let round: number;
beforeAll(async () => {
  house = await serve();
  round = house.addRound(samplePaper());
});
afterAll(() => house.close());

interface Refusal {
  readonly code: string;
  readonly message: string;
}

const device = 'test-device';
const entry = (seq: number, change: Partial<Entry> = {}): Entry => ({
  ...{ device, seq, about: 'answer', target: 'the-number/A', value: { typed: String(seq) } },
  ...{ at: house.clock.now(), ...change },
});
const journalled = () => house.wired.services.db.select().from(journal).all().length;

describe('who may call what', () => {
  const endpoints = () => allEndpoints(house.wired.services, house.wired.outbox, house.wired.sittings);
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
    const stranger = new ApiClient(house.url);
    for (const endpoint of endpoints().filter((e) => e.who !== 'anyone')) {
      const { status, body } = await callAs(stranger, endpoint);
      const code = endpoint.who === 'candidate' ? 'link-needed' : 'not-signed-in';
      expect([endpoint.path, status, body.code]).toEqual([endpoint.path, 401, code]);
    }
  });

  it('refuses staff of another role, and staff in the place of a candidate', async () => {
    const invigilator = await house.staff('invigilator');
    for (const endpoint of endpoints().filter((e) => e.who !== 'anyone')) {
      if (Array.isArray(endpoint.who) && endpoint.who.includes('invigilator')) continue;
      const { status } = await callAs(invigilator, endpoint);
      expect([endpoint.path, status]).toEqual([endpoint.path, endpoint.who === 'candidate' ? 401 : 403]);
    }
  });

  it('takes no sign-in by guessing', async () => {
    const guesser = new ApiClient(house.url);
    const guess = () => guesser.post<Refusal>('/sign-in', { email: 'odile@example.org', password: 'guess' });
    const codes: string[] = [];
    for (let i = 0; i < 21; i++) codes.push((await guess()).body.code);
    expect(new Set(codes.slice(0, 20))).toEqual(new Set(['wrong-sign-in']));
    expect(codes[20]).toBe('too-many-tries');
  });
});

describe('what is malformed, oversized or foreign changes nothing', () => {
  it.each<[string, unknown, number, string]>([
    ['not an object', 7, 400, 'malformed'],
    ['no entries', {}, 400, 'malformed'],
    ['a name too much', { entries: [], more: 1 }, 400, 'malformed'],
    ['too many entries', { entries: Array.from({ length: 501 }, (_, i) => ({ i })) }, 400, 'malformed'],
    ['a body of a megabyte', { entries: ['x'.repeat(1_000_000)] }, 413, 'too-large'],
  ])('%s', async (_, body, status, code) => {
    const client = await house.sitting(house.invite(round));
    const before = journalled();
    const answered = await client.post<Refusal>('/sitting/journal', body);
    expect([answered.status, answered.body.code]).toEqual([status, code]);
    expect(answered.body.message).not.toBe('');
    expect(journalled()).toBe(before);
  });

  it('refuses entries that cannot belong to the paper, by name, and takes none of the batch', async () => {
    const client = await house.sitting(house.invite(round));
    const before = journalled();
    const foreign = [
      entry(2, { target: 'no-such-item/A' }),
      entry(3, { value: { typed: 5 } }),
      entry(4, { target: 'the-choice/A', value: { chosen: ['no-such-option'] } }),
      entry(5, { about: 'flag', value: 'yes' }),
    ];
    const answered = await client.post<Refusal & { details: unknown }>('/sitting/journal', {
      entries: [entry(1), ...foreign],
    });
    const refused = [2, 3, 4, 5].map((seq) => ({ device, seq }));
    expect([answered.status, answered.body.details]).toEqual([422, { refused }]);
    expect(journalled()).toBe(before);
  });

  it('refuses what another site’s page asks for, and what is no JSON', async () => {
    const client = await house.sitting(house.invite(round));
    const headers = { Origin: 'http://elsewhere.example' };
    const foreign = await client.post<Refusal>('/sitting/journal', { entries: [entry(1)] }, headers);
    expect([foreign.status, foreign.body.code]).toEqual([403, 'foreign-origin']);
    const init = { method: 'POST', body: '{"entries":[', headers: { 'Content-Type': 'application/json' } };
    const broken = await client.send<Refusal>('/sitting/journal', init);
    expect([broken.status, broken.body.code]).toEqual([400, 'malformed']);
  });

  it('lets nobody reach another candidate’s paper or a step out of its turn', async () => {
    const [first, second] = [house.invite(round), house.invite(round)];
    const one = await house.sitting(first);
    const { body } = await one.post<{ paperHash: string }>('/sitting/prepare');
    expect((await one.get(`/sitting/paper/${body.paperHash}`)).status).toBe(200);
    const two = new ApiClient(house.url);
    await two.post('/arrival/open', { link: second });
    expect((await two.get(`/sitting/paper/${body.paperHash}`)).status).toBe(409);
    const early = await two.post<Refusal>('/sitting/start', body);
    expect([early.status, early.body.code]).toEqual([409, 'no-sitting']);
    const result = await one.get<Refusal>('/result');
    expect([result.status, result.body.code]).toEqual([409, 'not-released']);
  });
});

describe('the journal', () => {
  it('keeps each entry once, however often and in whatever order it comes', async () => {
    const client = await house.sitting(house.invite(round));
    const before = journalled();
    const send = (...seqs: number[]) =>
      client.post<JournalKept>('/sitting/journal', { entries: seqs.map((seq) => entry(seq)) });
    expect((await send(2, 3)).body.kept).toEqual([{ device, seq: 3 }]);
    await Promise.all([send(1, 2, 3), send(3, 1), send(2)]);
    expect(journalled()).toBe(before + 3);
    const { body } = await client.get<{ desk: { answers: Record<string, unknown> } }>('/sitting');
    expect(body.desk.answers['the-number/A']).toEqual({ typed: '3' });
  });

  it('acknowledges nothing when the disk is full, and takes the same batch when there is room', async () => {
    const client = await house.sitting(house.invite(round));
    const { $client } = house.wired.services.db;
    const before = journalled();
    const pages = $client.pragma('page_count', { simple: true }) as number;
    $client.pragma(`max_page_count = ${pages}`);
    // Larger than what is free in the pages there are.
    const program = { language: 'python', programs: { python: '#'.repeat(40_000) } };
    const batch = { entries: [1, 2, 3].map((seq) => entry(seq, { target: 'the-code/A', value: program })) };
    const full = await client.post<Refusal>('/sitting/journal', batch);
    expect([full.status, full.body.code]).toEqual([507, 'storage-full']);
    expect(journalled()).toBe(before);
    $client.pragma('max_page_count = 1000000');
    expect((await client.post('/sitting/journal', batch)).status).toBe(200);
    expect(journalled()).toBe(before + 3);
  });

  it('hands in once: the same receipt again, later entries kept but not counted', async () => {
    const client = await house.sitting(house.invite(round));
    const handIn = () =>
      client.post<Receipt>('/sitting/hand-in', {
        entries: kindNames.map((kind, i) =>
          entry(i + 1, { target: `the-${kind}/A`, value: sampleOf(kind).best }),
        ),
        by: 'candidate',
        at: house.clock.now(),
      });
    const { body: receipt } = await handIn();
    expect(receipt).toMatchObject({ closedBy: 'candidate', answered: kindNames.length });
    const later = entry(99, { value: { typed: '-1' } });
    expect((await client.post<JournalKept>('/sitting/journal', { entries: [later] })).body.closed).toBe(true);
    expect((await handIn()).body).toEqual(receipt);
    const row = house.wired.services.db.select().from(journal).all().at(-1)!;
    expect([row.seq, row.standing]).toEqual([99, 'after-time']);
    const check = (code: string) => client.post('/arrival/receipt-check', { code });
    expect((await check(receipt.code.toLowerCase())).body).toEqual({ matches: true, whole: true });
    expect((await check('AAAA-BBBB-CCCC')).body).toEqual({ matches: false, whole: false });
  });

  it('counts what was made before the deadline and came within the grace; keeps the rest for a person', async () => {
    const client = await house.sitting(house.invite(round, 50));
    const made = house.clock.now() + 40 * MINUTE_MS; // 30 min and a half more are 45
    house.clock.advance(45 * MINUTE_MS + 5000);
    await house.wired.sittings.sweep();
    const late = entry(1, { at: made, value: { typed: '1' } });
    await client.post('/sitting/journal', { entries: [late] });
    const after = entry(2, { at: made + 10 * MINUTE_MS, value: { typed: '2' } });
    await client.post('/sitting/journal', { entries: [after] });
    house.clock.advance(GRACE_MS);
    const waiting = entry(3, { at: made, value: { typed: '3' } });
    await client.post('/sitting/journal', { entries: [waiting] });
    const rows = house.wired.services.db.select().from(journal).all().slice(-3);
    expect(rows.map((r) => r.standing)).toEqual(['late', 'after-time', 'waiting']);
    const { body } = await client.post<Receipt>('/sitting/hand-in', {
      entries: [],
      by: 'time',
      at: made,
    });
    expect(body).toMatchObject({ closedBy: 'server', answered: 1, usedMs: 45 * MINUTE_MS });
  });
});

describe('after the hand-in', () => {
  it('scores the best answers with full marks and waits for people where they mark', async () => {
    const { services } = house.wired;
    const fresh = house.addRound({ ...samplePaper(), version: 2 });
    const client = await house.sitting(house.invite(fresh));
    const entries = kindNames.map((kind, i) =>
      entry(i + 1, { target: `the-${kind}/A`, value: sampleOf(kind).best }),
    );
    await client.post('/sitting/hand-in', { entries, by: 'candidate', at: house.clock.now() });
    await services.jobs.turn();
    const byMachine = kindNames.filter((kind) => kindOf(kind).judge !== 'people');
    const sitting = services.db.select().from(sittings).all().at(-1)!;
    const given = services.db.select().from(marks).where(eq(marks.sittingId, sitting.id)).all();
    expect(given.map((m) => [m.target, m.hundredths, m.verdict])).toEqual(
      byMachine.map((kind) => [`the-${kind}/A`, sampleOf(kind).maximum, 'right']),
    );
    const coordinator = await house.staff('coordinator');
    const { body } = await coordinator.get<{ invitedRows: { total: number | null }[] }>(`/rounds/${fresh}`);
    expect(body.invitedRows).toMatchObject([{ total: null }]);
    const lead = await house.staff('lead');
    const refused = await lead.post<Refusal>(`/marking/rounds/${fresh}/sign-off`);
    expect([refused.status, refused.body.code]).toEqual([409, 'not-finished']);
    expect(refused.body.message).toContain('1 unmarked');
    const early = await coordinator.post<Refusal>(`/rounds/${fresh}/release`);
    expect([early.status, early.body.code]).toEqual([409, 'not-signed-off']);
  });

  it('tells the truth about its health', async () => {
    const { body } = await new ApiClient(house.url).get<Record<string, unknown>>('/health');
    expect(body).toMatchObject({ database: 'well', journalMode: 'wal', outbox: 0 });
  });
});
