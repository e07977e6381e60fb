import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Entry } from '../../core/journal/entry';
import type { FullPaper } from '../../core/papers/paper';
import type { JournalKept, Receipt, SittingOpened } from '../../core/sittings/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import { journal, sittings, timeEvents } from '../db/schema';
import { ApiClient } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { verifyReceipts } from './verifyReceipts';

let house: Served;
beforeAll(async () => {
  house = await serve();
  // Time stands still unless a test moves it.
  vi.useFakeTimers({ toFake: ['Date'] });
});
afterAll(async () => {
  vi.useRealTimers();
  await house.close();
});

interface Refusal {
  readonly code: string;
}
/** Thirty minutes, as the sample paper has. */
const LIMIT = 30 * MINUTE_MS;
let version = 1;
const newRound = (change: Partial<FullPaper> = {}) =>
  house.addRound({ ...samplePaper(), ...change, version: version++ });
const now = () => house.clock.now();
const number = (seq: number, typed: string, change: Partial<Entry> = {}): Entry => ({
  ...{ device: 'first-device', seq, about: 'answer', target: 'the-number/A', value: { typed } },
  ...{ at: now(), ...change },
});
const save = (client: ApiClient, ...entries: Entry[]) =>
  client.post<JournalKept>('/sitting/journal', { entries });
const handIn = (
  client: ApiClient,
  at: number,
  by: 'candidate' | 'time' = 'candidate',
  entries: Entry[] = [],
) => client.post<Receipt & Refusal>('/sitting/hand-in', { entries, by, at });
const rowOfLast = () => house.wired.services.db.select().from(sittings).all().at(-1)!;
const standings = () =>
  house.wired.services.db
    .select()
    .from(journal)
    .where(eq(journal.sittingId, rowOfLast().id))
    .all()
    .map((r) => [r.seq, r.standing]);

/** Everything done up to the cover: the next step is to prepare the paper. */
async function atTheCover(round: number): Promise<ApiClient> {
  const client = new ApiClient(house.url);
  await client.post('/arrival/open', { link: house.invite(round) });
  await client.post('/arrival/details', { correction: null });
  await client.post('/arrival/rules', { version: '1', accepted: ['honest'] });
  return client;
}

describe('the start', () => {
  it('costs no time before it, and begins only with the whole paper on the device', async () => {
    const client = await atTheCover(newRound());
    const prepare = () => client.post<{ paperHash: string }>('/sitting/prepare');
    // Pressed twice in the same moment: one form, one copy.
    const [one, two] = await Promise.all([prepare(), prepare()]);
    expect(one.body).toEqual(two.body);
    house.clock.advance(20 * MINUTE_MS);
    const torn = await client.post<Refusal>('/sitting/start', { paperHash: 'ab'.repeat(32) });
    expect([torn.status, torn.body.code]).toEqual([409, 'paper-incomplete']);
    expect((await client.get('/sitting')).status).toBe(409);
    const { body } = await client.post<SittingOpened>('/sitting/start', one.body);
    expect(body.time).toMatchObject({ startedAt: now(), leftMs: LIMIT });
  });

  it('happens once: asked again, it opens the sitting that runs', async () => {
    const client = await atTheCover(newRound());
    const { body: prepared } = await client.post<{ paperHash: string }>('/sitting/prepare');
    const first = await client.post<SittingOpened>('/sitting/start', prepared);
    house.clock.advance(MINUTE_MS);
    const again = await client.post<SittingOpened>('/sitting/start', prepared);
    expect(again.body.time.startedAt).toBe(first.body.time.startedAt);
    expect(again.body.time.leftMs).toBe(LIMIT - MINUTE_MS);
    const { db } = house.wired.services;
    const starts = db.select().from(timeEvents).where(eq(timeEvents.sittingId, rowOfLast().id)).all();
    expect(starts).toHaveLength(1);
  });
});

describe('two openings of one desk', () => {
  const hold = (client: ApiClient, opening: string, takeOver = false) =>
    client.post<{ holder: string }>('/sitting/hold', { opening, takeOver });

  it('one holds it, the other is told and may take it over', async () => {
    const client = await house.sitting(house.invite(newRound()));
    expect((await hold(client, 'opening-one')).body.holder).toBe('opening-one');
    await save(client);
    expect((await hold(client, 'opening-two')).body.holder).toBe('opening-one');
    expect((await hold(client, 'opening-two', true)).body.holder).toBe('opening-two');
    expect((await client.get<{ holder: string }>('/live')).body.holder).toBe('opening-two');
    expect((await hold(client, 'opening-one')).body.holder).toBe('opening-two');
  });

  it('keeps what was written in both, and the last arrival counts', async () => {
    const client = await house.sitting(house.invite(newRound()));
    await save(client, number(1, '11'));
    await save(client, number(1, '22', { device: 'second-device' }));
    const { body } = await client.get<SittingOpened>('/sitting');
    expect(body.desk.answers['the-number/A']).toEqual({ typed: '22' });
    expect(standings()).toHaveLength(2);
  });

  it('one that was not heard of for half a minute holds nothing back', async () => {
    const client = await house.sitting(house.invite(newRound()));
    await hold(client, 'opening-one');
    await save(client);
    house.clock.advance(MINUTE_MS / 2);
    expect((await hold(client, 'opening-two')).body.holder).toBe('opening-two');
  });
});

describe('the hand-in', () => {
  it('counts from when it was made, though it came later', async () => {
    const client = await house.sitting(house.invite(newRound()));
    const made = now() + 8 * MINUTE_MS;
    house.clock.advance(11 * MINUTE_MS);
    const { body } = await handIn(client, made, 'candidate', [number(1, '7', { at: made - 1000 })]);
    expect(body).toMatchObject({ handedInAt: made, arrivedAt: now(), usedMs: 8 * MINUTE_MS, answered: 1 });
  });

  it.each([
    ['in the time to come', 10 * MINUTE_MS, 5 * MINUTE_MS],
    ['before the start', -MINUTE_MS, 0],
  ])('is never believed to be %s', async (_, offset, usedMs) => {
    const client = await house.sitting(house.invite(newRound()));
    const started = now();
    house.clock.advance(5 * MINUTE_MS);
    expect((await handIn(client, started + offset)).body.usedMs).toBe(usedMs);
  });

  it('is not done for the candidate while there is time left', async () => {
    const client = await house.sitting(house.invite(newRound()));
    house.clock.advance(LIMIT - 10_000);
    const early = await handIn(client, now(), 'time');
    expect([early.status, early.body.code]).toEqual([409, 'not-yet']);
    // A clock that is ahead by a second or two cannot know better.
    house.clock.advance(8000);
    expect((await handIn(client, now(), 'time')).body.closedBy).toBe('time');
  });

  it('made before the deadline without a connection counts, though the server closed it first', async () => {
    const client = await house.sitting(house.invite(newRound()));
    const made = now() + LIMIT - 2 * MINUTE_MS;
    house.clock.advance(LIMIT + MINUTE_MS);
    await house.wired.sittings.sweep();
    const { body } = await handIn(client, made, 'candidate', [number(1, '9', { at: made - 5000 })]);
    expect(body).toMatchObject({ handedInAt: made, arrivedAt: now(), answered: 1 });
    expect(standings()).toEqual([[1, 'late']]);
  });

  it('is refused to whoever has begun nothing', async () => {
    const client = await atTheCover(newRound());
    const refused = await handIn(client, now());
    expect([refused.status, refused.body.code]).toEqual([409, 'no-sitting']);
  });
});

describe('the sweep', () => {
  it('leaves the device three seconds to hand in by itself, then closes as of now', async () => {
    await house.sitting(house.invite(newRound()));
    house.clock.advance(LIMIT + 2000);
    await house.wired.sittings.sweep();
    expect(rowOfLast().closedAt).toBeNull();
    house.clock.advance(2000);
    await house.wired.sittings.sweep();
    expect(rowOfLast()).toMatchObject({ closedBy: 'server' });
    expect(rowOfLast().receiptHash).toMatch(/^[0-9a-f]{64}$/);
  });

  it('closes a whole round, and nobody who has time left', async () => {
    const round = newRound();
    const many = await Promise.all(
      Array.from({ length: 12 }, (_, n) => house.sitting(house.invite(round, n % 2 ? 50 : 0))),
    );
    house.clock.advance(LIMIT + 5000);
    await house.wired.sittings.sweep();
    const kept = await Promise.all(many.map(async (client) => (await save(client)).body.closed));
    expect(kept).toEqual(many.map((_, n) => n % 2 === 0));
  });
});

describe('a section with a limit of its own', () => {
  const tenMinutes = () => {
    const paper = samplePaper();
    return newRound({ sections: paper.sections.map((section) => ({ ...section, minutes: 10 })) });
  };
  const opens = (seq: number): Entry =>
    number(seq, '', { about: 'opened', target: 'the-number', value: true });

  it('begins when one of its questions is opened, with the extra time of the candidate', async () => {
    const client = await house.sitting(house.invite(tenMinutes(), 50));
    expect((await save(client)).body.time.sectionEnds).toEqual({});
    house.clock.advance(5 * MINUTE_MS);
    const opened = now();
    const { body } = await save(client, opens(1));
    // Ten minutes and a half more.
    expect(body.time.sectionEnds).toEqual({ A: opened + 15 * MINUTE_MS });
    house.clock.advance(MINUTE_MS);
    expect((await save(client, opens(2))).body.time.sectionEnds).toEqual(body.time.sectionEnds);
  });

  it('takes no answer that was made after it', async () => {
    const client = await house.sitting(house.invite(tenMinutes()));
    await save(client, opens(1), number(2, '1'));
    house.clock.advance(11 * MINUTE_MS);
    await save(client, number(3, '2'));
    expect(standings().at(-1)).toEqual([3, 'after-time']);
    const { body } = await client.get<SittingOpened>('/sitting');
    expect(body.desk.answers['the-number/A']).toEqual({ typed: '1' });
  });
});

describe('receipts', () => {
  it('verify as long as what is kept is what was handed in, and tell when it is not', async () => {
    const { db } = house.wired.services;
    const client = await house.sitting(house.invite(newRound()));
    const { body } = await handIn(client, now(), 'candidate', [number(1, '12')]);
    expect(verifyReceipts(db).broken).toEqual([]);
    const { id, script } = rowOfLast();
    db.update(journal)
      .set({ value: JSON.stringify({ typed: '13' }) })
      .where(eq(journal.sittingId, id))
      .run();
    expect(verifyReceipts(db).broken).toEqual([script]);
    const check = await client.post('/arrival/receipt-check', { code: body.code });
    expect(check.body).toEqual({ matches: true, whole: false });
  });
});
