import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StaffMember } from '../../core/rounds/api';
import { staff } from '../db/schema';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { serve, type Served } from '../testing/serve';
import { addStaff } from './accounts';

let house: Served;
const password = 'kelp-on-the-tide-line';
beforeAll(async () => {
  house = await serve();
  const member = { name: 'Odile Varr', password, roles: ['coordinator' as const] };
  await addStaff(house.wired.services.db, { ...member, email: 'odile@example.org' });
});
afterAll(() => house.close());

const signIn = (client: ApiClient, email: string, typed = password) =>
  client.post<StaffMember & Refusal>('/sign-in', { email, password: typed });

describe('signing in', () => {
  it('knows an address however it is typed, and says who came', async () => {
    const client = new ApiClient(house.url);
    expect((await client.get('/me')).status).toBe(401);
    const { body } = await signIn(client, ' Odile@Example.org ');
    expect(body).toEqual({ name: 'Odile Varr', roles: ['coordinator'] });
    expect((await client.get<StaffMember>('/me')).body).toEqual(body);
  });

  it('does not say whether the address or the password was wrong', async () => {
    const client = new ApiClient(house.url);
    const wrong = await signIn(client, 'odile@example.org', 'samphire');
    const nobody = await signIn(client, 'nobody@example.org');
    expect([wrong.status, wrong.body]).toEqual([nobody.status, nobody.body]);
    expect(wrong.body.code).toBe('wrong-sign-in');
    expect((await client.get('/me')).status).toBe(401);
  });

  it('counts guesses at one address as one, however it is typed', async () => {
    const client = new ApiClient(house.url);
    const typed = (n: number) => (n % 2 ? 'Tamsin@example.org' : ' tamsin@EXAMPLE.org');
    const codes: string[] = [];
    for (let n = 0; n < 21; n++) codes.push((await signIn(client, typed(n), 'guess')).body.code);
    expect(codes[19]).toBe('wrong-sign-in');
    expect(codes[20]).toBe('too-many-tries');
    expect((await signIn(client, 'odile@example.org')).status).toBe(200);
  });

  it('keeps neither the password nor the secret of the session', async () => {
    const client = new ApiClient(house.url);
    await signIn(client, 'odile@example.org');
    const { db } = house.wired.services;
    const hash = db.select().from(staff).get()!.passwordHash;
    expect(hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    const kept = db.$client.prepare('select token_hash as hash from staff_sessions').all() as {
      hash: string;
    }[];
    for (const row of kept) expect(row.hash).toMatch(/^[0-9a-f]{64}$/);
  });

  it('lasts twelve hours, and ends at once when one signs out', async () => {
    const [stays, goes] = [new ApiClient(house.url), new ApiClient(house.url)];
    await signIn(stays, 'odile@example.org');
    await signIn(goes, 'odile@example.org');
    await goes.post('/sign-out');
    expect((await goes.get('/me')).status).toBe(401);
    house.clock.advance(11.9 * 3_600_000);
    expect((await stays.get('/me')).status).toBe(200);
    house.clock.advance(0.2 * 3_600_000);
    expect((await stays.get('/me')).status).toBe(401);
  });
});
