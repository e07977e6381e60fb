import Sqlite from 'better-sqlite3';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { OperationsView } from '../../core/health/api';
import { audit, jobs, sittings } from '../db/schema';
import { probe } from './probe';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let coordinator: ApiClient;
beforeAll(async () => {
  app = await serve();
  coordinator = app.staff('coordinator');
});
afterAll(() => app.close());

interface Health {
  readonly status: string;
  readonly troubles: readonly { readonly code: string }[];
}
/** What anybody is told, with its status. */
async function health(): Promise<[number, string, string[]]> {
  const { status, body } = await coordinator.get<Health>('/health');
  return [status, body.status, body.troubles.map(({ code }) => code)];
}
const WELL = [200, 'well', []];
/** As if the last commit were long ago: the probe writes. */
const stale = () => vi.spyOn(app.wired.services.commits, 'wellSinceMs').mockReturnValue(60_000);
const fails = (code: string) => Object.assign(new Error(code), { code });

describe('the health of the server', () => {
  it.each([
    ['SQLITE_FULL', 'disk-full'],
    ['SQLITE_READONLY', 'read-only'],
    ['EROFS', 'read-only'],
    ['SQLITE_IOERR_WRITE', 'database-broken'],
  ])(
    'tells of %s while it lasts, with a status that stops whoever sends people here',
    async (code, trouble) => {
      const fresh = stale();
      const commit = vi.spyOn(app.wired.services.commits, 'run').mockRejectedValue(fails(code));
      expect(await health()).toEqual([503, 'stopped', [trouble]]);
      const { body } = await coordinator.get<OperationsView>('/operations');
      expect(body.troubles.map((one) => one.code)).toEqual([trouble]);
      commit.mockRestore();
      expect(await health()).toEqual(WELL);
      fresh.mockRestore();
    },
  );

  it('tells of a database that another program has locked, and waits for it a tenth of a second at the most', async () => {
    const { config } = app.wired.services;
    const link = app.invite(app.addRound(samplePaper()));
    const client = await app.atCover(link);
    const fresh = stale();
    const other = new Sqlite(path.join(config.dataFolder, 'clear-sitting.sqlite'));
    other.exec('begin immediate');
    try {
      const refused = await client.post<Refusal>('/live/say', { text: 'Hello', hand: false });
      expect([refused.status, refused.body.code]).toEqual([503, 'database-locked']);
      // So long a try blocks the thread at the most; milliseconds.
      expect(app.wired.services.db.$client.pragma('busy_timeout', { simple: true })).toBe(100);
      expect(await health()).toEqual([503, 'stopped', ['database-locked']]);
    } finally {
      other.exec('rollback');
      other.close();
    }
    expect(await health()).toEqual(WELL);
    expect((await client.post('/live/say', { text: 'Hello', hand: false })).status).toBe(200);
    fresh.mockRestore();
  });

  it('asked by many at the same moment writes once', async () => {
    const fresh = stale();
    const commit = vi.spyOn(app.wired.services.commits, 'run');
    await Promise.all(Array.from({ length: 20 }, () => probe(app.wired.services)));
    expect(commit).toHaveBeenCalledTimes(1);
    // The next one looks again.
    await probe(app.wired.services);
    expect(commit).toHaveBeenCalledTimes(2);
    commit.mockRestore();
    fresh.mockRestore();
  });

  it('tells of background work that failed, though everybody is served', async () => {
    const { db } = app.wired.services;
    db.insert(jobs).values({ kind: 'score', subject: 1, runAt: 0, state: 'failed' }).run();
    expect(await health()).toEqual([200, 'in trouble', ['jobs-failed']]);
    db.delete(jobs).run();
    expect(await health()).toEqual(WELL);
  });

  it('tells of a clock that jumped; nothing is closed until a coordinator says that it is right', async () => {
    const { services, sittings: operations } = app.wired;
    const device = await app.sitting(app.invite(app.addRound({ ...samplePaper(), version: 2 })));
    const closed = () =>
      services.db
        .select()
        .from(sittings)
        .all()
        .find((one) => one.deviceName === device.opened.sitting)!.closedAt;
    expect(
      (await coordinator.post<Refusal>('/operations/believe-clock', { reason: 'It is right.' })).body.code,
    ).toBe('clock-right');
    app.clock.jump(3_600_000);
    expect(await health()).toEqual([200, 'in trouble', ['clock']]);
    await operations.sweep();
    expect(closed()).toBeNull();
    const assessor = app.staff('assessor');
    expect((await assessor.post('/operations/believe-clock', { reason: 'It is right.' })).status).toBe(403);
    const { body } = await coordinator.post<OperationsView>('/operations/believe-clock', {
      reason: 'The time server says so.',
    });
    expect(body.troubles).toEqual([]);
    expect(services.db.select().from(audit).all().at(-1)).toMatchObject({
      act: 'believed-clock',
      subject: 'clock +3600 s',
      reason: 'The time server says so.',
    });
    await operations.sweep();
    expect(closed()).not.toBeNull();
  });
});
