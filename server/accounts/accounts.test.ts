import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { StaffAccount } from '../../core/accounts/api';
import type { StaffMember } from '../../core/rounds/api';
import { staff } from '../db/schema';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { waiting } from '../machine/pause';
import { addStaff } from './operations';

/** How long those would have waited who failed too often. */
const paused: number[] = [];
let app: Served;
const password = 'kelp-on-the-tide-line';
beforeAll(async () => {
  vi.spyOn(waiting, 'pause').mockImplementation((ms) => Promise.resolve(void paused.push(ms)));
  app = await serve();
  const member = { name: 'Odile Varr', password, roles: ['coordinator' as const] };
  await addStaff(app.wired.services.db, { ...member, email: 'odile@example.org' });
});
afterAll(() => {
  vi.restoreAllMocks();
  return app.close();
});

const signIn = (client: ApiClient, email: string, typed = password) =>
  client.post<StaffMember & Refusal>('/sign-in', { email, password: typed });

describe('signing in', () => {
  it('knows an address however it is typed, and says who came', async () => {
    const client = new ApiClient(app.url);
    expect((await client.get('/me')).status).toBe(401);
    const { body } = await signIn(client, ' Odile@Example.org ');
    expect(body).toEqual({ name: 'Odile Varr', roles: ['coordinator'] });
    expect((await client.get<StaffMember>('/me')).body).toEqual(body);
  });

  it('does not say whether the address or the password was wrong', async () => {
    const client = new ApiClient(app.url);
    const wrong = await signIn(client, 'odile@example.org', 'samphire');
    const nobody = await signIn(client, 'nobody@example.org');
    expect([wrong.status, wrong.body]).toEqual([nobody.status, nobody.body]);
    expect(wrong.body.code).toBe('wrong-sign-in');
    expect((await client.get('/me')).status).toBe(401);
  });

  it('counts guesses at one address as one, however it is typed, and slows them down', async () => {
    const client = new ApiClient(app.url);
    const typed = (n: number) => (n % 2 ? 'Tamsin@example.org' : ' tamsin@EXAMPLE.org');
    paused.length = 0;
    for (let n = 0; n < 9; n++)
      expect((await signIn(client, typed(n), 'guess')).body.code).toBe('wrong-sign-in');
    // Five are free; then each waits twice as long as the one before.
    expect(paused).toEqual([1000, 2000, 4000, 8000]);
    expect((await signIn(client, 'odile@example.org')).status).toBe(200);
    expect(paused).toHaveLength(4);
  });

  it('keeps neither the password nor the secret of the session', async () => {
    const client = new ApiClient(app.url);
    await signIn(client, 'odile@example.org');
    const { db } = app.wired.services;
    const hash = db.select().from(staff).get()!.passwordHash;
    expect(hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    const kept = db.$client.prepare('select token_hash as hash from staff_sessions').all() as {
      hash: string;
    }[];
    for (const row of kept) expect(row.hash).toMatch(/^[0-9a-f]{64}$/);
  });

  it('locks nobody out: neither by failures at their account nor by those of their neighbours', async () => {
    const proxied = await serve({ CLEAR_SITTING_PROXIES: '1' });
    try {
      const { db } = proxied.wired.services;
      await addStaff(db, { email: 'odile@example.org', name: 'Odile', password, roles: ['coordinator'] });
      const from = async (client: ApiClient, address: string, email: string, typed: string) =>
        (await client.post<Refusal>('/sign-in', { email, password: typed }, { 'X-Forwarded-For': address }))
          .status;
      const [attacker, own] = [new ApiClient(proxied.url), new ApiClient(proxied.url)];
      expect(await from(own, '2001:db8:1:2::1', 'odile@example.org', password)).toBe(200);
      for (let n = 0; n < 12; n++)
        expect(await from(attacker, '192.0.2.1', 'odile@example.org', 'guess')).toBe(401);
      // From elsewhere she waits half a minute at the most; at a device that she has used she waits for nothing.
      paused.length = 0;
      expect(await from(new ApiClient(proxied.url), '192.0.2.2', 'odile@example.org', password)).toBe(200);
      expect(paused).toEqual([30_000]);
      expect(await from(own, '192.0.2.1', 'odile@example.org', password)).toBe(200);
      // Every address of one network counts as one (IPv6, /64); twenty failures are free.
      for (let n = 0; n < 22; n++)
        expect(await from(attacker, `2001:db8:1:2::${n}`, `staff.${n}@example.org`, 'guess')).toBe(401);
      // The second is made in the same moment: 2 s behind the first one’s.
      expect(paused.slice(1).map((ms) => Math.round(ms / 1000))).toEqual([1, 3]);
      expect(await from(attacker, '2001:db8:1:3::1', 'staff.1@example.org', 'guess')).toBe(401);
      expect(paused).toHaveLength(3);
      expect(await from(own, '2001:db8:1:2::1', 'odile@example.org', password)).toBe(200);
      // A token of somebody else, or made up, is no known device.
      for (const token of ['1.x.y', `1.${'a'.repeat(27)}.${'b'.repeat(43)}`, '99.a.b', '.', '1']) {
        const forger = new ApiClient(proxied.url, `clear_sitting_device=${token}`);
        paused.length = 0;
        expect(await from(forger, '192.0.2.9', 'odile@example.org', 'guess')).toBe(401);
        expect(paused).toEqual([30_000]);
      }
      // Many at once wait one behind the other, and those who would wait longest are refused.
      const many = Array.from({ length: 40 }, (_, n) =>
        from(attacker, '198.51.100.7', `s.${n}@example.org`, 'x'),
      );
      expect((await Promise.all(many)).filter((status) => status === 429).length).toBeGreaterThan(5);
    } finally {
      await proxied.close();
    }
  });

  it('ends after two hours without a request, and the session before ends with a new one', async () => {
    const own = await serve({ CLEAR_SITTING_IDLE_MINUTES: '120' });
    try {
      const { db } = own.wired.services;
      await addStaff(db, { email: 'odile@example.org', name: 'Odile', password, roles: ['coordinator'] });
      const client = new ApiClient(own.url);
      await signIn(client, 'odile@example.org');
      const sessions = () => db.$client.prepare('select count(*) as n from staff_sessions').get();
      await signIn(client, 'odile@example.org');
      expect(sessions()).toEqual({ n: 1 });
      for (const hours of [1.9, 1.9]) {
        own.clock.advance(hours * 3_600_000);
        expect((await client.get('/me')).status).toBe(200);
      }
      own.clock.advance(2.1 * 3_600_000);
      expect((await client.get('/me')).status).toBe(401);
    } finally {
      await own.close();
    }
  });

  it('lasts twelve hours, and ends at once when one signs out', async () => {
    const [stays, goes] = [new ApiClient(app.url), new ApiClient(app.url)];
    await signIn(stays, 'odile@example.org');
    await signIn(goes, 'odile@example.org');
    await goes.post('/sign-out');
    expect((await goes.get('/me')).status).toBe(401);
    app.clock.advance(11.9 * 3_600_000);
    expect((await stays.get('/me')).status).toBe(200);
    app.clock.advance(0.2 * 3_600_000);
    expect((await stays.get('/me')).status).toBe(401);
  });
});

describe('an account', () => {
  const accounts = async (who: ApiClient) => (await who.get<StaffAccount[]>('/staff-accounts')).body;
  const addMember = async (name: string, roles: StaffMember['roles']) => {
    const email = `${name.toLowerCase()}@example.org`;
    await addStaff(app.wired.services.db, { name, email, password, roles: [...roles] });
    const client = new ApiClient(app.url);
    expect((await signIn(client, email)).status).toBe(200);
    return { client, email };
  };
  const acts = () => app.wired.services.db.query.audit.findMany().sync();

  it('has its password changed by its owner, which signs out every other browser', async () => {
    const { client, email } = await addMember('Perpetua', ['assessor']);
    const other = new ApiClient(app.url);
    await signIn(other, email);
    const change = (current: string, wanted: string) =>
      client.post<Refusal>('/me/password', { current, wanted });
    const wanted = 'a-new-one-by-the-sea';
    expect((await change('wrong', wanted)).body.code).toBe('wrong-password');
    expect((await change(password, 'short')).status).toBe(400);
    expect((await other.get('/me')).status).toBe(200);
    expect((await change(password, wanted)).status).toBe(200);
    expect([(await client.get('/me')).status, (await other.get('/me')).status]).toEqual([200, 401]);
    expect((await signIn(other, email)).body.code).toBe('wrong-sign-in');
    expect((await signIn(other, email, wanted)).status).toBe(200);
    expect((await client.post('/me/end-other-sessions')).status).toBe(200);
    expect([(await client.get('/me')).status, (await other.get('/me')).status]).toEqual([200, 401]);
    expect(acts().slice(-2)).toMatchObject([{ act: 'changed-password' }, { act: 'ended-sessions' }]);
    for (let n = 0; n < 3; n++) await change('guess', wanted);
    expect((await change('guess', wanted)).body.code).toBe('too-many-tries');
  });

  it('is disabled by a coordinator, which ends its sessions and streams at once, and enabled again', async () => {
    const { client, email } = await addMember('Ruy', ['invigilator']);
    const coordinator = app.staff('coordinator');
    const round = app.addRound(samplePaper());
    const invigilator = app.wired.services.db
      .select()
      .from(staff)
      .all()
      .find((one) => one.email === email)!;
    app.assign(invigilator, round);
    const stream = await client.stream(`/watch/${round}/stream`);
    await stream.next();
    const own = (await accounts(coordinator)).find((one) => one.email === email)!;
    expect(own).toMatchObject({ sessions: 1, disabledAt: null });
    const set = (id: number, disabled: boolean) =>
      coordinator.post<Refusal>(`/staff-accounts/${id}/disabled`, { disabled });
    expect((await set(own.id, true)).status).toBe(200);
    await expect(stream.next()).rejects.toThrow('the stream has ended');
    expect((await client.get('/me')).status).toBe(401);
    expect((await signIn(client, email)).body.code).toBe('account-disabled');
    // Who does not know the password learns nothing of it.
    expect((await signIn(client, email, 'guess')).body.code).toBe('wrong-sign-in');
    expect((await coordinator.get<{ id: number }[]>('/staff')).body.map(({ id }) => id)).not.toContain(
      own.id,
    );
    expect((await set(own.id, false)).status).toBe(200);
    expect((await signIn(client, email)).status).toBe(200);
    expect((await coordinator.post(`/staff-accounts/${own.id}/end-sessions`)).status).toBe(200);
    expect((await client.get('/me')).status).toBe(401);
    const self = (await accounts(coordinator)).find(
      (one) => one.sessions === 1 && one.name === 'coordinator',
    )!;
    expect((await set(self.id, true)).body.code).toBe('own-account');
    expect((await set(4711, true)).status).toBe(404);
    expect(acts().map(({ act }) => act)).toEqual(
      expect.arrayContaining(['disabled-account', 'enabled-account']),
    );
  });
});
