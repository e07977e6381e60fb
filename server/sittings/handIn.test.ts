import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { BYTES_MS, MINUTE_MS } from '../../core/timing/deadline';
import { journal, observations, receipts } from '../db/schema';
import { brokenObservation, observationsOf } from '../observations/observations';
import type { Refusal } from '../testing/ApiClient';
import { LIMIT, NUMBER, SECOND, typed, Sittings } from '../testing/Sittings';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { sha256 } from '../secrets';
import { receiptHolds, receiptsOf, newestReceipt } from './receipts';
import { verifyReceipts } from './verifyReceipts';

const of = Sittings.ofThisFile();

describe('the hand-in', () => {
  it('closes when it arrives: what it claims is shown and gives no time', async () => {
    const device = await of.start();
    await device.save();
    const claimed = of.now() + MINUTE_MS;
    of.app.clock.advance(25 * MINUTE_MS);
    const { body } = await device.handIn('candidate', { claimedAt: claimed });
    expect(body.receipt).toMatchObject({ handedInAt: of.now(), claimedAt: claimed, usedMs: 25 * MINUTE_MS });
    const staff = of.app.staff('invigilator');
    const { invitationId } = of.rowOf(device);
    const round = of.db.query.invitations
      .findFirst({ where: (t, { eq: is }) => is(t.id, invitationId) })
      .sync()!;
    const act = { act: 'readmit', invitation: invitationId, text: 'pressed by mistake', minutes: 0 };
    expect((await staff.post(`/watch/${round.roundId}/acts`, act)).status).toBe(200);
    // Five minutes were left, and five are left: not twenty-nine.
    expect((await device.save()).body.time.leftMs).toBe(5 * MINUTE_MS);
  });

  it('because time is up closes nothing before the deadline, and the sitting does not stay open', async () => {
    const device = await of.start();
    await device.save();
    of.app.clock.advance(LIMIT - 2 * SECOND);
    const early = await device.handIn('time');
    expect(early.body).toMatchObject({ closed: false, receipt: null, time: { leftMs: 2 * SECOND } });
    expect(early.body.time.deadlineAt).toBe(of.now() + 2 * SECOND);
    of.app.clock.advance(2 * SECOND);
    expect((await device.handIn('time')).body).toMatchObject({ closed: true, receipt: { closedBy: 'time' } });
    // Three days later nothing of it can be changed.
    of.app.clock.advance(3 * 24 * 60 * MINUTE_MS);
    await device.answer(NUMBER, typed('late'));
    expect(of.covered(device)).toEqual({});
  });

  it('twice gives the same receipt', async () => {
    const device = await of.start();
    device.write(NUMBER, typed('7'));
    const first = await device.handIn();
    const again = await device.handIn();
    expect(again.body.receipt).toEqual(first.body.receipt);
    expect(receiptsOf(of.db, of.idOf(device))).toHaveLength(1);
  });

  it('gives equal papers receipts of their own, and one that proves the answers alone still holds', async () => {
    const codes: string[] = [];
    for (let n = 0; n < 3; n++) {
      const device = await of.start();
      device.write(NUMBER, typed('7'));
      codes.push((await device.handIn()).body.receipt!.code);
      const receipt = newestReceipt(of.db, of.idOf(device))!;
      expect(receiptHolds(of.db, receipt)).toBe(true);
      const hash = sha256(canonicalJson({ [NUMBER]: typed('7') }));
      expect(receiptHolds(of.db, { ...receipt, form: 1, hash })).toBe(true);
      expect(receiptHolds(of.db, { ...receipt, hash })).toBe(false);
    }
    expect(new Set(codes).size).toBe(3);
  });

  it('is completed by what it named; what is sent afterwards waits for a coordinator, whatever it claims', async () => {
    const device = await of.start();
    device.write(NUMBER, typed('7'));
    const { heard } = device;
    of.app.clock.advance(10 * SECOND);
    await device.handIn();
    // As if it had not heard of the hand-in's reply.
    device.heard = heard;
    const claimed = of.now();
    of.app.clock.advance(10 * SECOND);
    device.write(NUMBER, typed('8'), { at: claimed });
    await device.save();
    await of.later(BYTES_MS + MINUTE_MS);
    expect(of.covered(device)).toEqual({ [NUMBER]: typed('7') });
    expect(of.openDecisions(device).map(({ kind }) => kind)).toEqual(['late-entries']);
  });

  it('is settled at once when the device shows that nothing else can come, and a letter brings the receipt', async () => {
    const device = await of.start();
    device.write(NUMBER, typed('7'));
    const { body } = await device.handIn();
    expect(of.rowOf(device).settledAt).toBeNull();
    await device.save();
    expect(of.rowOf(device).settledAt).toBe(of.now());
    const letter = of.app.wired.outbox.list().find((l) => l.subject.code === 'letter.receiptSubject')!;
    expect(of.app.wired.outbox.read(letter.id)!.facts).toMatchObject({ code: body.receipt!.code });
    await of.app.wired.services.jobs.turn();
    expect(of.rowOf(device).scoredAt).not.toBeNull();
  });

  it('is settled after twelve minutes where a device keeps silent', async () => {
    const device = await of.start();
    await device.answer(NUMBER, typed('7'));
    await device.handIn();
    await of.later(BYTES_MS - SECOND);
    expect(of.rowOf(device).settledAt).toBeNull();
    await of.later(2 * SECOND);
    expect(of.rowOf(device).settledAt).not.toBeNull();
  });

  it('is refused to anyone who has not started', async () => {
    const client = await of.app.atCover(of.app.invite(of.newRound()));
    const head = { hold: 1, token: 'none', number: 0, chain: '0'.repeat(64), heard: 0 };
    const body = { head, opening: 'an-opening', entries: [], by: 'candidate', claimedAt: 0 };
    const refused = await client.post<Refusal>('/sitting/hand-in', body);
    expect([refused.status, refused.body.code]).toEqual([409, 'no-sitting']);
  });
});

describe('after the deadline', () => {
  it('writing that claims to be earlier counts only where nothing was heard since', async () => {
    const device = await of.start();
    await device.answer(NUMBER, typed('1'));
    of.app.clock.advance(LIMIT - SECOND);
    await device.save();
    of.app.clock.advance(6 * SECOND);
    await of.app.wired.sittings.sweep();
    // Heard of all along: it has named a time after the end before it writes, and backdates that by two minutes.
    await device.save();
    await device.save();
    device.write(NUMBER, typed('2'), { at: of.now() - 110 * SECOND });
    await device.save();
    await of.later();
    expect(of.covered(device)).toEqual({ [NUMBER]: typed('1') });
  });

  it('writing without a connection counts, with a receipt of its own; the first one stays valid', async () => {
    const device = await of.start();
    await device.answer(NUMBER, typed('1'));
    await device.save();
    of.app.clock.advance(LIMIT - 5 * SECOND);
    device.write(NUMBER, typed('2'), { at: of.now() });
    of.app.clock.advance(MINUTE_MS);
    await of.app.wired.sittings.sweep();
    expect(of.covered(device)).toEqual({ [NUMBER]: typed('1') });
    const { body } = await device.handIn('time');
    expect(body.receipt).toMatchObject({
      closedBy: 'server',
      earlier: [{ at: expect.any(Number) as number }],
    });
    expect(of.covered(device)).toEqual({ [NUMBER]: typed('2') });
    await device.save();
    expect(of.kindsSeen(device)).toContain('silence');
    expect(receiptsOf(of.db, of.idOf(device)).map((r) => [r.reason, receiptHolds(of.db, r)])).toEqual([
      ['handed in', true],
      ['late entries counted', true],
    ]);
  });

  it('writing that was first heard of after the grace goes before a coordinator, and is not marked before', async () => {
    const device = await of.start();
    await device.save();
    device.write(NUMBER, typed('9'));
    of.app.clock.advance(LIMIT + 3 * MINUTE_MS);
    await of.app.wired.sittings.sweep();
    await device.handIn('time');
    await of.later();
    expect(of.openDecisions(device)).toMatchObject([{ kind: 'late-entries', facts: { count: 1 } }]);
    expect([of.rowOf(device).scoredAt, of.covered(device)]).toEqual([null, {}]);
  });

  it('what was announced and never came is observed, and put before a coordinator', async () => {
    const device = await of.start();
    device.write(NUMBER, typed('1'));
    device.write(NUMBER, typed('2'));
    await device.save({ entries: [] });
    of.app.clock.advance(LIMIT + 10 * SECOND);
    await of.app.wired.sittings.sweep();
    // It delivers what suits it: a part of what it had announced never counts by itself.
    await device.save({ entries: device.entries.slice(0, 1) });
    expect(of.covered(device)).toEqual({});
    await of.later();
    expect(of.kindsSeen(device)).toContain('missing-entries');
    expect(of.openDecisions(device).map((d) => d.kind)).toEqual(['late-entries', 'missing-entries']);
    expect(of.covered(device)).toEqual({});
  });
});

describe('the sweep', () => {
  it('leaves the device three seconds to hand in by itself, then closes as of the deadline', async () => {
    const device = await of.start();
    const deadline = of.now() + LIMIT;
    await device.save();
    of.app.clock.advance(LIMIT + 2000);
    await of.app.wired.sittings.sweep();
    expect(of.rowOf(device).closedAt).toBeNull();
    of.app.clock.advance(2000);
    await of.app.wired.sittings.sweep();
    expect(of.rowOf(device)).toMatchObject({ closedBy: 'server', closedAt: deadline });
    expect(newestReceipt(of.db, of.idOf(device))!.hash).toMatch(/^[0-9a-f]{64}$/);
  });

  it('closes a whole round, and nobody who has time left', async () => {
    const round = of.newRound();
    const many = await Promise.all(Array.from({ length: 12 }, (_, n) => of.start(round, n % 2 ? 50 : 0)));
    await Promise.all(many.map((device) => device.save()));
    of.app.clock.advance(LIMIT + 5000);
    await of.app.wired.sittings.sweep();
    const closed = await Promise.all(many.map(async (device) => (await device.save()).body.closed));
    expect(closed).toEqual(many.map((_, n) => n % 2 === 0));
  });
});

describe('what is on record', () => {
  it('verifies receipt by receipt, and tells when the journal is no longer what was handed in', async () => {
    const device = await of.start();
    device.write(NUMBER, typed('12'));
    const { receipt } = await device.finish();
    expect(verifyReceipts(of.db).broken).toEqual([]);
    of.db
      .update(journal)
      .set({ value: JSON.stringify(typed('13')) })
      .where(eq(journal.sittingId, of.idOf(device)))
      .run();
    expect(verifyReceipts(of.db).broken).toEqual([of.rowOf(device).script]);
    const check = await device.client.post('/arrival/receipt-check', { code: receipt!.code });
    expect(check.body).toEqual({ matches: true, whole: false });
    expect(of.db.select().from(receipts).all().length).toBeGreaterThan(1);
  });

  it('shows a missing and an altered observation', async () => {
    const device = await of.start();
    await device.save();
    for (let n = 0; n < 3; n++) await device.save({ opening: `loaded-again-${n}` });
    const id = of.idOf(device);
    const all = observationsOf(of.db, id);
    expect([all.map((o) => o.kind), brokenObservation(of.db, id)]).toEqual([
      ['reload', 'reload', 'reload'],
      null,
    ]);
    const second = eq(observations.id, all[1]!.id);
    of.db.update(observations).set({ to: 5 }).where(second).run();
    expect(brokenObservation(of.db, id)).toBe(1);
    of.db.update(observations).set({ to: all[1]!.to }).where(second).run();
    expect(brokenObservation(of.db, id)).toBeNull();
    of.db.delete(observations).where(second).run();
    expect(brokenObservation(of.db, id)).toBe(1);
  });

  it('notes a gap in the line', async () => {
    const device = await of.start();
    await device.save();
    const from = of.now();
    of.app.clock.advance(26 * SECOND);
    await device.save();
    const [gap] = observationsOf(of.db, of.idOf(device));
    expect(gap).toMatchObject({ kind: 'connection gap', from, to: of.now(), facts: { hold: 1 } });
  });
});
