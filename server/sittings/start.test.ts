import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { EnterReply, Prepared } from '../../core/sittings/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import { decisions, timeEvents } from '../db/schema';
import { sha256 } from '../secrets';
import type { Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { essay, LIMIT, NUMBER, SECOND, typed, WRITING, Sittings } from '../testing/Sittings';
import { TestDevice } from '../testing/TestDevice';
import { receiptsOf } from './receipts';

const of = Sittings.ofThisFile();

describe('the start', () => {
  it('costs no time before it, and begins only with the whole sealed paper on the device', async () => {
    const client = await of.app.atCover(of.app.invite(of.newRound()));
    const prepare = () => client.post<Prepared>('/sitting/prepare');
    // Pressed twice in the same moment: one form, one copy.
    const [one, two] = await Promise.all([prepare(), prepare()]);
    expect(one.body).toEqual(two.body);
    of.app.clock.advance(20 * MINUTE_MS);
    const torn = {
      store: 'a-store-of-mine',
      opening: 'an-opening',
      takeOver: false,
      sealed: ['ab'.repeat(32)],
    };
    const refused = await client.post<Refusal>('/sitting/start', torn);
    expect([refused.status, refused.body.code]).toEqual([409, 'paper-incomplete']);
    const device = await TestDevice.start(client, of.app.clock);
    expect(device.opened.time).toMatchObject({ startedAt: of.now(), leftMs: LIMIT });
  });

  it('shows nobody a question before it: what can be fetched is sealed, and not kept by caches', async () => {
    const client = await of.app.atCover(of.app.invite(of.newRound()));
    const { body } = await client.post<Prepared>('/sitting/prepare');
    const response = await client.raw(`/sitting/sealed/${body.sealed[0]!.hash}`);
    const bytes = Buffer.from(await response.arrayBuffer());
    expect(sha256(bytes)).toBe(body.sealed[0]!.hash);
    expect(bytes.toString('latin1')).not.toMatch(/Answer this|choice|question/);
    expect(response.headers.get('cache-control')).toBe('no-store');
    expect(JSON.stringify(body)).not.toContain('key');
  });

  it('happens once: asked again, the same store is given the same hold and the key again', async () => {
    const device = await of.start();
    of.app.clock.advance(2 * SECOND);
    const { store, opening, client } = device;
    const asked = { store, opening, takeOver: false, sealed: [] };
    const { body } = await client.post<{ opened: typeof device.opened }>('/sitting/start', asked);
    expect([body.opened.hold, body.opened.keys]).toEqual([device.opened.hold, device.opened.keys]);
    expect(body.opened.time.leftMs).toBe(LIMIT - 2 * SECOND);
    const starts = of.db
      .select()
      .from(timeEvents)
      .where(eq(timeEvents.sittingId, of.idOf(device)))
      .all();
    expect(starts.filter((row) => row.event.type === 'started')).toHaveLength(1);
  });

  it('gives back the time until the device shows that it has heard of it, on record', async () => {
    const device = await of.start();
    of.app.clock.advance(40 * SECOND);
    const { body } = await device.save({ head: { ...device.head(), heard: device.opened.now - 1 } });
    expect(body.time.leftMs).toBe(LIMIT - 40 * SECOND);
    const heard = await device.save();
    expect(heard.body.time.leftMs).toBe(LIMIT);
    expect(of.kindsSeen(device)).toContain('time given back');
  });
});

describe('a section with a limit of its own', () => {
  const twoSections = () => {
    const paper = samplePaper();
    const [only] = paper.sections;
    const limited = only!.items.filter((item) => item.key === 'the-number');
    const rest = only!.items.filter((item) => item.key !== 'the-number');
    return of.newRound({
      sections: [
        { ...only!, items: rest },
        { ...only!, key: 'B', title: 'Figures', minutes: 10, items: limited },
      ],
    });
  };
  const enter = (device: TestDevice) =>
    device.client.post<EnterReply>('/sitting/enter', { ...device.batch(), section: 'B' });

  it('is sealed by itself: its key and its clock come with the entering, again and again the same', async () => {
    const device = await of.start(twoSections(), 50);
    expect(device.opened.sealed.map((s) => s.section).toSorted()).toEqual(['', 'B']);
    expect(Object.keys(device.opened.keys.paper)).toEqual(['']);
    await device.save();
    of.app.clock.advance(5 * MINUTE_MS);
    const at = of.now();
    const first = await enter(device);
    // Ten minutes and a half more.
    expect(first.body.time.sectionEnds).toEqual({ B: at + 15 * MINUTE_MS });
    of.app.clock.advance(SECOND);
    const again = await enter(device);
    expect([again.body.keys, Object.keys(again.body.keys.paper)]).toEqual([first.body.keys, ['', 'B']]);
    expect(again.body.time.sectionEnds.B).toBeLessThanOrEqual(at + 15 * MINUTE_MS + SECOND);
  });

  it('takes nothing while it is sealed, whatever is withheld, and nothing that was made after it', async () => {
    const device = await of.start(twoSections());
    device.write('the-number', true, { about: 'opened' });
    await device.answer(NUMBER, typed('0'));
    expect(of.answersNow(device)).toEqual({});
    await enter(device);
    await device.save();
    await device.answer(NUMBER, typed('1'));
    of.app.clock.advance(10 * MINUTE_MS);
    await device.save();
    of.app.clock.advance(MINUTE_MS);
    await device.answer(NUMBER, typed('2'));
    expect(of.answersNow(device)).toEqual({ [NUMBER]: typed('1') });
  });
});

describe('a pause', () => {
  const pause = async (device: TestDevice, act: 'pause' | 'go on') => {
    const { invitationId } = of.rowOf(device);
    const { roundId } = of.db.query.invitations
      .findFirst({ where: (t, { eq: is }) => is(t.id, invitationId) })
      .sync()!;
    const staff = of.app.staff('invigilator');
    return staff.post(`/watch/${roundId}/acts`, {
      act,
      invitation: invitationId,
      text: 'a fire alarm',
      minutes: 0,
    });
  };

  it('with writing in it makes two versions; without, one', async () => {
    const device = await of.start();
    await device.answer(NUMBER, typed('before'));
    await device.answer(WRITING, essay('before'));
    await pause(device, 'pause');
    of.app.clock.advance(MINUTE_MS);
    device.write(NUMBER, typed('in the pause'));
    await device.save();
    await pause(device, 'go on');
    // Confirms going on, then writes.
    await device.save();
    await device.save();
    await device.answer(WRITING, essay('after'));
    expect(of.answersNow(device)).toEqual({ [NUMBER]: typed('in the pause'), [WRITING]: essay('after') });
    await device.finish();
    expect(of.openDecisions(device).map((d) => [d.kind, d.target])).toEqual([['writing-in-stop', NUMBER]]);
    // The first receipt covers what was handed in; a decision without it has a receipt of its own.
    expect(of.covered(device)[NUMBER]).toEqual(typed('in the pause'));
    of.db
      .update(decisions)
      .set({ decidedAt: of.now(), choice: 'leave' })
      .where(eq(decisions.sittingId, of.idOf(device)))
      .run();
    of.app.wired.sittings.closing.decided(of.idOf(device));
    expect(of.covered(device)).toEqual({ [NUMBER]: typed('before'), [WRITING]: essay('after') });
    expect(receiptsOf(of.db, of.idOf(device)).map((r) => r.reason)).toEqual(['handed in', 'decision']);
  });
});
