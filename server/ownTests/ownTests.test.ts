import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { ArrivalView } from '../../core/arrival/api';
import { writeLetter } from '../../core/letters/letters';
import { say } from '../../core/messages/words';
import type { OwnTest, OwnTests } from '../../core/ownTests/api';
import { inOrderOfNeed } from '../../core/ownTests/order';
import { noArrangements, type RoundSettings } from '../../core/rounds/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import { letters, links, rounds } from '../db/schema';
import { makeLink } from '../mail/links';
import { makeResultCode } from '../mail/resultCodes';
import { invite } from '../rounds/operations';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { bestOf, samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

const DAY_MS = 24 * 60 * MINUTE_MS;
let app: Served;
beforeAll(async () => {
  app = await serve();
  vi.useFakeTimers({ toFake: ['Date'] });
});
afterAll(async () => {
  vi.useRealTimers();
  await app.close();
});

let version = 1;
const newRound = (settings: Partial<RoundSettings> = {}, opensInDays = 0) => {
  const round = app.addRound({ ...samplePaper(), version: version++ }, settings);
  if (opensInDays > 0) {
    const opensAt = app.clock.now() + opensInDays * DAY_MS;
    const window = { opensAt, closesAt: opensAt + DAY_MS };
    app.wired.services.db.update(rounds).set(window).where(eq(rounds.id, round)).run();
  }
  return round;
};
let people = 0;
const newAddress = () => `perpetua.${++people}@example.org`;
const inviteAs = (email: string, round: number) =>
  invite(app.wired.services, app.wired.outbox, round, {
    name: 'Perpetua Zanardi',
    email,
    extraPercent: 25,
    reference: null,
    timeZone: null,
    arrangements: noArrangements,
  }).invitation;
const linkTo = (invitation: number) => makeLink(app.wired.services.db, invitation, app.clock.now());
const testsOf = async (link: string) => {
  const client = new ApiClient(app.url);
  await client.post('/arrival/open', { link });
  return { client, tests: (await client.get<OwnTests>('/tests')).body };
};
const linkLetters = (to: string) =>
  app.wired.services.db
    .select()
    .from(letters)
    .where(eq(letters.to, to))
    .all()
    .filter(({ facts }) => facts.kind === 'link');

describe('a person’s own page', () => {
  it('shows every test of the person, the marks of its own alone, and nothing of anybody else', async () => {
    const email = newAddress();
    const settings = { attemptsAllowed: 2, counts: 'best', release: 'at once' } as const;
    const [taken, also, later] = [newRound(settings), newRound(settings), newRound({}, 9)];
    const [first, second, third] = [taken, also, later].map((round) => inviteAs(email, round));
    inviteAs(newAddress(), taken);
    for (const invitation of [first!, second!]) {
      const device = await app.sitting(linkTo(invitation));
      device.write('the-number/A', bestOf('number'));
      await device.finish();
      await app.wired.services.jobs.turn();
    }
    const { tests } = await testsOf(linkTo(first!));
    expect(tests).toMatchObject({ name: 'Perpetua Zanardi' });
    const told = tests.tests.map(({ invitation, state, here, marks }) => [
      invitation,
      state,
      here,
      marks !== null,
    ]);
    expect(told).toHaveLength(3);
    expect(told).toContainEqual([first, 'open', true, true]);
    expect(told).toContainEqual([second, 'open', false, false]);
    expect(told.at(-1)).toEqual([third, 'later', false, false]);
    expect(tests.tests[0]).toMatchObject({ attemptsUsed: 1, attemptsAllowed: 2, lengthMs: 37.5 * MINUTE_MS });
  });

  it('is said to be there: how many other tests there are', async () => {
    const email = newAddress();
    const alone = inviteAs(email, newRound());
    const client = new ApiClient(app.url);
    const open = async () =>
      (await client.post<ArrivalView>('/arrival/open', { link: linkTo(alone) })).body.otherTests;
    expect(await open()).toBe(0);
    inviteAs(email, newRound());
    expect(await open()).toBe(1);
  });

  it('what can be done now comes first, then what comes next, then what is past', () => {
    const test = (state: OwnTest['state'], opensAt: number) => ({ state, opensAt }) as OwnTest;
    const tests = [
      test('over', 9),
      test('later', 30),
      test('result', 12),
      test('later', 20),
      test('open', 5),
    ];
    expect(inOrderOfNeed(tests).map(({ state, opensAt }) => `${state} ${opensAt}`)).toEqual([
      'open 5',
      'later 20',
      'later 30',
      'result 12',
      'over 9',
    ]);
  });
});

describe('the result of another test', () => {
  it('opens by a code that is mailed: once, within 15 minutes, with five tries', async () => {
    const email = newAddress();
    const settings = { release: 'at once' } as const;
    const [own, other] = [inviteAs(email, newRound(settings)), inviteAs(email, newRound(settings))];
    const foreign = inviteAs(newAddress(), newRound());
    const { client } = await testsOf(linkTo(own));
    const ask = (invitation: number) =>
      client.post<{ sent: boolean } & Refusal>('/tests/code', { invitation });
    const tell = async (code: string, invitation = other) =>
      (await client.post<{ link?: string } & Refusal>('/tests/code/check', { invitation, code })).body;
    expect((await ask(foreign)).status).toBe(404);
    // What was not handed in is started by its own link alone.
    expect((await ask(other)).body.code).toBe('no-result');
    const device = await app.sitting(linkTo(other));
    await device.finish();
    await app.wired.services.jobs.turn();

    expect((await ask(other)).body).toEqual({ sent: true });
    const { db, clock } = app.wired.services;
    const code = () => makeResultCode(db, other, clock.now());
    const first = code();
    const wrong = first === '000 000' ? '000 001' : '000 000';
    expect((await tell('12345')).code).toBe('unreadable');
    expect((await tell(first, own)).code).toBe('code-ended');
    expect((await tell(wrong)).code).toBe('wrong-code');
    const { link } = await tell(first.replace(' ', '-'));
    const opened = new ApiClient(app.url);
    const view = (await opened.post<ArrivalView>('/arrival/open', { link })).body;
    expect(view.stage.at).toBe('result');
    expect((await tell(first)).code).toBe('code-ended');

    const second = code();
    for (const said of ['wrong-code', 'wrong-code', 'wrong-code', 'wrong-code', 'code-ended'])
      expect((await tell(second === wrong ? '000 001' : wrong)).code).toBe(said);
    expect((await tell(second)).code).toBe('code-ended');
    const third = code();
    app.clock.advance(15 * MINUTE_MS);
    expect((await tell(third)).code).toBe('code-ended');

    for (const sent of [true, true, true, true, false]) expect((await ask(other)).body).toEqual({ sent });
    const letter = app.wired.services.db.select().from(letters).where(eq(letters.to, email)).all().at(-1)!;
    expect(letter.facts.kind).toBe('code');
    expect(writeLetter(letter.facts, '482 913', say)).toContain('482 913');
    expect(writeLetter(letter.facts, null, say)).toContain('in the e-mail that was sent');
  });
});

describe('a link that is asked for', () => {
  it('is sent to the person’s own address, three times a day, and only for their own tests', async () => {
    const email = newAddress();
    const [own, other] = [inviteAs(email, newRound()), inviteAs(email, newRound())];
    const foreign = inviteAs(newAddress(), newRound());
    const { client } = await testsOf(linkTo(own));
    const ask = (invitation: number) => client.post<{ sent: boolean }>('/tests/link', { invitation });
    for (const sent of [true, true, true, false]) expect((await ask(other)).body).toEqual({ sent });
    expect((await ask(foreign)).status).toBe(404);
    const [letter] = linkLetters(email);
    expect([letter!.invitationId, linkLetters(email).length]).toEqual([other, 3]);
    expect(writeLetter(letter!.facts, 'https://x/i/abc', say)).toContain('https://x/i/abc');
    app.clock.advance(DAY_MS);
    expect((await ask(other)).body).toEqual({ sent: true });
  });

  it('is never said to be sent or not: known and unknown addresses get the same answer', async () => {
    const email = newAddress();
    inviteAs(email, newRound({}, 5));
    const soon = inviteAs(email, newRound());
    const client = new ApiClient(app.url);
    const ask = (address: string) => client.post<Refusal>('/lost-link', { email: address });
    const answers = [
      await ask(email.toUpperCase()),
      await ask('nobody@example.org'),
      await ask(`' or 1=1 --`),
    ];
    for (const { status, body } of answers) expect([status, body]).toEqual([200, { asked: true }]);
    await expect.poll(() => linkLetters(email).map((one) => one.invitationId)).toEqual([soon]);
    for (let n = 0; n < 7; n += 1) expect((await ask(email)).status).toBe(200);
    await expect.poll(() => linkLetters(email).length).toBe(3);
    expect((await ask(email)).status).toBe(429);
  });

  it('ends no other: those in invitations stay, however many are asked for', async () => {
    const invitation = inviteAs(newAddress(), newRound());
    const { db } = app.wired.services;
    const mailed = linkTo(invitation);
    for (let n = 0; n < 30; n += 1) makeLink(db, invitation, app.clock.now(), { asked: true });
    expect(db.select().from(links).where(eq(links.invitationId, invitation)).all()).toHaveLength(21);
    expect((await new ApiClient(app.url).post('/arrival/open', { link: mailed })).status).toBe(200);
  });
});
