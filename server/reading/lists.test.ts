import ExcelJS from 'exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from '../../core/lists/list';
import type { InvitedRow } from '../../core/rounds/api';
import type { ApiClient } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { candidatesList } from '../rounds/reads';

let app: Served;
let coordinator: ApiClient;
let round: number;
beforeAll(async () => {
  app = await serve();
  coordinator = app.staff('coordinator');
  round = app.addRound(samplePaper());
  for (const name of ['Ada', 'berit', 'Cyril', '=HYPERLINK("x")', 'A%b_c']) {
    app.nameNext(name);
    const link = app.invite(round);
    if (name === 'Cyril') await (await app.sitting(link)).finish();
    if (name === 'berit') await app.sitting(link);
  }
});
afterAll(() => app.close());

const ask = async (query: string) =>
  (await coordinator.get<Page<InvitedRow>>(`/rounds/${round}/candidates?${query}`)).body;
const names = async (query: string) => (await ask(query)).rows.map((row) => row.name);

describe('a list', () => {
  it('is searched as it is written: signs of the database’s own patterns stand for themselves', async () => {
    expect(await names('search=AD')).toEqual(['Ada']);
    expect(await names('search=%25')).toEqual(['A%b_c']);
    expect(await names('search=_')).toEqual(['A%b_c']);
    expect(await names('search=candidate.3@')).toEqual(['berit']);
    expect(await names("search=' or 1=1 --")).toEqual([]);
  });

  it('is sorted and filtered, and given in pieces with the number of all', async () => {
    const all = ['=HYPERLINK("x")', 'A%b_c', 'Ada', 'berit', 'Cyril'];
    expect(await names('')).toEqual(all);
    expect(await names('sort=name&descending=true')).toEqual([...all].reverse());
    expect(await names('filter=handed%20in')).toEqual(['Cyril']);
    expect(await names('filter=in%20progress')).toEqual(['berit']);
    expect(await names('filter=not%20started')).toEqual(all.slice(0, 3));
    const piece = await ask('from=1&size=2');
    expect([piece.count, piece.rows.map((row) => row.name)]).toEqual([5, all.slice(1, 3)]);
  });

  it.each(['size=0', 'size=100000', 'from=-1', 'sort=name;drop', 'descending=perhaps', 'other=1'])(
    'asked for by what makes no sense is refused: %s',
    async (query) => {
      const { status } = await coordinator.get(`/rounds/${round}/candidates?${query}`);
      expect(status).toBe(400);
    },
  );

  it.each(['rounds', 'papers', 'people', 'letters', `rounds/1/candidates`, 'rounds/1/results'])(
    'knows no order and no filter by names that every object of the language has: %s',
    async (path) => {
      for (const name of ['constructor', 'toString', 'valueOf'])
        for (const query of [`sort=${name}`, `filter=${name}`])
          expect([query, (await coordinator.get(`/${path}?${query}`)).status]).toEqual([query, 400]);
    },
  );

  it('takes as many queries for a hundred rows as for one', () => {
    const { db, clock, config } = app.wired.services;
    for (let n = 0; n < 100; n++) app.invite(round);
    let queries = 0;
    const { $client } = db;
    const prepare = $client.prepare.bind($client);
    $client.prepare = (source: string) => {
      queries += 1;
      return prepare(source);
    };
    const asked = (size: number) => {
      queries = 0;
      const query = { search: '', sort: '', descending: false, filter: '', from: 0, size };
      const { rows } = candidatesList.list({ db, clock, config }, { round }, query);
      return [rows.length, queries];
    };
    const [, forOne] = asked(1);
    expect(asked(100)).toEqual([100, forOne]);
    $client.prepare = prepare;
  });
});

describe('an export', () => {
  const bytes = async (path: string) => {
    const response = await coordinator.raw(`/rounds/${round}/candidates${path}`);
    return { response, bytes: Buffer.from(await response.arrayBuffer()) };
  };

  it('as CSV holds the columns that are shown, all rows, and nothing that a spreadsheet would run', async () => {
    const { response, bytes: file } = await bytes('.csv?columns=name,reference&search=HYPER&size=1');
    expect(response.headers.get('content-type')).toContain('text/csv');
    const lines = file.toString('utf8').split('\r\n');
    expect(lines[0]).toBe('\u{feff}Name,Reference');
    expect(lines[1]).toMatch(/^"'=HYPERLINK\(""x""\)",/);
    app.nameNext('|cmd');
    app.invite(round);
    const all = (await bytes('.csv?columns=name')).bytes.toString().trim().split('\r\n');
    expect([all.length, all.some((line) => line.includes("'|cmd"))]).toEqual([107, true]);
  });

  it('as a workbook holds texts as texts and times as times', async () => {
    const { bytes: file } = await bytes('.xlsx?columns=name,handedInAt&search=&filter=handed%20in');
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(file as unknown as ArrayBuffer);
    const sheet = book.worksheets[0]!;
    expect(sheet.getRow(1).values).toEqual([undefined, 'Name', 'Handed in']);
    expect(sheet.getCell('A2').value).toBe('Cyril');
    expect(sheet.getCell('B2').value).toBeInstanceOf(Date);
    const own = new ExcelJS.Workbook();
    await own.xlsx.load((await bytes('.xlsx?columns=name&search=HYPER')).bytes as unknown as ArrayBuffer);
    // A formula would be an object with what it says.
    expect(own.worksheets[0]!.getCell('A2').value).toBe('=HYPERLINK("x")');
  });
});
