import { afterAll, beforeAll, expect, it } from 'vitest';
import type { ArrivalView } from '../../core/arrival/api';
import type { ExperienceReport } from '../../core/experience/api';
import type { Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
beforeAll(async () => (app = await serve()));
afterAll(() => app.close());

const said = (comment: string) => ({ answers: { time: 4, program: 5 }, comment });

it('is asked once after the hand-in, kept without a name, and told as counts and comments', async () => {
  const round = app.addRound(samplePaper(), { questionnaire: true });
  const coordinator = app.staff('coordinator');
  for (const comment of ['Zeal', 'All was well', '']) {
    const device = await app.sitting(app.invite(round));
    const early = await device.client.post<Refusal>('/arrival/questionnaire', said(comment));
    expect([early.status, early.body.code]).toEqual([409, 'no-questionnaire']);
    await device.finish();
    expect((await device.client.get<ArrivalView>('/arrival')).body.questionnaire).toBe(true);
    const taken = await device.client.post<ArrivalView>('/arrival/questionnaire', said(comment));
    expect(taken.body.questionnaire).toBe(false);
    const again = await device.client.post<Refusal>('/arrival/questionnaire', said(comment));
    expect([again.status, again.body.code]).toEqual([409, 'questionnaire-given']);
  }
  const { body } = await coordinator.get<ExperienceReport>(`/rounds/${round}/experience`);
  expect(body).toEqual({
    answered: 3,
    counts: {
      instructions: [0, 0, 0, 0, 0],
      time: [0, 0, 0, 3, 0],
      program: [0, 0, 0, 0, 3],
      questions: [0, 0, 0, 0, 0],
    },
    // In the order of their words, not in that of the candidates.
    comments: ['All was well', 'Zeal'],
  });
  const columns = app.wired.services.db.$client.pragma('table_info(experience)') as { name: string }[];
  expect(columns.map(({ name }) => name)).toEqual(['id', 'round_id', 'answers', 'comment']);
});

it('is not asked where the round does not, and takes only what it asks', async () => {
  const device = await app.sitting(app.invite(app.addRound({ ...samplePaper(), version: 2 })));
  await device.finish();
  expect((await device.client.post('/arrival/questionnaire', said('x'))).status).toBe(409);
  for (const answers of [{ time: 6 }, { time: '4' }, { name: 3 }])
    expect((await device.client.post('/arrival/questionnaire', { answers, comment: '' })).status).toBe(400);
});
