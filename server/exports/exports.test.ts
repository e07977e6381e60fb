import ExcelJS from 'exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { MarkingTableData } from '../../core/marking/api';
import { storeResponse } from '../../core/kinds/stored';
import type { FullPaper } from '../../core/papers/paper';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { bestOf, samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let [lead, coordinator, assessor]: ApiClient[] = [];
let round: number;

/** A number, two gaps and an essay; bands whose names are any text. */
function paper(): FullPaper {
  const whole = samplePaper();
  const bank = whole.bank.filter(({ parts }) => ['number', 'gaps', 'writing'].includes(parts[0]!.kind));
  const items = bank.map(({ key, version }) => ({ key, version, page: null, draw: null }));
  const bands = [{ title: 'Level 1 (B+)', from: 0 }];
  return { ...whole, bank, bands, sections: [{ ...whole.sections[0]!, items }] };
}

beforeAll(async () => {
  app = await serve();
  [lead, coordinator, assessor] = [app.staff('lead'), app.staff('coordinator'), app.staff('assessor')];
  round = app.addRound(paper());
  app.nameNext('=Ada');
  const device = await app.sitting(app.invite(round));
  device.write('the-number/A', bestOf('number'));
  device.write('the-gaps/A', storeResponse('gaps', { filled: { a: 'kept' } }));
  device.write('the-writing/A', bestOf('writing'));
  await device.finish();
  await app.wired.services.jobs.turn();
  const { body } = await assessor.get<MarkingTableData>(`/marking/piles/${round}/the-writing/A`);
  const [script] = body.scripts;
  const given = Object.fromEntries(script!.components.map(({ key }) => [key, 0]));
  await assessor.post(`/marking/tasks/${script!.task}`, { given, comment: '', notes: [] });
});
afterAll(() => app.close());

async function csv(client: ApiClient, path: string): Promise<string[][]> {
  const response = await client.raw(`/rounds/${round}/${path}`);
  expect(response.status).toBe(200);
  const text = (await response.text()).replace('\u{feff}', '').trimEnd();
  return text.split('\r\n').map((line) => line.split(','));
}
const column = (table: string[][], head: string) => table.slice(1).map((row) => row[table[0]!.indexOf(head)]);

describe('the marks of a round', () => {
  it('are a row each: by question and criterion, what was found, by whom and when', async () => {
    const table = await csv(coordinator!, 'marks.csv');
    const criteria = table.slice(1).filter((row) => row[table[0]!.indexOf('Item')] === 'A writing').length;
    expect(column(table, 'Item')).toEqual([
      'A gaps',
      'A gaps',
      'A number',
      ...Array.from({ length: criteria }, () => 'A writing'),
    ]);
    // Two gaps of 2.01 marks: 1.01 and 1.
    expect(column(table, 'Marks').slice(0, 3)).toEqual(['1.01', '0', '2']);
    expect(column(table, 'Out of').slice(0, 3)).toEqual(['1.01', '1', '2']);
    expect(column(table, 'Found').slice(0, 3)).toEqual(['right', 'not answered', 'right']);
    expect(new Set(column(table, 'Marked by'))).toEqual(new Set(['automatic', 'assessor']));
    expect(column(table, 'Marked at (UTC)')[0]).toMatch(/^\d{4}-\d\d-\d\d \d\d:\d\d:\d\d$/);
    // A name is no formula.
    expect(column(table, 'Name')[0]).toBe('"\'=Ada"');
  });

  it('of one question alone, where that is asked for; a filter that there is not is refused', async () => {
    const table = await csv(coordinator!, 'marks.csv?filter=the-number/A');
    expect(column(table, 'Item')).toEqual(['A number']);
    const none = await coordinator!.get<Refusal>(
      `/rounds/${round}/marks?filter=${encodeURIComponent('Größe "1"')}`,
    );
    expect([none.status, none.body.code]).toEqual([400, 'malformed']);
    expect((await coordinator!.get(`/rounds/${round}/results?filter=__proto__`)).status).toBe(400);
    const band = await coordinator!.get<{ readonly count: number }>(
      `/rounds/${round}/results?filter=${encodeURIComponent('Level 1 (B+)')}`,
    );
    expect([band.status, band.body.count]).toEqual([200, 1]);
  });

  it('are a row a script with a column for each question and criterion, as real numbers in a workbook', async () => {
    const response = await coordinator!.raw(`/rounds/${round}/script-marks.xlsx`);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(await response.arrayBuffer());
    const sheet = book.worksheets[0]!;
    const heads = (sheet.getRow(1).values as string[]).slice(1);
    expect(heads.slice(7, 11)).toEqual([
      '1 A gaps (2.01)',
      '1 Gap 1 (1.01)',
      '1 Gap 2 (1)',
      '2 A number (2)',
    ]);
    const values = (sheet.getRow(2).values as unknown[]).slice(1);
    expect([values[4] instanceof Date, values[5], ...values.slice(7, 11)]).toEqual([
      true,
      3.01,
      1.01,
      1.01,
      0,
      2,
    ]);
    expect(sheet.views[0]).toMatchObject({ state: 'frozen', ySplit: 1 });
  });

  it('are without names for who leads, until the sign-off', async () => {
    for (const list of ['marks', 'script-marks'])
      expect(new Set(column(await csv(lead!, `${list}.csv`), 'Name'))).toEqual(new Set(['']));
    expect(await lead!.get(`/rounds/${round}/marks?search=Ada`)).toMatchObject({ body: { count: 0 } });
  });
});

describe('who marked what', () => {
  it('is for who coordinates the round', async () => {
    const table = await csv(coordinator!, 'marking.csv');
    expect([column(table, 'Assessor'), column(table, 'Marking'), column(table, 'Item')]).toEqual([
      ['assessor'],
      ['first marking'],
      ['A writing'],
    ]);
    expect((await lead!.raw(`/rounds/${round}/marking.csv`)).status).toBe(403);
    expect((await assessor!.raw(`/rounds/${round}/marks.csv`)).status).toBe(403);
  });

  it('gives no agreement where nothing was marked twice', async () => {
    expect(await csv(lead!, 'agreement.csv')).toHaveLength(1);
  });
});

it('a text is listed by its beginning', async () => {
  const { body } = await lead!.get<{ readonly answers: readonly { readonly answer: string }[] }>(
    `/rounds/${round}/answers/the-writing/A`,
  );
  expect(body.answers[0]!.answer).toMatch(/^[A-Z][a-z]+ /);
});
