import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AcceptPreview, AnsweredPart, AnswerTable } from '../../core/answers/api';
import { storeResponse } from '../../core/kinds/stored';
import { keyCorrections, marks } from '../db/schema';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { samplePaper, sampleOf } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let [lead, assessor]: ApiClient[] = [];
beforeAll(async () => {
  app = await serve();
  [lead, assessor] = [app.staff('lead'), app.staff('assessor')];
});
afterAll(() => app.close());

const GAPS = 'the-gaps/A';
const NUMBER = 'the-number/A';

async function handIn(round: number, typed: string, figure = '12.0'): Promise<void> {
  const device = await app.sitting(app.invite(round));
  device.write(GAPS, storeResponse('gaps', { filled: { a: 'kept', b: typed } }));
  device.write(NUMBER, storeResponse('number', { typed: figure }));
  await device.finish();
  await app.wired.services.jobs.turn();
}
const table = async (round: number, target = GAPS) =>
  (await lead!.get<AnswerTable>(`/rounds/${round}/answers/${target}`)).body;
const counted = ({ answers }: AnswerTable) =>
  answers.map((a) => [a.component, a.answer, a.count, a.right, a.acceptable]);
const accept = (round: number, target: string, body: object) =>
  lead!.post<Refusal>(`/rounds/${round}/answers/${target}/accept`, body);
const standing = (target: string, component: string) =>
  app.wired.services.db
    .select()
    .from(marks)
    .where(eq(marks.target, target))
    .all()
    .filter((m) => m.component === component);

describe('what was answered', () => {
  it('is told for the lead alone, by distinct answers with their counts; one is accepted from then on', async () => {
    const round = app.addRound(samplePaper());
    for (const typed of ['Zehntel', ' zehntel ', 'third', 'TENTH', '']) await handIn(round, typed);
    const { body: parts } = await lead!.get<AnsweredPart[]>(`/rounds/${round}/answers`);
    expect(parts.map((p) => p.target)).toContain(GAPS);
    expect((await assessor!.get(`/rounds/${round}/answers`)).status).toBe(403);
    const before = await table(round);
    expect([before.scripts, before.answered]).toEqual([5, 5]);
    expect(counted(before)).toEqual([
      ['a', 'kept', 5, true, false],
      ['b', 'zehntel', 2, false, true],
      ['b', 'tenth', 1, true, false],
      ['b', 'third', 1, false, true],
    ]);
    const answer = { component: 'b', answer: 'zehntel' };
    const preview = await lead!.post<AcceptPreview>(`/rounds/${round}/answers/${GAPS}/preview`, answer);
    // The second gap is worth 100 of 201.
    const own = preview.body.changes.map(({ before, after }) => after - before);
    expect([preview.body.scripts, preview.body.released, own]).toEqual([5, 0, [100, 100]]);
    expect((await accept(round, GAPS, { ...answer, reason: '' })).status).toBe(400);
    const marksBefore = standing(GAPS, 'b').length;
    expect((await accept(round, GAPS, { ...answer, reason: 'The German word is right too.' })).status).toBe(
      200,
    );
    const early = await lead!.post<Refusal>(`/marking/rounds/${round}/sign-off`);
    expect(early.body.reasons).toContainEqual({ code: 'error.openRescore', values: { count: 1 } });
    await app.wired.services.jobs.turn();
    const added = standing(GAPS, 'b').slice(marksBefore);
    expect(added.map((m) => [m.cause, m.hundredths, m.supersedes !== null])).toEqual([
      ['rescore', 100, true],
      ['rescore', 100, true],
    ]);
    expect(counted(await table(round))[1]).toEqual(['b', 'zehntel', 2, true, false]);
    // From now on: who hands in later has it right at once.
    await handIn(round, 'ZEHNTEL');
    expect(standing(GAPS, 'b').at(-1)).toMatchObject({ cause: 'score', hundredths: 100 });
    expect(app.wired.services.db.select().from(keyCorrections).all()).toMatchObject([
      { item: 'the-gaps', version: 1, part: 'A', reason: 'The German word is right too.' },
    ]);
  });

  it('can be accepted of figures too, whatever form was asked for', async () => {
    const round = app.addRound({ ...samplePaper(), version: 2 });
    await handIn(round, '', '71.25');
    const answer = { component: 'whole', answer: '71.25' };
    expect(counted(await table(round, NUMBER))).toEqual([['whole', '71.25', 1, false, true]]);
    expect((await accept(round, NUMBER, { ...answer, reason: 'Two places are exact.' })).status).toBe(200);
    await app.wired.services.jobs.turn();
    expect(standing(NUMBER, 'whole').at(-1)).toMatchObject({ hundredths: sampleOf('number').marks });
  });

  it.each([
    ['a component that there is not', GAPS, { component: 'z', answer: 'x' }, 409],
    ['a gap with a list', GAPS, { component: 'a', answer: 're-sown' }, 409],
    ['what is no figure', NUMBER, { component: 'whole', answer: 'twelve' }, 409],
    ['a kind that takes none', 'the-choice/A', { component: 'whole', answer: 'Sea kale' }, 409],
    ['a part that there is not', 'the-gaps/B', { component: 'b', answer: 'x' }, 404],
  ])('is not accepted in %s', async (_, target, answer, status) => {
    const round = app.addRound({ ...samplePaper(), version: 3 + Math.floor(app.clock.now() % 1e6) });
    app.clock.advance(1);
    const kept = app.wired.services.db.select().from(keyCorrections).all().length;
    expect((await accept(round, target, { ...answer, reason: 'because' })).status).toBe(status);
    expect(app.wired.services.db.select().from(keyCorrections).all()).toHaveLength(kept);
  });
});
