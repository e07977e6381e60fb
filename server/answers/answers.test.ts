import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AnsweredPart, AnswerTable } from '../../core/answers/api';
import { storeResponse } from '../../core/kinds/stored';
import type { ApiClient } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
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

describe('what was answered', () => {
  it('is told for the lead alone, by distinct answers with their counts', async () => {
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
  });
});
