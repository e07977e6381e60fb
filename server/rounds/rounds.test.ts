import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from '../../core/lists/list';
import type { InvitedRow, Letter, RoundDetail } from '../../core/rounds/api';
import { eq } from 'drizzle-orm';
import { BYTES_MS, GRACE_MS, MINUTE_MS } from '../../core/timing/deadline';
import { doorCodeOf } from '../arrival/doorCode';
import { sameDigits } from '../sixDigits';
import { writeLetter } from '../../core/letters/letters';
import { say } from '../../core/messages/words';
import { sha256 } from '../secrets';
import { sittings } from '../db/schema';
import { verifyReceipts } from '../sittings/verifyReceipts';
import type { ApiClient } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let odile: ApiClient;
let round: number;
beforeAll(async () => {
  app = await serve();
  odile = app.staff('coordinator');
  round = app.addRound(samplePaper());
});
afterAll(() => app.close());

const invitation = {
  name: 'Ilse Brandvold',
  email: 'Ilse@Example.org',
  reference: null,
  extraPercent: 25,
  arrangements: {
    breakMinutes: 10,
    transcripts: false,
    waivedChecks: ['camera'],
    reason: 'arranged in writing',
  },
  timeZone: 'America/Lima',
};
const invite = (change: object = {}) =>
  odile.post<{ letter: number; code: string }>(`/rounds/${round}/invitations`, { ...invitation, ...change });

describe('an invitation', () => {
  it('is a letter with the link, the window in the reader’s zone, the time and the breaks', async () => {
    const { body } = await invite();
    const { body: letter } = await odile.post<Letter>(`/letters/${body.letter}/new-link`);
    expect(letter.to).toBe('ilse@example.org');
    const text = writeLetter(letter.facts, letter.secret, say);
    expect(text).toContain('(America/Lima)');
    expect(text).toContain('In Europe/Oslo:');
    // 30 minutes and a quarter more are 37.5, rounded
    expect(text).toContain('38 min, including 25 % extra time');
    expect(text).toContain('Breaks: 10 min in total');
    expect(text).toContain(letter.secret);
    expect(letter.secret).toMatch(/\/i\/[\w-]{27}$/);
    const { body: file } = await odile.get<string>(`/letters/${body.letter}/attachments/test-window.ics`);
    expect(file).toContain('BEGIN:VEVENT');
    const secret = letter.secret!.split('/i/')[1]!;
    const { $client } = app.wired.services.db;
    const stored = ['letters', 'links', 'invitations'].map((table) =>
      $client.prepare(`select * from ${table}`).all(),
    );
    expect(JSON.stringify(stored)).toContain(sha256(secret));
    expect(JSON.stringify(stored)).not.toContain(secret);
  });

  it.each([
    ['the same address again', {}, 409, 'already-invited'],
    ['no name', { name: '', email: 'a@example.org' }, 400, 'malformed'],
    ['no address', { email: 'nobody' }, 400, 'malformed'],
    ['a zone that is none', { email: 'b@example.org', timeZone: 'Mars/Olympus' }, 400, 'malformed'],
    ['more extra time than there is', { email: 'c@example.org', extraPercent: 900 }, 400, 'malformed'],
  ])('refuses %s', async (_, change, status, code) => {
    const answered = await invite(change);
    expect([answered.status, answered.body.code]).toEqual([status, code]);
  });
});

describe('a new link', () => {
  it('ends the old one and the sessions opened by it, and a letter brings it', async () => {
    const own = app.addRound({ ...samplePaper(), version: 40 });
    const link = app.invite(own);
    const client = await app.atCover(link);
    const { $client } = app.wired.services.db;
    const { id } = $client.prepare('select max(id) as id from invitations').get() as { id: number };
    const coordinator = app.staff('coordinator');
    const answer = await coordinator.post<{ letter: number }>(`/rounds/${own}/new-link`, { invitation: id });
    expect((await client.get('/arrival')).status).toBe(401);
    expect((await client.post('/arrival/open', { link })).status).toBe(404);
    const { body } = await coordinator.post<Letter>(`/letters/${answer.body.letter}/new-link`);
    const opened = await client.post('/arrival/open', { link: body.secret!.split('/i/')[1] });
    expect(opened.status).toBe(200);
    const elsewhere = await coordinator.post(`/rounds/${round}/new-link`, { invitation: id });
    expect(elsewhere.status).toBe(404);
    const invigilator = app.staff('invigilator');
    expect((await invigilator.post(`/rounds/${own}/new-link`, { invitation: id })).status).toBe(403);
    // Settling a correction is open to them; the coordinator's page is not.
    const settled = await invigilator.post(`/rounds/${own}/correction-settled`, {
      invitation: id,
      settled: true,
    });
    expect([settled.status, settled.body]).toEqual([200, {}]);
  });
});

describe('a person', () => {
  it('may be invited to a second round, and is the same person there', async () => {
    const other = app.addRound({ ...samplePaper(), version: 2 });
    const again = await odile.post<{ letter: number }>(`/rounds/${other}/invitations`, {
      ...invitation,
      name: 'I. Brandvold',
    });
    expect(again.status).toBe(200);
    const rows = async (id: number) =>
      (await odile.get<Page<InvitedRow>>(`/rounds/${id}/candidates`)).body.rows;
    expect((await rows(other))[0]).toMatchObject({
      reference: (await rows(round)).find((row) => row.email === 'ilse@example.org')!.reference,
    });
    const taken = await invite({ email: 'other@example.org', reference: (await rows(other))[0]!.reference });
    expect([taken.status, taken.body.code]).toEqual([409, 'reference-taken']);
    const known = await invite({ reference: 'HR-9000' });
    expect([known.status, known.body.code]).toEqual([409, 'address-known']);
  });
});

describe('what a coordinator decides', () => {
  async function lateSitting() {
    const device = await app.sitting(app.invite(round));
    await device.save();
    device.write('the-number/A', { version: 1, response: { typed: '71.3' } });
    app.clock.advance(30 * MINUTE_MS + GRACE_MS + MINUTE_MS);
    await app.wired.sittings.sweep();
    await device.handIn('time');
    app.clock.advance(BYTES_MS);
    await app.wired.services.jobs.turn();
    const { db } = app.wired.services;
    return db.select().from(sittings).where(eq(sittings.deviceName, device.opened.sitting)).get()!.id;
  }
  const detail = async () => (await odile.get<RoundDetail>(`/rounds/${round}`)).body;
  const decide = (id: number, choice: 'take' | 'leave', reason = 'the line was down') =>
    odile.post<RoundDetail & { code: string }>(`/rounds/${round}/decisions`, { id, choice, reason });
  const markOf = (sitting: number) =>
    app.wired.services.db.$client
      .prepare(
        "select hundredths from marks where sitting_id = ? and target = 'the-number/A' order by id desc",
      )
      .pluck()
      .get(sitting);

  it('stands before them with what it would change; counted, the script is scored with it', async () => {
    const sitting = await lateSitting();
    const [open] = (await detail()).decisions;
    expect(open).toMatchObject({
      kind: 'late-entries',
      facts: { count: 1 },
      changes: [{ question: 'A number', leave: '', take: '71.3 %' }],
    });
    expect(markOf(sitting)).toBeUndefined();
    expect((await decide(open!.id, 'take')).body.decisions).toEqual([]);
    await app.wired.services.jobs.turn();
    expect(markOf(sitting)).toBe(200);
    expect(verifyReceipts(app.wired.services.db).broken).toEqual([]);
    expect((await decide(open!.id, 'leave')).body.code).toBe('decided');
  });

  it('is left out with a reason, and the journal is kept as it was', async () => {
    const sitting = await lateSitting();
    const rows = () =>
      app.wired.services.db.$client.prepare('select * from journal where sitting_id = ?').all(sitting);
    const before = rows();
    const [open] = (await detail()).decisions;
    expect((await decide(open!.id, 'leave', '')).status).toBe(400);
    await decide(open!.id, 'leave', 'the device had been handed over');
    await app.wired.services.jobs.turn();
    expect([markOf(sitting), rows()]).toEqual([0, before]);
  });
});

describe('door codes', () => {
  it('differ between rounds, stay the same for one, and forgive a nervous hand', () => {
    const codes = Array.from({ length: 50 }, (_, n) => doorCodeOf('secret', n));
    expect(new Set(codes).size).toBeGreaterThan(40);
    expect(doorCodeOf('secret', 1)).toBe(codes[1]);
    expect(sameDigits(' 482-913', '482 913')).toBe(true);
    expect(sameDigits('482 931', '482 913')).toBe(false);
    expect(doorCodeOf('secret', 7)).toMatch(/^\d{3} \d{3}$/);
  });
});
