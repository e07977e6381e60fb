import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Letter, RoundDetail } from '../../core/rounds/api';
import { GRACE_MS, MINUTE_MS } from '../../core/timing/deadline';
import { sameDoorCode, doorCodeOf } from '../arrival/doorCode';
import { makePdf } from '../results/makePdf';
import { invitationLetter } from '../mail/invitationLetter';
import { sittings } from '../db/schema';
import { verifyReceipts } from '../sittings/verifyReceipts';
import type { ApiClient } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let house: Served;
let odile: ApiClient;
let round: number;
beforeAll(async () => {
  house = await serve();
  odile = await house.staff('coordinator');
  round = house.addRound(samplePaper());
});
afterAll(() => house.close());

const invitation = {
  ...{ name: 'Ilse Brandvold', email: 'Ilse@Example.org', reference: null, extraPercent: 25 },
  arrangements: { breakMinutes: 10, waivedChecks: ['camera'], reason: 'arranged in writing' },
  timeZone: 'America/Lima',
};
const invite = (change: object = {}) =>
  odile.post<{ letter: number; code: string }>(`/rounds/${round}/invitations`, { ...invitation, ...change });

describe('an invitation', () => {
  it('is a letter with the link, the window in the reader’s zone, the time and the breaks', async () => {
    const { body } = await invite();
    const { body: letter } = await odile.get<Letter>(`/letters/${body.letter}`);
    expect(letter.to).toBe('ilse@example.org');
    expect(letter.text).toContain('(America/Lima)');
    expect(letter.text).toContain('In Europe/Oslo:');
    // 30 minutes and a quarter more are 37.5, rounded
    expect(letter.text).toContain('38 min, your extra time of 25 % included');
    expect(letter.text).toContain('Rest breaks: 10 min in all');
    expect(letter.link).toMatch(/\/i\/[\w-]{27}$/);
    const { body: file } = await odile.get<string>(`/letters/${body.letter}/attachments/test-window.ics`);
    expect(file).toContain('BEGIN:VEVENT');
    const stored = house.wired.services.db.$client.prepare('select link_hash as hash from invitations').all();
    expect(JSON.stringify(stored)).not.toContain(letter.link!.split('/i/')[1]);
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

  it('names no second zone where the reader is in the round’s', () => {
    const facts = {
      title: 'R',
      paperTitle: 'P',
      opensAt: 0,
      closesAt: 1,
      timeZone: 'UTC',
      help: '',
      minutes: 60,
    };
    const letter = invitationLetter({
      ...{ invitationId: 1, organisation: 'Archive', extraPercent: 0, breakMinutes: 0, link: 'http://x/i/y' },
      candidate: { name: 'N', email: 'e@example.org', reference: 'HR-1' },
      round: { ...facts, camera: false },
      candidateZone: 'UTC',
    });
    expect(letter.text).toContain('Time:   60 min. The clock');
    expect(letter.text).not.toContain('In UTC:');
    expect(letter.text).not.toContain('camera');
  });
});

describe('late arrivals', () => {
  const device = 'late-device';
  const entry = (seq: number, typed: string, at: number) => ({
    ...{ device, seq, about: 'answer', target: 'the-number/A', value: { typed }, at },
  });

  async function lateSitting(): Promise<{ client: ApiClient; sitting: number }> {
    const client = await house.sitting(house.invite(round));
    const made = house.clock.now() + MINUTE_MS;
    house.clock.advance(30 * MINUTE_MS + GRACE_MS + MINUTE_MS);
    await house.wired.sittings.sweep();
    await client.post('/sitting/journal', { entries: [entry(1, '71,3', made)] });
    await house.wired.services.jobs.turn();
    const sitting = house.wired.services.db.select().from(sittings).all().at(-1)!.id;
    return { client, sitting };
  }
  const detail = async () => (await odile.get<RoundDetail>(`/rounds/${round}`)).body;
  const decide = (sitting: number, count: boolean, reason = 'the line was down') =>
    odile.post<RoundDetail & { code: string }>(`/rounds/${round}/late`, { sitting, count, reason });
  const markOf = (sitting: number) =>
    house.wired.services.db.$client
      .prepare(
        "select hundredths from marks where sitting_id = ? and target = 'the-number/A' order by id desc",
      )
      .pluck()
      .get(sitting);

  it('stand before the coordinator with what they would change; counted, the script is scored again', async () => {
    const { sitting } = await lateSitting();
    const [late] = (await detail()).late;
    expect(late).toMatchObject({ sitting, count: 1, changes: [{ counted: '', late: '71,3 %' }] });
    expect(markOf(sitting)).toBe(0);
    expect((await decide(sitting, true)).body.late).toEqual([]);
    await house.wired.services.jobs.turn();
    expect(markOf(sitting)).toBe(200);
    expect(verifyReceipts(house.wired.services.db).broken).toEqual([]);
  });

  it('are left out with a reason, and kept all the same', async () => {
    const { sitting } = await lateSitting();
    expect((await decide(sitting, false, '')).status).toBe(400);
    await decide(sitting, false, 'the device had been handed over');
    await house.wired.services.jobs.turn();
    expect(markOf(sitting)).toBe(0);
    const kept = house.wired.services.db.$client
      .prepare('select standing from journal where sitting_id = ?')
      .pluck()
      .all(sitting);
    expect(kept).toEqual(['left out']);
  });

  it('finds a script that is no longer what was handed in', async () => {
    const { sitting } = await lateSitting();
    const { db } = house.wired.services;
    db.$client.prepare("update journal set standing = 'in-time' where sitting_id = ?").run(sitting);
    const script = db.select().from(sittings).all().at(-1)!.script;
    expect(verifyReceipts(db).broken).toEqual([script]);
    db.$client.prepare("update journal set standing = 'waiting' where sitting_id = ?").run(sitting);
  });
});

describe('door codes', () => {
  it('differ between rounds, stay the same for one, and forgive a nervous hand', () => {
    const codes = Array.from({ length: 50 }, (_, n) => doorCodeOf('secret', n));
    expect(new Set(codes).size).toBeGreaterThan(40);
    expect(doorCodeOf('secret', 1)).toBe(codes[1]);
    expect(sameDoorCode(' rush-41', 'RUSH 41')).toBe(true);
    expect(sameDoorCode('RUSH 14', 'RUSH 41')).toBe(false);
  });
});

describe('the PDF', () => {
  it('is made in a worker, with the name in it', async () => {
    const bytes = await makePdf(
      {
        ...{
          state: 'confirmed',
          title: 'One of each',
          satAt: 0,
          releasedAt: 0,
          receipt: 'AAAA',
          hundredths: 50,
        },
        ...{
          of: 100,
          band: null,
          sections: [{ key: 'A', title: 'All', hundredths: 50, of: 100 }],
          questions: [],
        },
        candidate: { name: 'Ilse Brandvold', reference: 'HR-2201' },
      },
      'Archive',
    );
    expect(Buffer.from(bytes.subarray(0, 5)).toString()).toBe('%PDF-');
  });
});
