import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { ArrivalView } from '../../core/arrival/api';
import type { ResultSheet } from '../../core/results/resultSheet';
import type { RoundSettings } from '../../core/rounds/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import { ApiClient } from '../testing/ApiClient';
import { bestOf, samplePaper, sampleOf } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import '../../core/arrival/attemptWords';

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
const newRound = (settings: Partial<RoundSettings>) =>
  app.addRound(
    { ...samplePaper(), version: version++ },
    { attemptsAllowed: 3, counts: 'best', release: 'at once', questionnaire: true, ...settings },
  );

/** Takes the next attempt of a link; with the best number, or empty. */
async function attempt(link: string, good: boolean): Promise<ApiClient> {
  const device = await app.sitting(link);
  if (good) device.write('the-number/A', bestOf('number'));
  await device.finish();
  await app.wired.services.jobs.turn();
  return device.client;
}

const viewOf = async (client: ApiClient) => (await client.get<ArrivalView>('/arrival')).body;
const begin = async (client: ApiClient, number: number) => {
  const { status, body } = await client.post<ArrivalView & { code?: string }>('/arrival/attempt', {
    attempt: number,
  });
  return status === 200 ? body.stage : [status, body.code];
};
const sheetOf = async (client: ApiClient, path = '/result') => (await client.get<ResultSheet>(path)).body;
const NUMBER = sampleOf('number').marks;

describe('after each of three attempts', () => {
  it('there is a receipt and a result, and the next one is a step of its own', async () => {
    const link = app.invite(newRound({}));
    const client = await attempt(link, true);
    const first = await viewOf(client);
    expect(first.stage).toMatchObject({ at: 'between', next: 2 });
    expect(first.receipt).toMatchObject({ answered: 1 });
    expect(first.questionnaire).toBe(true);
    expect(first.attempts).toMatchObject([
      { attempt: 1, counts: true, marks: { hundredths: NUMBER, complete: true } },
    ]);
    expect(first.attempts[0]!.receipt.code).toBe(first.receipt!.code);
    // Nothing of the next attempt happens unasked.
    expect((await client.post('/arrival/details', { correction: null })).status).toBe(409);
    expect((await client.post('/sitting/prepare', {})).status).toBe(409);
    expect(await begin(client, 1)).toEqual([409, 'no-next-attempt']);
    expect(await begin(client, 3)).toEqual([409, 'no-next-attempt']);
    expect(await begin(client, 2)).toEqual({ at: 'arriving', step: 'details' });
    expect(await begin(client, 2)).toEqual({ at: 'arriving', step: 'details' });

    const second = await viewOf(await attempt(link, false));
    expect(second.stage).toMatchObject({ at: 'between', next: 3 });
    expect(second.attempts.map(({ marks, counts }) => [marks?.hundredths, counts])).toEqual([
      [NUMBER, true],
      [0, false],
    ]);

    const last = await viewOf(await attempt(link, false));
    expect(last.stage).toEqual({ at: 'result' });
    expect([last.attempts.length, last.receipt?.answered, last.questionnaire]).toEqual([3, 0, true]);
    expect(await begin(client, 4)).toEqual([409, 'no-next-attempt']);
  });

  it('the sheet holds totals alone while attempts remain, and each attempt has its own', async () => {
    const link = app.invite(newRound({ attemptsAllowed: 2 }));
    const client = await attempt(link, true);
    const early = await sheetOf(client);
    expect(early).toMatchObject({ detail: 'sections', hundredths: NUMBER, questions: [] });
    expect(early.sections.length).toBeGreaterThan(0);
    const verdicts = /"verdict"|"response"|"right"/;
    expect(JSON.stringify(early)).not.toMatch(verdicts);
    expect(JSON.stringify(await sheetOf(client, '/result/attempts/1'))).not.toMatch(verdicts);
    expect((await client.get('/result/attempts/2')).status).toBe(409);
    await attempt(link, false);
    const late = await sheetOf(client);
    expect(late).toMatchObject({ detail: 'whole', hundredths: NUMBER });
    expect(late.questions.length).toBeGreaterThan(0);
    expect(late.attempts.map((one) => one.counts)).toEqual([true, false]);
    const own = await sheetOf(client, '/result/attempts/2');
    expect([own.hundredths, own.attempts.map((one) => one.counts)]).toEqual([0, [true, false]]);
  });

  it('a round for practice shows everything at once', async () => {
    const client = await attempt(app.invite(newRound({ forPractice: true })), true);
    const sheet = await sheetOf(client);
    expect([sheet.detail, sheet.questions.length > 0]).toEqual(['whole', true]);
  });

  it('without results at once nothing of the marks is shown, while the next attempt can be taken', async () => {
    const client = await attempt(app.invite(newRound({ release: 'after sign-off' })), true);
    const { stage, attempts, marking } = await viewOf(client);
    expect([stage.at, attempts[0]!.marks, marking?.scoring]).toEqual(['between', null, false]);
    expect((await client.get('/result')).status).toBe(409);
  });

  it('a pause is kept, by the server’s clock', async () => {
    const client = await attempt(app.invite(newRound({ pauseMinutes: 10 })), true);
    const { stage, now } = await viewOf(client);
    expect(stage).toMatchObject({ at: 'between', from: now + 10 * MINUTE_MS });
    expect(await begin(client, 2)).toEqual([409, 'attempt-pause']);
    app.clock.advance(10 * MINUTE_MS);
    expect(await begin(client, 2)).toEqual({ at: 'arriving', step: 'details' });
  });
});
