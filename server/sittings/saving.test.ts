import { checkSum } from './checkSum';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { makePatch } from '../../core/journal/patch';
import type { AnswerVersion } from '../../core/sittings/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import { journal } from '../db/schema';
import { sha256 } from '../secrets';
import { essay, NUMBER, SECOND, typed, WRITING, Sittings } from '../testing/Sittings';
import { TestDevice } from '../testing/TestDevice';
import { valueOf } from './values';
import { sittingQueries } from './queries';

const of = Sittings.ofThisFile();

describe('saving', () => {
  it('keeps what fits beside what does not, and says of each why not', async () => {
    const device = await of.start();
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
    expect(of.answersNow(device)).toEqual({ [NUMBER]: typed('4') });
  });

  it('takes entries in any order and any number of times', async () => {
    const device = await of.start();
    for (let n = 1; n <= 6; n++) device.write(NUMBER, typed(`${n}`));
    const [first, second, third] = [0, 2, 4].map((from) => device.entries.slice(from, from + 2));
    expect((await device.save({ entries: third })).body.held).toBe(0);
    expect((await device.save({ entries: first })).body.held).toBe(2);
    expect((await device.save({ entries: [...second!, ...first!] })).body.held).toBe(6);
    expect(of.answersNow(device)).toEqual({ [NUMBER]: typed('6') });
    expect(
      of.db
        .select()
        .from(journal)
        .where(eq(journal.sittingId, of.idOf(device)))
        .all(),
    ).toHaveLength(6);
  });

  it('follows patches, also where they come before their base', async () => {
    const device = await of.start();
    const texts = ['At night', 'At night the supply', 'At night the supply dipped'].map((t) => essay(t));
    device.write(WRITING, texts[0]);
    const canonical = (value: unknown) => valueTextOf(value);
    for (const n of [1, 2])
      device.write(WRITING, undefined, {
        patch: makePatch(
          { hold: 1, number: n },
          { from: canonical(texts[n - 1]), to: canonical(texts[n]) },
          checkSum,
        ),
      });
    expect((await device.save({ entries: device.entries.slice(1) })).body.renew).toBe(false);
    expect(of.answersNow(device)).toEqual({});
    await device.save({ entries: device.entries.slice(0, 1) });
    expect(of.answersNow(device)).toEqual({ [WRITING]: texts[2] });
    expect(valueOf(sittingQueries(of.db), of.idOf(device), { hold: 1, number: 3 })?.depth).toBe(2);
  });

  it('keeps the last value of a batch that reads as an answer', async () => {
    const device = await of.start();
    await device.answer(WRITING, essay('At night'));
    const texts = [essay('At night'), essay('At night the supply'), { version: 1, response: { chosen: [] } }];
    for (const n of [1, 2]) {
      const [from, to] = [valueTextOf(texts[n - 1]), valueTextOf(texts[n])];
      device.write(WRITING, undefined, { patch: makePatch({ hold: 1, number: n }, { from, to }, checkSum) });
    }
    expect((await device.save()).body).toMatchObject({ held: 3, renew: true });
    expect(of.answersNow(device)).toEqual({ [WRITING]: texts[1] });
  });

  it('asks for a fresh hold where a patch does not fit, and goes on', async () => {
    const device = await of.start();
    await device.answer(WRITING, essay('whole'));
    const patch = { base: { hold: 1, number: 1 }, place: 0, cut: 0, put: 'x', sum: '0'.repeat(8) };
    device.write(WRITING, undefined, { patch });
    device.write(NUMBER, typed('5'));
    expect((await device.save()).body).toMatchObject({ held: 3, renew: true });
    expect(of.answersNow(device)).toEqual({ [WRITING]: essay('whole'), [NUMBER]: typed('5') });
  });

  it('never refuses a contradiction: it is kept, observed, and answered with a fresh hold', async () => {
    const device = await of.start();
    await device.answer(NUMBER, typed('1'));
    const other = { ...device.entries[0]!, value: typed('2') };
    const { body } = await device.save({ entries: [other] });
    expect(body).toMatchObject({ held: 1, renew: true });
    expect(of.answersNow(device)).toEqual({ [NUMBER]: typed('1') });
    expect(of.kindsSeen(device)).toEqual(['mismatch']);
    expect(
      of.db
        .select()
        .from(journal)
        .where(eq(journal.sittingId, of.idOf(device)))
        .all(),
    ).toHaveLength(2);
  });

  it('tells a hold that this server never granted', async () => {
    const device = await of.start();
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
    const device = await of.start();
    await device.save();
    expect(await TestDevice.open(device.client, of.app.clock, false)).toBeNull();
    const other = (await TestDevice.open(device.client, of.app.clock))!;
    expect(other.opened.hold.hold).toBe(2);
    expect((await device.save()).body.current).toBe(false);
    expect((await device.client.get<{ hold: number }>('/live')).body.hold).toBe(2);
    expect(of.kindsSeen(device)).toContain('second hold');
  });

  it('one that was not heard of for half a minute holds nothing back', async () => {
    const device = await of.start();
    await device.save();
    of.app.clock.advance(MINUTE_MS / 2);
    expect(await TestDevice.open(device.client, of.app.clock, false)).not.toBeNull();
  });

  it('the later hold wins whatever arrives last, and the candidate can choose the other', async () => {
    const first = await of.start();
    await first.answer(NUMBER, typed('1'));
    // Offline it goes on writing, while the other takes over.
    first.write(NUMBER, typed('11'));
    first.write(WRITING, essay('only here'));
    const second = (await TestDevice.open(first.client, of.app.clock))!;
    of.app.clock.advance(SECOND);
    expect(second.opened.desk.answers).toEqual({ [NUMBER]: typed('1') });
    await second.answer(NUMBER, typed('2'));
    expect((await first.save()).body).toMatchObject({ held: 3, current: false });
    expect(of.answersNow(first)).toEqual({ [NUMBER]: typed('2'), [WRITING]: essay('only here') });
    const { body } = await second.save();
    expect(body.otherVersions.toSorted()).toEqual([NUMBER, WRITING]);
    const versions = await second.client.get<AnswerVersion[]>(`/sitting/versions/${NUMBER}`);
    expect(versions.body.map((v) => [v.hold, v.elsewhere, v.value])).toEqual([
      [2, false, typed('2')],
      [1, true, typed('11')],
    ]);
    second.write(NUMBER, typed('11'), { restored: { hold: 1, number: 2 } });
    await second.save();
    expect(of.answersNow(first)[NUMBER]).toEqual(typed('11'));
    expect(of.kindsSeen(first)).toContain('restored writing');
  });
});

describe('a server restored from a backup', () => {
  it('is sent again what it has lost, and grants a new hold for one that it does not know', async () => {
    const device = await of.start();
    await device.answer(NUMBER, typed('1'));
    const id = of.idOf(device);
    const { $client } = of.db;
    await device.answer(NUMBER, typed('2'));
    // As the backup of a minute ago had it.
    $client.exec(`delete from journal where sitting_id = ${id} and number > 1;
      update holds set whole = 0, chain = '${device.writer.token}' where sitting_id = ${id};
      delete from journal where sitting_id = ${id}; delete from heads where sitting_id = ${id};
      delete from current_answers where sitting_id = ${id};`);
    $client
      .prepare('update holds set chain = ? where sitting_id = ?')
      .run(sha256(`hold ${device.writer.token}`), id);
    of.app.wired.sittings.holds.forget();
    expect((await device.save({ entries: [] })).body.held).toBe(0);
    expect((await device.save({ entries: device.entries })).body.held).toBe(2);
    expect(of.answersNow(device)).toEqual({ [NUMBER]: typed('2') });
  });
});
