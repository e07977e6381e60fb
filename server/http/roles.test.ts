import { afterAll, beforeAll, expect, it } from 'vitest';
import { eq } from 'drizzle-orm';
import { componentsOf } from '../../core/scoring/components';
import { roles, type Role } from '../../core/rounds/api';
import { allEndpoints } from '../app';
import { sha256 } from '../secrets';
import { media, decisions, letters, markingTasks, rounds, roundStaff, staff, sittings } from '../db/schema';
import { ApiClient, type Answered, type Refusal } from '../testing/ApiClient';
import { bestOf, samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import type { Endpoint } from './endpoint';

/*
 * Every route of the table, for every sort of person, about objects of a round that is not theirs. A new route with
 * something in its address, or open to anyone, has to be entered below: else this test fails.
 */

/** Stands in everything that belongs to the round that none of the callers has a role in. */
const FOREIGN = 'Zanzerwick';

const SMALL_FILE = sha256('a picture');
let app: Served;
let endpoints: readonly Endpoint[];
let about: Record<string, string | number>;
let people: Record<'stranger' | 'candidate' | Role, ApiClient>;
let own: number;

beforeAll(async () => {
  app = await serve();
  const { services, outbox, sittings: operations } = app.wired;
  endpoints = allEndpoints(services, outbox, operations);
  const { db } = services;
  services.files.store.keep(Buffer.from('a picture'));
  db.insert(media).values({ hash: SMALL_FILE, type: 'image/png', bytes: 9 }).run();
  const foreign = app.addRound({ ...samplePaper(), version: 1 });
  db.update(rounds).set({ title: FOREIGN }).where(eq(rounds.id, foreign)).run();
  app.nameNext(`Ada ${FOREIGN}`);
  const device = await app.sitting(app.invite(foreign));
  device.write('the-writing/A', bestOf('writing'));
  await device.finish();
  await services.jobs.turn();
  const sitting = db.select().from(sittings).get()!;
  const decision = { kind: 'late-entries' as const, target: '', facts: { upTo: 1 } };
  db.insert(decisions)
    .values({ sittingId: sitting.id, openedAt: app.clock.now(), ...decision })
    .run();
  about = {
    id: foreign,
    round: foreign,
    invitation: sitting.invitationId,
    item: 'the-writing',
    part: 'A',
    how: 'check',
    of: 'picture',
    hash: device.opened.sealed[0]!.hash,
    name: 'test-window.ics',
    file: SMALL_FILE,
    key: 'no-such-round',
    ticket: 'n'.repeat(24),
    from: 0,
    sitting: device.opened.sitting,
    script: sitting.script,
    first: sitting.script,
    second: sitting.script,
    gap: 1,
    pack: 1,
    phrase: 1,
    attempt: 0,
    at: 0,
  };
  db.insert(staff)
    .values({ email: 'else@example.org', name: 'Somebody else', roles: ['lead'], passwordHash: '-' })
    .run();
  own = app.addRound({ ...samplePaper(), version: 2, key: 'another-paper' });
  const link = app.invite(own);
  people = { stranger: new ApiClient(app.url), candidate: await app.atCover(link) } as typeof people;
  for (const role of roles) {
    people[role] = app.staff(role);
    db.delete(roundStaff).where(eq(roundStaff.roundId, foreign)).run();
  }
});
afterAll(() => app.close());

const aTask = () =>
  app.wired.services.db.select().from(markingTasks).where(eq(markingTasks.target, 'the-writing/A')).get()!.id;
const somebody = () =>
  app.wired.services.db.select().from(staff).where(eq(staff.name, 'Somebody else')).get()!.id;
/** Addresses in which `:id` names something else than a round. */
const OTHER_IDS: Record<string, () => string | number> = {
  '/letters/:id': () => app.wired.services.db.select().from(letters).get()!.id,
  '/letters/:id/new-link': () => app.wired.services.db.select().from(letters).get()!.id,
  '/letters/:id/attachments/:name': () => app.wired.services.db.select().from(letters).get()!.id,
  '/marking/tasks/:id': () => aTask(),
  '/marking/tasks/:id/pages/:hash': () => aTask(),
  '/marking/tasks/:id/draft': () => aTask(),
  '/marking/tasks/:id/take-back': () => aTask(),
  '/marking/tasks/:id/set-aside': () => aTask(),
  '/marking/clarifications/:id/read': () => 1,
  '/review-questions/:id': () => 1,
  '/staff-accounts/:id/disabled': () => somebody(),
  '/staff-accounts/:id/end-sessions': () => somebody(),
};
/** What belongs to everybody, for everybody with the role: papers are the bank's, jobs the machine's, accounts the organisation's. */
const OF_THE_HOUSE = [
  '/papers/:id',
  '/papers/:id/adaptive',
  '/media/:file',
  '/papers/import/:how',
  '/jobs/:id/run-again',
  '/jobs/failed',
  '/staff-accounts/:id/disabled',
  '/staff-accounts/:id/end-sessions',
];
/** Routes without a session; each answers for itself. */
const OPEN = [
  '/health',
  '/config',
  '/echo',
  '/me',
  '/sign-in',
  '/first-account',
  '/sign-out',
  '/arrival/open',
  '/lost-link',
  '/phone/join',
  '/demo',
  '/demo/candidate',
  '/demo/staff',
  '/arrival/upload-check',
  '/rehearsal/:key',
  '/rehearsal/:key/score',
  '/rehearsal/score/:ticket',
  '/rehearsal-media/:file',
  '/phone',
  '/phone/pages',
  '/phone/pages/:hash/:of/:from',
  '/test/clock',
  '/test/jobs',
];
const WRITING = componentsOf(samplePaper())
  .get('the-writing/A')!
  .filter((one) => one.by === 'people');
/** Bodies that would be taken, were the caller somebody else. */
const BODIES: Record<string, object> = {
  '/marking/tasks/:id': {
    given: Object.fromEntries(WRITING.map((one) => [one.key, 0])),
    comment: 'x',
    notes: [],
  },
  '/marking/tasks/:id/draft': { given: {}, comment: 'x', notes: [] },
  '/marking/tasks/:id/set-aside': { reason: 'illegible', note: '' },
  '/review-questions/:id': { answer: 'x' },
};

const addressOf = ({ path }: Endpoint) =>
  path.replace(/:(\w+)/g, (_, place: string) => {
    const value = place === 'id' && OTHER_IDS[path] ? OTHER_IDS[path]() : about[place];
    if (value === undefined) throw new Error(`${path}: enter in this test what “:${place}” is to stand for`);
    return encodeURIComponent(value);
  });

async function call(client: ApiClient, endpoint: Endpoint): Promise<Answered<Refusal> & { text: string }> {
  const { method, path } = endpoint;
  const address = addressOf(endpoint);
  if (path.endsWith('/stream')) {
    const { status } = await client.raw(address);
    return { status, body: {} as Refusal, text: '' };
  }
  const answered =
    method === 'get'
      ? await client.get<Refusal>(address)
      : await client.send<Refusal>(address, {
          method: method.toUpperCase(),
          body: JSON.stringify(BODIES[path] ?? {}),
          headers: { 'Content-Type': 'application/json' },
        });
  return { ...answered, text: JSON.stringify(answered.body) };
}

it('every route has its rule: who may not call it is refused, and what is not theirs is not given', async () => {
  const wrong: string[] = [];
  let calls = 0;
  for (const endpoint of endpoints) {
    const { method, path, who } = endpoint;
    if (who === 'anyone') {
      if (!OPEN.includes(path)) wrong.push(`${path} is open to anyone`);
      continue;
    }
    for (const [name, client] of Object.entries(people)) {
      const { status, text } = await call(client, endpoint);
      calls += 1;
      const told = `${method} ${path} as ${name}: ${status}`;
      const staff = roles.includes(name as Role);
      const ofKind = who === 'candidate' ? name === 'candidate' : staff;
      if (text.includes(FOREIGN)) wrong.push(`${told}, and tells of the other round`);
      if (status >= 500) wrong.push(told);
      else if (!ofKind && status !== 401) wrong.push(`${told}, not 401`);
      else if (ofKind && who !== 'candidate' && !who.includes(name as Role) && status !== 403)
        wrong.push(`${told}, not 403`);
      else if (ofKind && path.includes('/:') && !OF_THE_HOUSE.includes(path) && status < 400)
        wrong.push(`${told}, though it is not theirs`);
    }
  }
  expect(wrong).toEqual([]);
  expect(calls).toBeGreaterThan(250);
});

it('nothing of another round is reached through an address of one’s own', async () => {
  const { coordinator, invigilator } = people;
  const invitation = about.invitation!;
  const decision = app.wired.services.db.select().from(decisions).get()!.id;
  const reason = 'because';
  const tries: [ApiClient, string, object][] = [
    [coordinator, `/rounds/${own}/decisions`, { id: decision, choice: 'take', reason }],
    [coordinator, `/rounds/${own}/correction-settled`, { invitation, settled: true }],
    [coordinator, `/rounds/${own}/new-link`, { invitation }],
    [invigilator, `/rounds/${own}/correction-settled`, { invitation, settled: true }],
    ...(['admit', 'pause', 'note', 'message'] as const).map((act): [ApiClient, string, object] => [
      ...([invigilator, `/watch/${own}/acts`] as const),
      { act, invitation, reason, text: reason },
    ]),
  ];
  for (const [client, address, body] of tries) {
    const { status } = await client.post(address, body);
    expect([address, status >= 400 && status < 500]).toEqual([address, true]);
  }
  expect((await invigilator.get(`/watch/${own}/pictures/${invitation}/picture`)).status).toBe(404);
});
