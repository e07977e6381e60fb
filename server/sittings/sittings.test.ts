import type { Refusal } from '../testing/ApiClient';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { makePatch } from '../../core/journal/patch';
import type { FullPaper } from '../../core/papers/paper';
import type { AnswerVersion, EnterReply, Prepared } from '../../core/sittings/api';
import { BYTES_MS, MINUTE_MS } from '../../core/timing/deadline';
import { decisions, journal, observations, receipts, sittings, timeEvents } from '../db/schema';
import { sha256 } from '../secrets';
import { brokenObservation, observationsOf } from '../observations/observations';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { TestDevice } from '../testing/TestDevice';
import { sittingQueries } from './queries';
import { answersOfReceipt, newestReceipt, receiptHolds, receiptsOf } from './receipts';
import { deskOf, valueOf } from './values';
import { verifyReceipts } from './verifyReceipts';

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

/** Thirty minutes, as the sample paper has. */
const LIMIT = 30 * MINUTE_MS;
const SECOND = 1000;
const NUMBER = 'the-number/A';
const WRITING = 'the-writing/A';
let version = 1;
const newRound = (change: Partial<FullPaper> = {}) =>
  app.addRound({ ...samplePaper(), ...change, version: version++ });
const now = () => app.clock.now();
const db = () => app.wired.services.db;
const start = async (round = newRound(), extraPercent = 0) => app.sitting(app.invite(round, extraPercent));
const idOf = (device: TestDevice) =>
  db().select().from(sittings).where(eq(sittings.deviceName, device.opened.sitting)).get()!.id;
const rowOf = (device: TestDevice) =>
  db()
    .select()
    .from(sittings)
    .where(eq(sittings.id, idOf(device)))
    .get()!;
/** The current answers, as the database has them. */
const answersNow = (device: TestDevice) => deskOf(sittingQueries(db()).currentOf(idOf(device))).answers;
/** The answers that the newest receipt covers: what is scored and marked. */
const covered = (device: TestDevice) => answersOfReceipt(db(), newestReceipt(db(), idOf(device))!);
const kindsSeen = (device: TestDevice) => observationsOf(db(), idOf(device)).map((o) => o.kind);
const openOf = (device: TestDevice) =>
  db()
    .select()
    .from(decisions)
    .where(eq(decisions.sittingId, idOf(device)))
    .all()
    .filter((d) => d.decidedAt === null);
const typed = (text: string) => ({ version: 1, response: { typed: text } });
const essay = (text: string) => ({
  version: 1,
  response: {
    text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
  },
});
/** Once more an hour later: everything that falls due is done. */
const later = async (ms = BYTES_MS + SECOND) => {
  app.clock.advance(ms);
  await app.wired.services.jobs.turn();
};

describe('the start', () => {
  it('costs no time before it, and begins only with the whole sealed paper on the device', async () => {
    const client = await app.atCover(app.invite(newRound()));
    const prepare = () => client.post<Prepared>('/sitting/prepare');
    // Pressed twice in the same moment: one form, one copy.
    const [one, two] = await Promise.all([prepare(), prepare()]);
    expect(one.body).toEqual(two.body);
    app.clock.advance(20 * MINUTE_MS);
    const torn = {
      store: 'a-store-of-mine',
      opening: 'an-opening',
      takeOver: false,
      sealed: ['ab'.repeat(32)],
    };
    const refused = await client.post<Refusal>('/sitting/start', torn);
    expect([refused.status, refused.body.code]).toEqual([409, 'paper-incomplete']);
    const device = await TestDevice.start(client, app.clock);
    expect(device.opened.time).toMatchObject({ startedAt: now(), leftMs: LIMIT });
  });

  it('shows nobody a question before it: what can be fetched is sealed, and not kept by caches', async () => {
    const client = await app.atCover(app.invite(newRound()));
    const { body } = await client.post<Prepared>('/sitting/prepare');
    const response = await client.raw(`/sitting/sealed/${body.sealed[0]!.hash}`);
    const bytes = Buffer.from(await response.arrayBuffer());
    expect(sha256(bytes)).toBe(body.sealed[0]!.hash);
    expect(bytes.toString('latin1')).not.toMatch(/Answer this|choice|question/);
    expect(response.headers.get('cache-control')).toBe('no-store');
    expect(JSON.stringify(body)).not.toContain('key');
  });

  it('happens once: asked again, the same store is given the same hold and the key again', async () => {
    const device = await start();
    app.clock.advance(2 * SECOND);
    const { store, opening, client } = device;
    const asked = { store, opening, takeOver: false, sealed: [] };
    const { body } = await client.post<{ opened: typeof device.opened }>('/sitting/start', asked);
    expect([body.opened.hold, body.opened.keys]).toEqual([device.opened.hold, device.opened.keys]);
    expect(body.opened.time.leftMs).toBe(LIMIT - 2 * SECOND);
    const starts = db()
      .select()
      .from(timeEvents)
      .where(eq(timeEvents.sittingId, idOf(device)))
      .all();
    expect(starts.filter((row) => row.event.type === 'started')).toHaveLength(1);
  });

  it('gives back the time until the device shows that it has heard of it, on record', async () => {
    const device = await start();
    app.clock.advance(40 * SECOND);
    const { body } = await device.save({ head: { ...device.head(), heard: device.opened.now - 1 } });
    expect(body.time.leftMs).toBe(LIMIT - 40 * SECOND);
    const heard = await device.save();
    expect(heard.body.time.leftMs).toBe(LIMIT);
    expect(kindsSeen(device)).toContain('time given back');
  });
});

describe('saving', () => {
  it('keeps what fits beside what does not, and says of each why not', async () => {
    const device = await start();
    device.write(NUMBER, typed('1'));
    device.write('the-number/B', typed('2'));
    device.write(NUMBER, { version: 1, response: { chosen: [] } });
    device.write(NUMBER, typed('4'));
    const entries = [...device.entries, null, { number: 5 }];
    const { status, body } = await device.save({ entries });
    expect([status, body.held, body.renew]).toEqual([200, 4, false]);
    expect(body.refused).toEqual([
      { number: 2, code: 'foreign' },
      { number: 3, code: 'foreign' },
      { number: null, code: 'malformed-entry' },
      { number: 5, code: 'malformed-entry' },
    ]);
    expect(answersNow(device)).toEqual({ [NUMBER]: typed('4') });
  });

  it('takes entries in any order and any number of times', async () => {
    const device = await start();
    for (let n = 1; n <= 6; n++) device.write(NUMBER, typed(`${n}`));
    const [first, second, third] = [0, 2, 4].map((from) => device.entries.slice(from, from + 2));
    expect((await device.save({ entries: third })).body.held).toBe(0);
    expect((await device.save({ entries: first })).body.held).toBe(2);
    expect((await device.save({ entries: [...second!, ...first!] })).body.held).toBe(6);
    expect(answersNow(device)).toEqual({ [NUMBER]: typed('6') });
    expect(
      db()
        .select()
        .from(journal)
        .where(eq(journal.sittingId, idOf(device)))
        .all(),
    ).toHaveLength(6);
  });

  it('follows patches, also where they come before their base', async () => {
    const device = await start();
    const texts = ['At night', 'At night the supply', 'At night the supply dipped'].map((t) => essay(t));
    device.write(WRITING, texts[0]);
    const canonical = (value: unknown) => valueTextOf(value);
    for (const n of [1, 2])
      device.write(WRITING, undefined, {
        patch: makePatch(
          { hold: 1, number: n },
          { from: canonical(texts[n - 1]), to: canonical(texts[n]) },
          sha256,
        ),
      });
    expect((await device.save({ entries: device.entries.slice(1) })).body.renew).toBe(false);
    expect(answersNow(device)).toEqual({});
    await device.save({ entries: device.entries.slice(0, 1) });
    expect(answersNow(device)).toEqual({ [WRITING]: texts[2] });
    expect(valueOf(sittingQueries(db()), idOf(device), { hold: 1, number: 3 })?.depth).toBe(2);
  });

  it('asks for a fresh hold where a patch does not fit, and goes on', async () => {
    const device = await start();
    await device.answer(WRITING, essay('whole'));
    const patch = { base: { hold: 1, number: 1 }, place: 0, cut: 0, put: 'x', sum: '0'.repeat(16) };
    device.write(WRITING, undefined, { patch });
    device.write(NUMBER, typed('5'));
    expect((await device.save()).body).toMatchObject({ held: 3, renew: true });
    expect(answersNow(device)).toEqual({ [WRITING]: essay('whole'), [NUMBER]: typed('5') });
  });

  it('never refuses a contradiction: it is kept, observed, and answered with a fresh hold', async () => {
    const device = await start();
    await device.answer(NUMBER, typed('1'));
    const other = { ...device.entries[0]!, value: typed('2') };
    const { body } = await device.save({ entries: [other] });
    expect(body).toMatchObject({ held: 1, renew: true });
    expect(answersNow(device)).toEqual({ [NUMBER]: typed('1') });
    expect(kindsSeen(device)).toEqual(['mismatch']);
    expect(
      db()
        .select()
        .from(journal)
        .where(eq(journal.sittingId, idOf(device)))
        .all(),
    ).toHaveLength(2);
  });

  it('tells a hold that this server never granted', async () => {
    const device = await start();
    const { status, body } = await device.save({ head: { ...device.head(), token: 'of another server' } });
    expect([status, body.code]).toEqual([409, 'hold-unknown']);
  });
});

const valueTextOf = (value: unknown): string => JSON.stringify(sorted(value));
const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value !== null && typeof value === 'object'
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([k, inner]) => [k, sorted(inner)]),
        )
      : value;

describe('two devices', () => {
  it('one has the desk, another is told and may take it over', async () => {
    const device = await start();
    await device.save();
    expect(await TestDevice.open(device.client, app.clock, false)).toBeNull();
    const other = (await TestDevice.open(device.client, app.clock))!;
    expect(other.opened.hold.hold).toBe(2);
    expect((await device.save()).body.current).toBe(false);
    expect((await device.client.get<{ hold: number }>('/live')).body.hold).toBe(2);
    expect(kindsSeen(device)).toContain('second hold');
  });

  it('one that was not heard of for half a minute holds nothing back', async () => {
    const device = await start();
    await device.save();
    app.clock.advance(MINUTE_MS / 2);
    expect(await TestDevice.open(device.client, app.clock, false)).not.toBeNull();
  });

  it('the later hold wins whatever arrives last, and the candidate can choose the other', async () => {
    const first = await start();
    await first.answer(NUMBER, typed('1'));
    // Offline it goes on writing, while the other takes over.
    first.write(NUMBER, typed('11'));
    first.write(WRITING, essay('only here'));
    const second = (await TestDevice.open(first.client, app.clock))!;
    app.clock.advance(SECOND);
    expect(second.opened.desk.answers).toEqual({ [NUMBER]: typed('1') });
    await second.answer(NUMBER, typed('2'));
    expect((await first.save()).body).toMatchObject({ held: 3, current: false });
    expect(answersNow(first)).toEqual({ [NUMBER]: typed('2'), [WRITING]: essay('only here') });
    const { body } = await second.save();
    expect(body.otherVersions.toSorted()).toEqual([NUMBER, WRITING]);
    const versions = await second.client.get<AnswerVersion[]>(`/sitting/versions/${NUMBER}`);
    expect(versions.body.map((v) => [v.hold, v.elsewhere, v.value])).toEqual([
      [2, false, typed('2')],
      [1, true, typed('11')],
    ]);
    second.write(NUMBER, typed('11'), { restored: { hold: 1, number: 2 } });
    await second.save();
    expect(answersNow(first)[NUMBER]).toEqual(typed('11'));
    expect(kindsSeen(first)).toContain('restored writing');
  });
});

describe('the hand-in', () => {
  it('closes when it arrives: what it claims is shown and gives no time', async () => {
    const device = await start();
    await device.save();
    const claimed = now() + MINUTE_MS;
    app.clock.advance(25 * MINUTE_MS);
    const { body } = await device.handIn('candidate', { claimedAt: claimed });
    expect(body.receipt).toMatchObject({ handedInAt: now(), claimedAt: claimed, usedMs: 25 * MINUTE_MS });
    const staff = await app.staff('invigilator');
    const { invitationId } = rowOf(device);
    const round = db()
      .query.invitations.findFirst({ where: (t, { eq: is }) => is(t.id, invitationId) })
      .sync()!;
    const act = { act: 'readmit', invitation: invitationId, text: 'pressed by mistake', minutes: 0 };
    expect((await staff.post(`/watch/${round.roundId}/acts`, act)).status).toBe(200);
    // Five minutes were left, and five are left: not twenty-nine.
    expect((await device.save()).body.time.leftMs).toBe(5 * MINUTE_MS);
  });

  it('because time is up closes nothing before the deadline, and the sitting does not stay open', async () => {
    const device = await start();
    await device.save();
    app.clock.advance(LIMIT - 2 * SECOND);
    const early = await device.handIn('time');
    expect(early.body).toMatchObject({ closed: false, receipt: null, time: { leftMs: 2 * SECOND } });
    expect(early.body.time.deadlineAt).toBe(now() + 2 * SECOND);
    app.clock.advance(2 * SECOND);
    expect((await device.handIn('time')).body).toMatchObject({ closed: true, receipt: { closedBy: 'time' } });
    // Three days later nothing of it can be changed.
    app.clock.advance(3 * 24 * 60 * MINUTE_MS);
    await device.answer(NUMBER, typed('late'));
    expect(covered(device)).toEqual({});
  });

  it('twice gives the same receipt', async () => {
    const device = await start();
    device.write(NUMBER, typed('7'));
    const first = await device.handIn();
    const again = await device.handIn();
    expect(again.body.receipt).toEqual(first.body.receipt);
    expect(receiptsOf(db(), idOf(device))).toHaveLength(1);
  });

  it('is settled at once when the device shows that nothing else can come, and a letter brings the receipt', async () => {
    const device = await start();
    device.write(NUMBER, typed('7'));
    const { body } = await device.handIn();
    expect(rowOf(device).settledAt).toBeNull();
    await device.save();
    expect(rowOf(device).settledAt).toBe(now());
    const letter = app.wired.outbox.list().find((l) => l.subject.code === 'letter.receiptSubject')!;
    expect(app.wired.outbox.read(letter.id)!.facts).toMatchObject({ code: body.receipt!.code });
    await app.wired.services.jobs.turn();
    expect(rowOf(device).scoredAt).not.toBeNull();
  });

  it('is settled after twelve minutes where a device keeps silent', async () => {
    const device = await start();
    await device.answer(NUMBER, typed('7'));
    await device.handIn();
    await later(BYTES_MS - SECOND);
    expect(rowOf(device).settledAt).toBeNull();
    await later(2 * SECOND);
    expect(rowOf(device).settledAt).not.toBeNull();
  });

  it('is refused to whoever has not started', async () => {
    const client = await app.atCover(app.invite(newRound()));
    const head = { hold: 1, token: 'none', number: 0, chain: '0'.repeat(64), heard: 0 };
    const body = { head, opening: 'an-opening', entries: [], by: 'candidate', claimedAt: 0 };
    const refused = await client.post<Refusal>('/sitting/hand-in', body);
    expect([refused.status, refused.body.code]).toEqual([409, 'no-sitting']);
  });
});

describe('after the deadline', () => {
  it('writing that claims to be earlier counts only where nothing was heard since', async () => {
    const device = await start();
    await device.answer(NUMBER, typed('1'));
    app.clock.advance(LIMIT - SECOND);
    await device.save();
    app.clock.advance(6 * SECOND);
    await app.wired.sittings.sweep();
    // Heard of all along: it has named a time after the end before it writes, and backdates that by two minutes.
    await device.save();
    await device.save();
    device.write(NUMBER, typed('2'), { at: now() - 110 * SECOND });
    await device.save();
    await later();
    expect(covered(device)).toEqual({ [NUMBER]: typed('1') });
  });

  it('writing without a connection counts, with a receipt of its own; the first one stays valid', async () => {
    const device = await start();
    await device.answer(NUMBER, typed('1'));
    await device.save();
    app.clock.advance(LIMIT - 5 * SECOND);
    device.write(NUMBER, typed('2'), { at: now() });
    app.clock.advance(MINUTE_MS);
    await app.wired.sittings.sweep();
    expect(covered(device)).toEqual({ [NUMBER]: typed('1') });
    const { body } = await device.handIn('time');
    expect(body.receipt).toMatchObject({
      closedBy: 'server',
      earlier: [{ at: expect.any(Number) as number }],
    });
    expect(covered(device)).toEqual({ [NUMBER]: typed('2') });
    await device.save();
    expect(kindsSeen(device)).toContain('silence');
    expect(receiptsOf(db(), idOf(device)).map((r) => [r.reason, receiptHolds(db(), r)])).toEqual([
      ['handed in', true],
      ['late entries counted', true],
    ]);
  });

  it('writing that was first heard of after the grace goes before a coordinator, and is not marked before', async () => {
    const device = await start();
    await device.save();
    device.write(NUMBER, typed('9'));
    app.clock.advance(LIMIT + 3 * MINUTE_MS);
    await app.wired.sittings.sweep();
    await device.handIn('time');
    await later();
    expect(openOf(device)).toMatchObject([{ kind: 'late-entries', facts: { count: 1 } }]);
    expect([rowOf(device).scoredAt, covered(device)]).toEqual([null, {}]);
  });

  it('what was announced and never came is observed, and put before a coordinator', async () => {
    const device = await start();
    device.write(NUMBER, typed('1'));
    device.write(NUMBER, typed('2'));
    await device.save({ entries: [] });
    app.clock.advance(LIMIT + 10 * SECOND);
    await app.wired.sittings.sweep();
    // It delivers what suits it: a part of what it had announced never counts by itself.
    await device.save({ entries: device.entries.slice(0, 1) });
    expect(covered(device)).toEqual({});
    await later();
    expect(kindsSeen(device)).toContain('missing-entries');
    expect(openOf(device).map((d) => d.kind)).toEqual(['late-entries', 'missing-entries']);
    expect(covered(device)).toEqual({});
  });
});

describe('a pause', () => {
  const pause = async (device: TestDevice, act: 'pause' | 'go on') => {
    const { invitationId } = rowOf(device);
    const { roundId } = db()
      .query.invitations.findFirst({ where: (t, { eq: is }) => is(t.id, invitationId) })
      .sync()!;
    const staff = await app.staff('invigilator');
    return staff.post(`/watch/${roundId}/acts`, {
      act,
      invitation: invitationId,
      text: 'a fire alarm',
      minutes: 0,
    });
  };

  it('with writing in it makes two versions; without, one', async () => {
    const device = await start();
    await device.answer(NUMBER, typed('before'));
    await device.answer(WRITING, essay('before'));
    await pause(device, 'pause');
    app.clock.advance(MINUTE_MS);
    device.write(NUMBER, typed('in the pause'));
    await device.save();
    await pause(device, 'go on');
    // Confirms going on, then writes.
    await device.save();
    await device.save();
    await device.answer(WRITING, essay('after'));
    expect(answersNow(device)).toEqual({ [NUMBER]: typed('in the pause'), [WRITING]: essay('after') });
    await device.finish();
    expect(openOf(device).map((d) => [d.kind, d.target])).toEqual([['writing-in-stop', NUMBER]]);
    // The first receipt covers what was handed in; a decision without it has a receipt of its own.
    expect(covered(device)[NUMBER]).toEqual(typed('in the pause'));
    db()
      .update(decisions)
      .set({ decidedAt: now(), choice: 'leave' })
      .where(eq(decisions.sittingId, idOf(device)))
      .run();
    app.wired.sittings.closing.decided(idOf(device));
    expect(covered(device)).toEqual({ [NUMBER]: typed('before'), [WRITING]: essay('after') });
    expect(receiptsOf(db(), idOf(device)).map((r) => r.reason)).toEqual(['handed in', 'decision']);
  });
});

describe('a section with a limit of its own', () => {
  const twoSections = () => {
    const paper = samplePaper();
    const [only] = paper.sections;
    const limited = only!.items.filter((item) => item.key === 'the-number');
    const rest = only!.items.filter((item) => item.key !== 'the-number');
    return newRound({
      sections: [
        { ...only!, items: rest },
        { ...only!, key: 'B', title: 'Figures', minutes: 10, items: limited },
      ],
    });
  };
  const enter = (device: TestDevice) =>
    device.client.post<EnterReply>('/sitting/enter', { ...device.batch(), section: 'B' });

  it('is sealed by itself: its key and its clock come with the entering, again and again the same', async () => {
    const device = await start(twoSections(), 50);
    expect(device.opened.sealed.map((s) => s.section).toSorted()).toEqual(['', 'B']);
    expect(Object.keys(device.opened.keys.paper)).toEqual(['']);
    await device.save();
    app.clock.advance(5 * MINUTE_MS);
    const at = now();
    const first = await enter(device);
    // Ten minutes and a half more.
    expect(first.body.time.sectionEnds).toEqual({ B: at + 15 * MINUTE_MS });
    app.clock.advance(SECOND);
    const again = await enter(device);
    expect([again.body.keys, Object.keys(again.body.keys.paper)]).toEqual([first.body.keys, ['', 'B']]);
    expect(again.body.time.sectionEnds.B).toBeLessThanOrEqual(at + 15 * MINUTE_MS + SECOND);
  });

  it('takes nothing while it is sealed, whatever is withheld, and nothing that was made after it', async () => {
    const device = await start(twoSections());
    device.write('the-number', true, { about: 'opened' });
    await device.answer(NUMBER, typed('0'));
    expect(answersNow(device)).toEqual({});
    await enter(device);
    await device.save();
    await device.answer(NUMBER, typed('1'));
    app.clock.advance(10 * MINUTE_MS);
    await device.save();
    app.clock.advance(MINUTE_MS);
    await device.answer(NUMBER, typed('2'));
    expect(answersNow(device)).toEqual({ [NUMBER]: typed('1') });
  });
});

describe('the sweep', () => {
  it('leaves the device three seconds to hand in by itself, then closes as of the deadline', async () => {
    const device = await start();
    const deadline = now() + LIMIT;
    app.clock.advance(LIMIT + 2000);
    await app.wired.sittings.sweep();
    expect(rowOf(device).closedAt).toBeNull();
    app.clock.advance(2000);
    await app.wired.sittings.sweep();
    expect(rowOf(device)).toMatchObject({ closedBy: 'server', closedAt: deadline });
    expect(newestReceipt(db(), idOf(device))!.hash).toMatch(/^[0-9a-f]{64}$/);
  });

  it('closes a whole round, and nobody who has time left', async () => {
    const round = newRound();
    const many = await Promise.all(Array.from({ length: 12 }, (_, n) => start(round, n % 2 ? 50 : 0)));
    app.clock.advance(LIMIT + 5000);
    await app.wired.sittings.sweep();
    const closed = await Promise.all(many.map(async (device) => (await device.save()).body.closed));
    expect(closed).toEqual(many.map((_, n) => n % 2 === 0));
  });
});

describe('a server restored from a backup', () => {
  it('is sent again what it has lost, and grants a new hold for one that it does not know', async () => {
    const device = await start();
    await device.answer(NUMBER, typed('1'));
    const id = idOf(device);
    const { $client } = db();
    await device.answer(NUMBER, typed('2'));
    // As the backup of a minute ago had it.
    $client.exec(`delete from journal where sitting_id = ${id} and number > 1;
      update holds set whole = 0, chain = '${device.writer.token}' where sitting_id = ${id};
      delete from journal where sitting_id = ${id}; delete from heads where sitting_id = ${id};
      delete from current_answers where sitting_id = ${id};`);
    $client
      .prepare('update holds set chain = ? where sitting_id = ?')
      .run(sha256(`hold ${device.writer.token}`), id);
    app.wired.sittings.holds.forget();
    expect((await device.save({ entries: [] })).body.held).toBe(0);
    expect((await device.save({ entries: device.entries })).body.held).toBe(2);
    expect(answersNow(device)).toEqual({ [NUMBER]: typed('2') });
  });
});

describe('what is on record', () => {
  it('verifies receipt by receipt, and tells when the journal is no longer what was handed in', async () => {
    const device = await start();
    device.write(NUMBER, typed('12'));
    const { receipt } = await device.finish();
    expect(verifyReceipts(db()).broken).toEqual([]);
    db()
      .update(journal)
      .set({ value: JSON.stringify(typed('13')) })
      .where(eq(journal.sittingId, idOf(device)))
      .run();
    expect(verifyReceipts(db()).broken).toEqual([rowOf(device).script]);
    const check = await device.client.post('/arrival/receipt-check', { code: receipt!.code });
    expect(check.body).toEqual({ matches: true, whole: false });
    expect(db().select().from(receipts).all().length).toBeGreaterThan(1);
  });

  it('shows a missing and an altered observation', async () => {
    const device = await start();
    await device.save();
    for (let n = 0; n < 3; n++) await device.save({ opening: `loaded-again-${n}` });
    const id = idOf(device);
    const all = observationsOf(db(), id);
    expect([all.map((o) => o.kind), brokenObservation(db(), id)]).toEqual([
      ['reload', 'reload', 'reload'],
      null,
    ]);
    const second = eq(observations.id, all[1]!.id);
    db().update(observations).set({ to: 5 }).where(second).run();
    expect(brokenObservation(db(), id)).toBe(1);
    db().update(observations).set({ to: all[1]!.to }).where(second).run();
    expect(brokenObservation(db(), id)).toBeNull();
    db().delete(observations).where(second).run();
    expect(brokenObservation(db(), id)).toBe(1);
  });

  it('notes a gap in the line', async () => {
    const device = await start();
    await device.save();
    const from = now();
    app.clock.advance(26 * SECOND);
    await device.save();
    const [gap] = observationsOf(db(), idOf(device));
    expect(gap).toMatchObject({ kind: 'connection gap', from, to: now(), facts: { hold: 1 } });
  });
});
