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
    expect((await anybody.get('/rehearsal/no-such-round')).status).toBe(404);
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
