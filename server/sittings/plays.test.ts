import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LiveView } from '../../core/live/api';
import type { WatchChange } from '../../core/watch/api';
import { invitations, playGrants } from '../db/schema';
import { keepFiles } from '../papers/keepFiles';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { mediaPaper } from '../testing/mediaPaper';
import { serve, type Served } from '../testing/serve';
import { TestDevice } from '../testing/TestDevice';

let app: Served;
let round: number;
let briefing: string;
let invigilator: ApiClient;
beforeAll(async () => {
  app = await serve();
  const { files, paper } = await mediaPaper();
  keepFiles(app.wired.services, files);
  briefing = files.find((one) => one.facts.is === 'audio')!.facts.hash;
  round = app.addRound(paper);
  invigilator = app.staff('invigilator');
});
afterAll(() => app.close());

const start = () => app.sitting(app.invite(round));
const ask = async (device: TestDevice, more: object = {}) => {
  const { body } = await device.play(briefing, more);
  return [body.number, body.plays[briefing]] as const;
};
/** The device says that it has used a play; sent with the next request. */
const use = (device: TestDevice, number: number) => device.write(briefing, number, { about: 'play' });
/** The one that was granted last is held ready, unless it is said otherwise. */
const count = (granted: number, allowed = 2, unused: number[] = granted === 0 ? [] : [granted]) => ({
  granted,
  allowed,
  unused,
});

describe('plays of a recording', () => {
  it('are granted one at a time, the next one when the last was used, and no more than there are', async () => {
    const device = await start();
    expect(await ask(device)).toEqual([1, count(1)]);
    // Asked again, for a reply that was lost: the same one.
    expect(await ask(device)).toEqual([1, count(1)]);
    use(device, 1);
    expect(await ask(device)).toEqual([2, count(2)]);
    use(device, 2);
    expect(await ask(device)).toEqual([null, count(2, 2, [])]);
    expect(device.opened.plays).toEqual({ [briefing]: count(0) });
  });

  it('are not won back by another device, nor by the first one again', async () => {
    const device = await start();
    expect(await ask(device)).toEqual([1, count(1)]);
    const second = (await TestDevice.open(device.client, app.clock))!;
    // The first may have played it without a connection: it counts as used.
    expect(await ask(second)).toEqual([2, count(2, 2, [1, 2])]);
    const third = (await TestDevice.open(device.client, app.clock))!;
    expect(await ask(third)).toEqual([null, count(2, 2, [1, 2])]);
    // What has lost the desk is granted nothing, whatever is left.
    expect((await ask(device))[0]).toBeNull();
  });

  it('come back when a device that lost the desk did not use the one it held ready, once', async () => {
    const device = await start();
    expect(await ask(device)).toEqual([1, count(1)]);
    // While it has the desk, it has nothing to give back.
    await device.returnPlay(briefing);
    expect(await ask(device)).toEqual([1, count(1)]);
    const second = (await TestDevice.open(device.client, app.clock))!;
    expect(await ask(second)).toEqual([2, count(2, 2, [1, 2])]);
    for (let n = 0; n < 2; n++) expect((await device.returnPlay(briefing)).status).toBe(200);
    use(second, 2);
    expect(await ask(second)).toEqual([3, count(3, 3)]);
    use(second, 3);
    expect(await ask(second)).toEqual([null, count(3, 3, [])]);
    expect((await device.returnPlay('f'.repeat(64))).status).toBe(404);
  });

  it('do not come back when it was used before the desk was lost', async () => {
    const device = await start();
    await ask(device);
    use(device, 1);
    const second = (await TestDevice.open(device.client, app.clock))!;
    await ask(second);
    await device.returnPlay(briefing);
    expect(await ask(second)).toEqual([2, count(2)]);
  });

  it('are not won back by what a device makes up', async () => {
    const device = await start();
    await ask(device);
    for (const [value, refused] of [
      [0, ['foreign']],
      [-3, ['foreign']],
      ['1', ['foreign']],
      [1e9, ['foreign']],
      [1, []],
    ] as const) {
      device.write(briefing, value, { about: 'play' });
      const { body } = await device.save();
      expect(body.refused.map((one) => one.code)).toEqual(refused);
    }
    // A recording that the paper does not have.
    device.write('f'.repeat(64), 1, { about: 'play' });
    expect((await device.save()).body.refused).toHaveLength(1);
    expect((await device.play('f'.repeat(64))).status).toBe(404);
    expect(await ask(device)).toEqual([2, count(2)]);
    use(device, 1);
    // An old use said again gives nothing.
    expect(await ask(device)).toEqual([2, count(2)]);
    await device.finish();
    expect((await ask(device))[0]).toBeNull();
  });

  it('stay used where the server was restored from a copy that does not know of them', async () => {
    const device = await start();
    app.wired.services.db.delete(playGrants).run();
    use(device, 1);
    expect(await ask(device)).toEqual([2, count(2)]);
  });

  it('are given back by an invigilator, with a reason on record, and the device hears of it', async () => {
    const device = await start();
    for (const number of [1, 2]) {
      await ask(device);
      use(device, number);
    }
    expect((await ask(device))[0]).toBeNull();
    const invitation = app.wired.services.db.select().from(invitations).all().at(-1)!.id;
    const act = { act: 'give play back', invitation, text: 'The sound broke off.', minutes: 0 };
    const wrong = await invigilator.post<Refusal>(`/watch/${round}/acts`, { ...act, file: 'f'.repeat(64) });
    expect(wrong.status).toBe(404);
    const { body } = await invigilator.post<WatchChange>(`/watch/${round}/acts`, { ...act, file: briefing });
    expect(body.rows[0]!.plays).toEqual([{ file: briefing, title: 'Morning briefing', ...count(2, 3, []) }]);
    const { body: live } = await device.client.get<LiveView>('/live');
    expect(live.plays).toEqual({ [briefing]: count(2, 3, []) });
    expect(await ask(device)).toEqual([3, count(3, 3)]);
  });
});
