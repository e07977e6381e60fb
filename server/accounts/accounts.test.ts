import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StaffMember } from '../../core/rounds/api';
import { staff } from '../db/schema';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { serve, type Served } from '../testing/serve';
import { addStaff } from './accounts';

let app: Served;
const password = 'kelp-on-the-tide-line';
beforeAll(async () => {
  app = await serve();
  const member = { name: 'Odile Varr', password, roles: ['coordinator' as const] };
  await addStaff(app.wired.services.db, { ...member, email: 'odile@example.org' });
});
afterAll(() => app.close());

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

  it('counts guesses at one address as one, however it is typed', async () => {
    const client = new ApiClient(app.url);
    const typed = (n: number) => (n % 2 ? 'Tamsin@example.org' : ' tamsin@EXAMPLE.org');
    const codes: string[] = [];
    for (let n = 0; n < 11; n++) codes.push((await signIn(client, typed(n), 'guess')).body.code);
    expect(codes[9]).toBe('wrong-sign-in');
    expect(codes[10]).toBe('too-many-tries');
    expect((await signIn(client, 'odile@example.org')).status).toBe(200);
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

  it('locks nobody out of their account from elsewhere, and lets nobody try many accounts', async () => {
    const proxied = await serve({ CLEAR_SITTING_PROXIES: '1' });
    try {
      const { db } = proxied.wired.services;
      await addStaff(db, { email: 'odile@example.org', name: 'Odile', password, roles: ['coordinator'] });
      const client = new ApiClient(proxied.url);
      const from = async (address: string, email: string, typed: string) =>
        (await client.post<Refusal>('/sign-in', { email, password: typed }, { 'X-Forwarded-For': address }))
          .status;
      for (let n = 0; n < 10; n++) expect(await from('192.0.2.1', 'odile@example.org', 'guess')).toBe(401);
      expect(await from('192.0.2.1', 'odile@example.org', password)).toBe(429);
      expect(await from('192.0.2.2', 'odile@example.org', password)).toBe(200);
      // Thirty failures in all from one address, however few at each account.
      for (let n = 0; n < 30; n++)
        expect(await from('192.0.2.3', `staff.${n}@example.org`, 'guess')).toBe(401);
      expect(await from('192.0.2.3', 'odile@example.org', password)).toBe(429);
      // What is no sign-in at all is refused before it is counted.
      for (let n = 0; n < 40; n++) expect(await from('192.0.2.4', 'x'.repeat(480_000), 'guess')).toBe(400);
      expect(await from('192.0.2.4', 'odile@example.org', password)).toBe(200);
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
