import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import ExcelJS from 'exceljs';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { ArrivalView } from '../../core/arrival/api';
import type { Page } from '../../core/lists/list';
import type {
  ChecksView,
  CheckRow,
  PackState,
  ResultRow,
  ScoreDistribution,
  StaffSheet,
} from '../../core/results/api';
import type { ResultSheet } from '../../core/results/resultSheet';
import type { SittingReview } from '../../core/observations/review';
import type { LetterRow, RoundSettings } from '../../core/rounds/api';
import { bestOf, samplePaper, sampleOf } from '../testing/samplePaper';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { serve, type Served } from '../testing/serve';
import { packFile } from './packs';

let app: Served;
let [coordinator, other, lead, assessor]: ApiClient[] = [];
beforeAll(async () => {
  app = await serve();
});
beforeEach(() => {
  // Tests move the clock by hours: everybody signs in again.
  [coordinator, other] = [app.staff('coordinator'), app.staff('coordinator')];
  [lead, assessor] = [app.staff('lead'), app.staff('assessor')];
});
afterAll(() => app.close());

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
let version = 1;
const newRound = (settings: Partial<RoundSettings> = {}) =>
  app.addRound({ ...samplePaper(), version: version++, showRightAnswers: true }, settings);

/** Answers one number, right or wrong, and hands in: nothing is left for people. */
async function sit(round: number, right = true): Promise<ApiClient> {
  const device = await app.sitting(app.invite(round));
  const wrong = { version: 1, response: { typed: '1' } };
  device.write('the-number/A', right ? bestOf('number') : wrong);
  await device.finish();
  await app.wired.services.jobs.turn();
  return device.client;
}
async function releaseNow(round: number): Promise<void> {
  expect((await lead!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(200);
  expect((await coordinator!.post(`/rounds/${round}/release`)).status).toBe(200);
}
const rowsOf = async (round: number, query = '') =>
  (await coordinator!.get<Page<ResultRow>>(`/rounds/${round}/results${query}`)).body.rows;
const { marks: WORTH } = sampleOf('number');
const letters = async (topic: string) =>
  (await coordinator!.get<Page<LetterRow>>('/letters?size=200')).body.rows.filter(
    (row) => row.subject.code === `letter.subject-${topic}`,
  ).length;

describe('the release', () => {
  it('on a date is done by itself, once the marks are signed off, with a letter to each', async () => {
    const releaseAt = app.clock.now() + HOUR_MS;
    const round = newRound({ release: 'on a date', releaseAt });
    const client = await sit(round);
    const before = await letters('result');
    app.clock.advance(HOUR_MS + 1000);
    await app.wired.services.jobs.turn();
    // The date alone releases nothing.
    expect((await client.get('/result')).status).toBe(409);
    expect((await lead!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(200);
    await app.wired.services.jobs.turn();
    expect((await client.get<ResultSheet>('/result')).body).toMatchObject({
      state: 'confirmed',
      hundredths: WORTH,
    });
    expect(await letters('result')).toBe(before + 1);
    await app.wired.services.jobs.turn();
    expect(await letters('result')).toBe(before + 1);
  });

  it('at once shows what is scored so far, without right answers, and tells what is open', async () => {
    const round = newRound({ release: 'at once' });
    const device = await app.sitting(app.invite(round));
    device.write('the-number/A', { version: 1, response: { typed: '1' } });
    device.write('the-writing/A', bestOf('writing'));
    await device.finish();
    app.clock.advance(15 * 60_000);
    await app.wired.services.jobs.turn();
    expect((await device.client.get<ArrivalView>('/arrival')).body.stage).toEqual({ at: 'result' });
    const { body: sheet } = await device.client.get<ResultSheet>('/result');
    expect(sheet).toMatchObject({ state: 'provisional', band: null, open: sampleOf('writing').marks });
    expect(sheet.questions.flatMap((q) => q.parts).every((part) => part.right === null)).toBe(true);
  });

  it.each([
    ['marks', false, false],
    ['feedback', true, false],
    ['key', true, true],
  ] as const)('shows %s', async (shown, reasons, right) => {
    const round = newRound({ sheet: shown });
    const client = await sit(round, false);
    // Right answers are kept back while the window is open.
    app.clock.advance(10 * HOUR_MS + 1000);
    await releaseNow(round);
    const { body: sheet } = await client.get<ResultSheet>('/result');
    const part = sheet.questions.flatMap((q) => q.parts).find((one) => one.kind === 'number')!;
    expect(part.components.some((c) => c.reasons.length > 0)).toBe(reasons);
    expect(part.right !== null).toBe(right);
  });
});

describe('a check', () => {
  it('is asked for after the release until its deadline, one at a time, and answered on record', async () => {
    const round = newRound({ checkDays: 2 });
    const client = await sit(round);
    const ask = (reason = 'Question 3 was right.') =>
      client.post<ChecksView & Refusal>('/result/checks', { reason });
    expect((await ask()).body.code).toBe('no-check-now');
    await releaseNow(round);
    expect((await ask(' ')).status).toBe(400);
    expect((await ask()).body.checks).toMatchObject([{ reason: 'Question 3 was right.', answer: null }]);
    expect((await ask()).body.code).toBe('no-check-now');
    expect(await rowsOf(round, '?filter=check%20asked')).toHaveLength(1);
    const { body: open } = await lead!.get<CheckRow[]>(`/rounds/${round}/checks`);
    const answer = { id: open[0]!.id, answer: 'Read again; the mark stands.', changed: false };
    const before = await letters('checkAnswered');
    expect((await assessor!.post(`/rounds/${round}/checks`, answer)).status).toBe(403);
    expect((await lead!.post(`/rounds/${round}/checks`, answer)).status).toBe(200);
    expect((await lead!.post<Refusal>(`/rounds/${round}/checks`, answer)).body.code).toBe('answered-already');
    expect(await letters('checkAnswered')).toBe(before + 1);
    const { body: view } = await client.get<ChecksView>('/result/checks');
    expect(view.checks).toMatchObject([{ answer: answer.answer, changed: false }]);
    app.clock.advance(2 * DAY_MS);
    expect((await ask()).body.code).toBe('no-check-now');
  });

  it('that changes a mark is told on the sheet with before, after and why', async () => {
    const round = newRound();
    const client = await sit(round, false);
    await releaseNow(round);
    app.clock.advance(1000);
    const [row] = await rowsOf(round);
    const remark = {
      script: row!.script,
      target: 'the-number/A',
      component: 'whole',
      before: 0,
      hundredths: WORTH,
      reason: 'The unit counts.',
    };
    expect((await lead!.post(`/marking/rounds/${round}/remarks`, remark)).status).toBe(200);
    const { body: sheet } = await client.get<ResultSheet>('/result');
    expect(sheet.hundredths).toBe(WORTH);
    expect(sheet.changes).toMatchObject([
      { before: 0, after: WORTH, reason: { values: { reason: 'The unit counts.' } } },
    ]);
    const letter = await letters('resultChanged');
    expect(letter).toBe(1);
  });
});

describe('the results of a round', () => {
  it('are a list that sorts and filters, a distribution, a workbook with real figures, and packs', async () => {
    const round = newRound();
    app.nameNext('Ada_Lind');
    for (const right of [true, false, true]) await sit(round, right);
    expect((await rowsOf(round, '?sort=total&descending=true')).map((row) => row.total)).toEqual([
      WORTH,
      WORTH,
      0,
    ]);
    expect(await rowsOf(round, '?filter=void')).toEqual([]);
    // An underscore stands for itself, not for any letter.
    expect((await rowsOf(round, '?search=Ada_L')).map((row) => row.name)).toEqual(['Ada_Lind']);
    const { body: spread } = await coordinator!.get<ScoreDistribution>(`/rounds/${round}/distribution`);
    expect([spread.n, spread.steps.reduce((sum, step) => sum + step.count, 0)]).toEqual([3, 3]);
    expect(spread.mean).toBeCloseTo((2 * WORTH) / 3, 9);
    const file = await coordinator!.raw(`/rounds/${round}/results.xlsx?columns=name,total,handedInAt`);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(await file.arrayBuffer());
    const [sheet] = book.worksheets;
    const row = sheet!.getRow(2);
    expect([typeof row.getCell(2).value, row.getCell(3).value instanceof Date]).toEqual(['number', true]);
    expect(sheet!.views).toMatchObject([{ state: 'frozen', ySplit: 1 }]);
    const { body: begun } = await coordinator!.post<PackState[]>(`/rounds/${round}/packs`);
    expect(begun[0]).toMatchObject({ state: 'working', done: 0, of: 3 });
    expect((await coordinator!.post<Refusal>(`/rounds/${round}/packs`)).body.code).toBe('pack-working');
    await app.wired.services.jobs.turn();
    const { body: ready } = await coordinator!.get<PackState[]>(`/rounds/${round}/packs`);
    expect(ready[0]).toMatchObject({ state: 'ready', done: 3 });
    const files = unzipSync(readFileSync(packFile(app.wired.services, round, ready[0]!.id)));
    expect(Object.keys(files)).toHaveLength(3);
    for (const bytes of Object.values(files))
      expect(Buffer.from(bytes.subarray(0, 5)).toString()).toBe('%PDF-');
    const { body: again } = await coordinator!.post<PackState[]>(`/rounds/${round}/packs`);
    await coordinator!.post(`/rounds/${round}/packs/${again[0]!.id}/cancel`);
    await app.wired.services.jobs.turn();
    expect((await coordinator!.get(`/rounds/${round}/packs/${again[0]!.id}/scripts.zip`)).status).toBe(404);
    for (const path of ['results', 'distribution', 'packs', 'checks'])
      expect((await assessor!.get(`/rounds/${round}/${path}`)).status).toBe(403);
  });
});

describe('the review of a sitting', () => {
  const of = async (round: number) => {
    const [row] = await rowsOf(round);
    return `/rounds/${round}/review/${row!.invitation}/0`;
  };

  it('shows the path and the answers as they grew, weighs observations and asks the candidate', async () => {
    const round = newRound();
    const device = await app.sitting(app.invite(round));
    const begun = app.clock.now();
    for (const typed of ['1', '12', bestOf('number')]) {
      device.write('the-number/A', typeof typed === 'string' ? { version: 1, response: { typed } } : typed);
      await device.save();
      app.clock.advance(20_000);
    }
    await device.finish();
    await app.wired.services.jobs.turn();
    const path = await of(round);
    const { body: review } = await coordinator!.get<SittingReview>(path);
    expect(review).toMatchObject({ attempt: 1, broken: null, verdict: null });
    expect(review.replay).toMatchObject([{ target: 'the-number/A' }]);
    const [, second] = review.replay[0]!.times;
    const { body: then } = await coordinator!.get<{ text: string }>(`${path}/replay/the-number/A/${second}`);
    expect(then.text).toContain('12');
    expect(review.path.length).toBeGreaterThan(0);
    expect(review.path.every((span) => span.from >= begun && span.to <= review.closedAt)).toBe(true);
    const { body: asked } = await coordinator!.post<SittingReview>(`${path}/ask`, {
      observation: null,
      question: 'Who was with you at ten?',
    });
    expect(asked.explanations).toMatchObject([{ question: 'Who was with you at ten?', answer: null }]);
    const { body: mine } = await device.client.get<{ id: number; question: string }[]>('/review-questions');
    expect(mine.map((one) => one.question)).toEqual(['Who was with you at ten?']);
    const answer = () =>
      device.client.post<Refusal>(`/review-questions/${mine[0]!.id}`, { answer: 'My cat.' });
    expect((await answer()).status).toBe(200);
    expect((await answer()).body.code).toBe('no-question-open');
    expect(
      (await coordinator!.post(`${path}/weigh`, { observation: 99_999, weight: 'breach', reason: 'no' }))
        .status,
    ).toBe(404);
    const stranger = await sit(round);
    expect((await stranger.post(`/review-questions/${mine[0]!.id}`, { answer: 'Me too.' })).status).toBe(404);
    expect((await assessor!.get(path)).status).toBe(403);
  });

  it('voids a sitting only with a second person; then it counts for nothing, and the candidate is told', async () => {
    const round = newRound();
    const client = await sit(round);
    const path = await of(round);
    await releaseNow(round);
    const judged = await coordinator!.post<SittingReview>(`${path}/judge`, {
      verdict: 'void',
      reason: 'Two people sat it.',
    });
    expect(judged.body.verdict).toMatchObject({ verdict: 'void', agreedBy: null, mayAgree: false });
    const { id } = judged.body.verdict!;
    expect((await coordinator!.post<Refusal>(`${path}/agree`, { id })).body.code).toBe('same-person');
    expect((await client.get('/result')).status).toBe(200);
    expect((await other!.post(`${path}/agree`, { id })).status).toBe(200);
    const refused = await client.get<Refusal>('/result');
    expect([refused.status, refused.body.code]).toEqual([409, 'sitting-void']);
    expect(await rowsOf(round, '?filter=void')).toMatchObject([{ total: null, isVoid: true }]);
    await coordinator!.post(`${path}/judge`, { verdict: 'stands', reason: 'It was a mistake.' });
    expect((await client.get('/result')).status).toBe(200);
    const [row] = await rowsOf(round);
    const { body: shown } = await lead!.get<StaffSheet>(`/rounds/${round}/results/${row!.invitation}`);
    expect(shown.sheet.hundredths).toBe(WORTH);
  });
});
