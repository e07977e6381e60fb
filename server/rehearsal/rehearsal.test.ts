import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { RehearsalScore, RehearsalTicket, RehearsalView } from '../../core/rehearsal/api';
import { rounds } from '../db/schema';
import { publishPaper } from '../papers/papers';
import { ApiClient, type Refusal } from '../testing/ApiClient';
import { bestOf, samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { REHEARSAL } from '../papers/rehearsals';

let app: Served;
beforeAll(async () => {
  app = await serve();
});
afterAll(() => app.close());

let version = 1;
const keyOf = (round: number) =>
  app.wired.services.db
    .select()
    .from(rounds)
    .all()
    .find((r) => r.id === round)!.key;
const newRound = (openRehearsal: boolean) =>
  app.addRound({ ...samplePaper(), version: version++ }, { openRehearsal });

describe('the rehearsal', () => {
  it('is not there before its paper is published', async () => {
    const answered = await new ApiClient(app.url).get<Refusal>(`/rehearsal/${keyOf(newRound(true))}`);
    expect([answered.status, answered.body.code]).toEqual([404, 'not-found']);
    const paper = { ...samplePaper(), key: REHEARSAL, title: 'Getting to know the desk' };
    publishPaper(app.wired.services.db, paper);
  });

  it('opens from the round’s own page without a link, where the round allows it', async () => {
    const anybody = new ApiClient(app.url);
    const { body } = await anybody.get<RehearsalView>(`/rehearsal/${keyOf(newRound(true))}`);
    expect(body.paper.title).toBe('Getting to know the desk');
    const shut = await anybody.get<Refusal>(`/rehearsal/${keyOf(newRound(false))}`);
    expect([shut.status, shut.body.code]).toEqual([409, 'link-only']);
    for (const mistyped of ['no-such-round', 'November_Round', 'n'])
      expect((await anybody.get<Refusal>(`/rehearsal/${mistyped}`)).body.code).toBe('not-found');
    expect((await anybody.get('/rehearsal')).status).toBe(401);
  });

  it('opens from the link as often as wanted, gives nothing of the real paper, and keeps nothing', async () => {
    const round = newRound(false);
    const client = new ApiClient(app.url);
    await client.post('/arrival/open', { link: app.invite(round) });
    const { $client } = app.wired.services.db;
    const rowsOf = () =>
      ['sittings', 'journal', 'arrivals', 'time_events', 'marks'].map(
        (table) => $client.prepare(`select count(*) as n from ${table}`).get() as { n: number },
      );
    const before = rowsOf();
    for (let n = 0; n < 3; n++) {
      const { body } = await client.get<RehearsalView>('/rehearsal');
      expect(body.paper.title).toBe('Getting to know the desk');
      const { body: begun } = await client.post<RehearsalTicket>('/rehearsal/score', {
        answers: { 'the-number/A': bestOf('number'), 'the-code/A': bestOf('code') },
      });
      const sheet = await vi.waitFor(async () => {
        const { body: state } = await client.get<RehearsalScore>(`/rehearsal/score/${begun.ticket}`);
        if (!('sheet' in state)) throw new Error('not scored yet');
        return state.sheet;
      }, 30_000);
      const verdicts = sheet.questions.flatMap((q) => q.parts.map((p) => p.verdict));
      expect(verdicts.filter((v) => v === 'right')).toHaveLength(2);
    }
    expect(rowsOf()).toEqual(before);
  });
});

describe('practice with the real questions', () => {
  it('is released by a coordinator when the results are out and nobody is asked the same any more', async () => {
    const { db } = app.wired.services;
    const own = { ...samplePaper(), key: 'practised', version: 1 };
    const round = app.addRound(own);
    const client = new ApiClient(app.url);
    await client.post('/arrival/open', { link: app.invite(round) });
    const coordinator = app.staff('coordinator');
    const release = (released = true) => coordinator.post<Refusal>(`/rounds/${round}/practice`, { released });
    const looks = async () => {
      const { status, body } = await client.get<Refusal & RehearsalView>('/practice');
      return status === 200 ? body.paper.title : body.code;
    };
    expect([(await release()).body.code, await looks()]).toEqual(['not-over', 'no-practice']);
    const over = { closesAt: app.clock.now() - 1, releasedAt: app.clock.now() };
    db.update(rounds).set(over).where(eq(rounds.id, round)).run();
    // Every other round of this file asks the same items.
    expect((await release()).body.code).toBe('asked-elsewhere');
    db.update(rounds)
      .set({ closesAt: app.clock.now() - 1 })
      .run();
    expect((await release()).status).toBe(200);
    expect(await looks()).toBe(own.title);
    const answers = { 'the-number/A': bestOf('number') };
    const { body: begun } = await client.post<RehearsalTicket>('/practice/score', { answers });
    const sheet = await vi.waitFor(async () => {
      const { body: state } = await client.get<RehearsalScore>(`/rehearsal/score/${begun.ticket}`);
      if (!('sheet' in state)) throw new Error('not scored yet');
      return state.sheet;
    }, 30_000);
    expect(sheet.questions.flatMap((q) => q.parts).filter((p) => p.verdict === 'right')).toHaveLength(1);
    expect((await release(false)).status).toBe(200);
    expect(await looks()).toBe('no-practice');
    expect((await client.post<Refusal>('/practice/score', { answers })).status).toBe(409);
  });
});
