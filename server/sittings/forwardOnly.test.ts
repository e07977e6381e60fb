import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Navigation } from '../../core/papers/paper';
import { BYTES_MS } from '../../core/timing/deadline';
import { decisions, sittings } from '../db/schema/index';
import { observationsOf } from '../observations/observations';
import { bestOf, samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { TestDevice } from '../testing/TestDevice';
import { sittingQueries } from './queries';
import { answersOfReceipt, newestReceipt } from './receipts';
import { deskOf } from './values';

let app: Served;
beforeAll(async () => {
  app = await serve();
  vi.useFakeTimers({ toFake: ['Date'] });
});
afterAll(async () => {
  vi.useRealTimers();
  await app.close();
});

const [FIRST, SECOND, THIRD] = ['the-number', 'the-gaps', 'the-choice'] as const;
let version = 1;

/** Three questions in a section that is gone through forward only, all others in a free one. */
function paper(navigation: Navigation) {
  const sample = samplePaper();
  const [only] = sample.sections;
  const entryOf = (key: string) => only!.items.find((entry) => entry.key === key)!;
  const own = [FIRST, SECOND, THIRD].map(entryOf);
  const others = only!.items.filter((entry) => !own.includes(entry));
  return {
    ...sample,
    version: version++,
    sections: [
      { ...only!, key: 'A', navigation, items: own },
      { ...only!, key: 'B', items: others },
    ],
  };
}
const newRound = (navigation: Navigation) => app.addRound(paper(navigation));
const startIn = (round: number) => app.sitting(app.invite(round));
const start = (navigation: Navigation) => startIn(newRound(navigation));
const db = () => app.wired.services.db;
const idOf = ({ opened }: TestDevice) =>
  db().select().from(sittings).where(eq(sittings.deviceName, opened.sitting)).get()!.id;
const answersNow = (device: TestDevice) => deskOf(sittingQueries(db()).currentOf(idOf(device))).answers;
const covered = (device: TestDevice) => answersOfReceipt(db(), newestReceipt(db(), idOf(device))!);
const openOf = (device: TestDevice) =>
  db()
    .select()
    .from(decisions)
    .where(eq(decisions.sittingId, idOf(device)))
    .all()
    .filter((one) => one.decidedAt === null);
const typed = (text: string) => ({ version: 1, response: { typed: text } });
const target = (item: string) => `${item}/A`;
const goes = (device: TestDevice, item: string) => {
  device.write(item, true, { about: 'opened' });
  device.write(item, null, { about: 'place' });
};

describe('a section that is gone through forward only', () => {
  it('keeps an answer to a passed question as another version, and a coordinator decides', async () => {
    const round = newRound('forward only');
    const device = await startIn(round);
    goes(device, FIRST);
    await device.answer(target(FIRST), typed('1'));
    goes(device, SECOND);
    const { status, body } = await device.answer(target(FIRST), typed('2'));
    // Kept and acknowledged like everything, and not counted.
    expect([status, body.held, body.refused]).toEqual([200, device.entries.length, []]);
    expect(answersNow(device)[target(FIRST)]).toEqual(typed('1'));
    await device.answer(target(SECOND), bestOf('gaps'));
    await device.finish();
    expect(covered(device)).toMatchObject({ [target(FIRST)]: typed('1'), [target(SECOND)]: bestOf('gaps') });
    const [open, ...more] = openOf(device);
    expect([open!.kind, open!.target, more]).toEqual(['out-of-turn', target(FIRST), []]);
    expect(observationsOf(db(), idOf(device)).map((one) => one.kind)).toContain('out of turn');
    const coordinator = app.staff('coordinator');
    const decision = { id: open!.id, choice: 'take', reason: 'A fault of ours.' };
    const decided = await coordinator.post(`/rounds/${round}/decisions`, decision);
    expect(decided.status).toBe(200);
    expect(covered(device)[target(FIRST)]).toEqual(typed('2'));
  });

  it.each(['forward only', 'forward only once answered'] as const)(
    'holds for a device that notes no steps: an answer to a later question passes those before it (%s)',
    async (navigation) => {
      const device = await start(navigation);
      await device.answer(target(FIRST), bestOf('number'));
      await device.answer(target(SECOND), bestOf('gaps'));
      await device.answer(target(FIRST), typed('2'));
      await device.answer(target(FIRST), typed('3'));
      expect(answersNow(device)[target(FIRST)]).toEqual(bestOf('number'));
      await device.finish();
      expect(covered(device)).toMatchObject({
        [target(FIRST)]: bestOf('number'),
        [target(SECOND)]: bestOf('gaps'),
      });
      expect(openOf(device).map(({ kind, target: of }) => [kind, of])).toEqual([
        ['out-of-turn', target(FIRST)],
      ]);
    },
  );

  it('judges by running number: what was written before the step counts, however late it comes', async () => {
    const device = await start('forward only');
    goes(device, FIRST);
    await device.save();
    const early = device.write(target(FIRST), typed('7'));
    goes(device, SECOND);
    // The step comes first, the answer before it an hour later in the same batch's gap.
    await device.client.post('/sitting/journal', device.batch({ entries: device.entries.slice(-2) }));
    await device.client.post('/sitting/journal', device.batch({ entries: [early] }));
    expect(answersNow(device)[target(FIRST)]).toEqual(typed('7'));
    expect(observationsOf(db(), idOf(device)).map((one) => one.kind)).not.toContain('out of turn');
  });

  it('is closed as a whole once it was left', async () => {
    const device = await start('forward only');
    goes(device, FIRST);
    goes(device, 'the-writing');
    await device.save();
    await device.answer(target(SECOND), bestOf('gaps'));
    expect(answersNow(device)[target(SECOND)]).toBeUndefined();
    goes(device, SECOND);
    await device.answer(target(THIRD), bestOf('choice'));
    expect(answersNow(device)[target(THIRD)]).toBeUndefined();
    await device.finish();
    expect(
      openOf(device)
        .map((one) => one.target)
        .sort(),
    ).toEqual([target(SECOND), target(THIRD)].sort());
  });

  it('holds for a second device, and for what a first one still sends', async () => {
    const device = await start('forward only');
    goes(device, FIRST);
    await device.save();
    const second = (await TestDevice.open(device.client, app.clock))!;
    goes(second, SECOND);
    await second.save();
    await second.answer(target(FIRST), typed('3'));
    await device.answer(target(FIRST), typed('4'));
    expect(answersNow(second)[target(FIRST)]).toBeUndefined();
    await second.finish();
    // The first device is not heard of any more: it is waited for until bytes no longer count.
    app.clock.advance(BYTES_MS + 1000);
    await app.wired.services.jobs.turn();
    expect(openOf(second).map((one) => one.target)).toEqual([target(FIRST)]);
  });

  it('asks for an answer before the next question, where that is its rule', async () => {
    const device = await start('forward only once answered');
    goes(device, FIRST);
    goes(device, SECOND);
    await device.answer(target(SECOND), bestOf('gaps'));
    expect(answersNow(device)[target(SECOND)]).toBeUndefined();
    const honest = await start('forward only once answered');
    goes(honest, FIRST);
    honest.write(target(FIRST), bestOf('number'));
    goes(honest, SECOND);
    await honest.answer(target(SECOND), bestOf('gaps'));
    expect(answersNow(honest)[target(SECOND)]).toEqual(bestOf('gaps'));
    await honest.finish();
    expect(openOf(honest)).toEqual([]);
  });
});

describe('what is put down with the aids', () => {
  it('is kept, comes back on another device, and is no part of the receipt', async () => {
    const device = await start('free');
    const mark = { start: 0, end: 6, tint: 'dotted', quote: 'Answer' };
    device.write(FIRST, { 'part-a': [mark] }, { about: 'highlights' });
    device.write('text', 'three by four', { about: 'rough-work' });
    device.write('drawing', [[1, 2, 3, 4]], { about: 'rough-work' });
    device.write('calculator', { open: true, x: 40 }, { about: 'aid' });
    const { body } = await device.save();
    expect(body.refused).toEqual([]);
    const second = (await TestDevice.open(device.client, app.clock))!;
    expect(second.opened.desk).toMatchObject({
      highlights: { [FIRST]: { 'part-a': [mark] } },
      roughWork: { text: 'three by four', drawing: [[1, 2, 3, 4]] },
      aids: { calculator: { open: true, x: 40 } },
    });
    await second.finish();
    expect(covered(second)).toEqual({});
  });

  it.each([
    ['highlights of another paper', 'highlights', 'nothing-here', {}],
    ['highlights of another shape', 'highlights', FIRST, { 'part-a': [{ start: 0 }] }],
    ['another place of rough work', 'rough-work', 'third', 'x'],
    ['rough work that is too long', 'rough-work', 'text', 'x'.repeat(20_001)],
    ['a drawing beside the pad', 'rough-work', 'drawing', [[5000, 1]]],
    ['a setting with things in it', 'aid', 'lens', { open: { really: true } }],
  ] as const)('%s is kept aside, and all else goes on', async (_, about, place, value) => {
    const device = await start('free');
    const bad = device.write(place, value, { about });
    const { body } = await device.answer(target(FIRST), typed('5'));
    expect(body.refused).toEqual([{ number: bad.number, code: 'foreign' }]);
    expect(answersNow(device)[target(FIRST)]).toEqual(typed('5'));
  });
});
