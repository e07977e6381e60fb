import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Page } from '../../core/lists/list';
import type { PeopleReport } from '../../core/people/importApi';
import type { InvitedRow, NewRound } from '../../core/rounds/api';
import { publishPaper } from '../papers/papers';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let coordinator: ApiClient;
let round: number;
let version = 1;
beforeAll(async () => {
  app = await serve();
  coordinator = app.staff('coordinator');
});
afterAll(() => app.close());
beforeEach(() => {
  round = app.addRound({ ...samplePaper(), version: version++ });
});

async function send(how: 'check' | 'invite', file: string | Uint8Array, query = '') {
  const body = typeof file === 'string' ? new TextEncoder().encode(file) : file;
  const { body: report } = await coordinator.send<PeopleReport>(`/rounds/${round}/people/${how}${query}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: body as Uint8Array<ArrayBuffer>,
  });
  return report;
}
const invited = async () =>
  (await coordinator.get<Page<InvitedRow>>(`/rounds/${round}/candidates`)).body.rows.map((row) => row.name);
const letters = () => app.wired.services.db.query.letters.findMany().sync().length;

describe('a list of people', () => {
  it.each([
    ['commas', 'Name,E-mail\nÅsa Ødegård,asa.1@example.org\n', (text: string) => Buffer.from(text, 'utf8')],
    [
      'semicolons and a mark',
      '\u{feff}name;e-mail\nÅsa Ødegård;asa.2@example.org\n',
      (t: string) => Buffer.from(t),
    ],
    ['tabs, as pasted', 'Full name\tMail\nÅsa Ødegård\tasa.3@example.org', (t: string) => Buffer.from(t)],
    [
      'western Windows',
      'Name;Email\r\nÅsa Ødegård;asa.4@example.org',
      (t: string) => Buffer.from(t, 'latin1'),
    ],
    ['UTF-16', '\u{feff}Name,Email\nÅsa Ødegård,asa.5@example.org', (t: string) => Buffer.from(t, 'utf16le')],
    ['quotes', '"Name","Email"\n"Åsa Ødegård"," ASA.6@example.org "', (t: string) => Buffer.from(t)],
  ])('is read however it was saved: %s', async (_, text, encode) => {
    const report = await send('check', new Uint8Array(encode(text)));
    expect([report.problem, report.rows.map((row) => [row.name, row.state, row.errors])]).toEqual([
      null,
      [['Åsa Ødegård', 'new', []]],
    ]);
    expect(report.rows[0]!.email).toMatch(/^asa\.\d@example\.org$/);
  });

  it('is tried without a trace; then those who are right are invited, whoever else is told why not', async () => {
    const file = [
      'Name,Email,Extra time,Breaks,Time zone,Reference',
      'Berta Quist,berta@example.org,25 %,10,America/Lima,',
      'No Address,,,,,',
      'Bad Address,nobody at all,,,,',
      'Twice,berta@example.org,,,,',
      'Odd Extra,odd@example.org,a lot,,,',
      'Odd Zone,zone@example.org,,,Atlantis/Capital,',
      'Odd Reference,ref@example.org,,,,not allowed!',
      'Dora Ek,dora@example.org,,,,DE-77',
    ].join('\n');
    const [people, before] = [await invited(), letters()];
    const check = await send('check', file);
    expect(check.rows.map(({ line, state, errors }) => [line, state, errors[0]?.code ?? ''])).toEqual([
      [2, 'new', ''],
      [3, 'wrong', 'import.noEmail'],
      [4, 'wrong', 'import.badEmail'],
      [5, 'wrong', 'import.twiceInFile'],
      [6, 'wrong', 'import.badExtra'],
      [7, 'wrong', 'import.badZone'],
      [8, 'wrong', 'import.badReference'],
      [9, 'new', ''],
    ]);
    expect([await invited(), letters()]).toEqual([people, before]);
    expect((await send('invite', file)).done).toEqual({ invited: 2, changed: 0 });
    expect(await invited()).toEqual(['Berta Quist', 'Dora Ek']);
    expect(letters()).toBe(before + 2);
  });

  it('asks which name holds where an address is known under another one', async () => {
    const people = () =>
      app.wired.services.db.query.people
        .findMany()
        .sync()
        .filter(({ email }) => email.endsWith('@names.example.org'))
        .map(({ name }) => name);
    await send('invite', 'Name,Email\nIda Holm,ida@names.example.org\nJon Moe,jon@names.example.org\n');
    round = app.addRound({ ...samplePaper(), version: version++ });
    const list = 'Name,Email\nIda Holmes,ida@names.example.org\nJon Moe,jon@names.example.org\n';
    const post = async (how: 'check' | 'invite', query = '') => {
      const report = (await send(how, list, query)) as PeopleReport & Refusal;
      return report.rows?.map((row) => [row.name, row.knownAs, row.state]) ?? report.code;
    };
    expect(await post('check')).toEqual([
      ['Ida Holmes', 'Ida Holm', 'new'],
      ['Jon Moe', null, 'new'],
    ]);
    expect(await post('invite')).toBe('names-differ');
    expect(await post('invite', '?names=mine')).toBe('malformed');
    expect(people()).toEqual(['Ida Holm', 'Jon Moe']);
    await post('invite', '?names=known');
    expect(people()).toEqual(['Ida Holm', 'Jon Moe']);
    await post('invite', '?names=list');
    expect(people()).toEqual(['Ida Holmes', 'Jon Moe']);
  });

  it('sent again changes only what has changed, and writes no second letter', async () => {
    const first = 'Name,Email,Extra\nEva Ro,eva@example.org,0\nFinn Su,finn@example.org,0\n';
    await send('invite', first);
    const before = letters();
    const again = await send(
      'invite',
      first.replace('Finn Su,finn@example.org,0', 'Finn Sund,finn@example.org,25'),
      '?names=list',
    );
    expect(again.rows.map((row) => row.state)).toEqual(['same', 'changed']);
    expect([again.done, letters()]).toEqual([{ invited: 0, changed: 1 }, before]);
    const { rows } = (await coordinator.get<Page<InvitedRow>>(`/rounds/${round}/candidates?sort=name`)).body;
    expect(rows.map((row) => [row.name, row.extraPercent])).toEqual([
      ['Eva Ro', 0],
      ['Finn Sund', 25],
    ]);
  });

  it('leaves the arrangements of candidates who have started as they are, and says so', async () => {
    const link = app.invite(round);
    await app.sitting(link);
    const [row] = (await coordinator.get<Page<InvitedRow>>(`/rounds/${round}/candidates`)).body.rows;
    const report = await send('invite', `Name,Email,Extra\n${row!.name},${row!.email},50\n`);
    expect(report.rows[0]).toMatchObject({ state: 'wrong', errors: [{ code: 'import.started' }] });
  });

  it('without headings that are known asks which column is what, and takes the answer', async () => {
    const file = 'Kandidat;Postfach\nGro Lind;gro@example.org\n';
    const asked = await send('check', file);
    expect([asked.problem?.code, asked.headings]).toEqual(['import.noColumn', ['Kandidat', 'Postfach']]);
    expect((await send('check', file, '?name=0&email=1')).rows).toMatchObject([
      { name: 'Gro Lind', state: 'new' },
    ]);
  });

  it.each([
    ['', 'import.noRows'],
    ['Name,Email\n', 'import.noRows'],
    [`Name,Email\n${'x,x@example.org\n'.repeat(10_001)}`, 'import.tooManyRows'],
    [`Name,Email${','.repeat(1_000_000)}\n`, 'import.tooManyColumns'],
  ])('with nothing or too much in it is refused', async (file, code) => {
    expect((await send('check', file)).problem?.code).toBe(code);
  });

  // U+FDFA becomes 18 characters when it is decomposed (NFKD).
  it.each([
    ['spaces', `Name,Email,Extra\nAda Roe,ada@example.org,1${' '.repeat(300_000)}x\n`, 'import.badExtra'],
    ['one long heading', `Name,Email,${'\ufdfa'.repeat(1_000_000)}\nAda Roe,ada@example.org,\n`, null],
    ['a long address', `Name,Email\nAda Roe,${'a.'.repeat(500_000)}@example.org\n`, 'import.badEmail'],
    ['a long name', `Name,Email\n${'a '.repeat(500_000)},ada@example.org\n`, 'import.noName'],
  ])('that is made to take long is read at once: %s', async (_, file, error) => {
    const { rows } = await send('check', file);
    expect(rows[0]!.errors.map(({ code }) => code)).toEqual(error === null ? [] : [error]);
  });

  it('invites ten times as many as fit into one piece, and tells what has come in between', async () => {
    const file = (count: number) =>
      `Name,Email\n${Array.from({ length: count }, (_, i) => `Person ${i},person.${i}@example.org\n`).join('')}`;
    const [one, other] = await Promise.all([send('invite', file(300)), send('invite', file(300))]);
    expect(one.done!.invited + other.done!.invited).toBe(300);
    expect(new Set([...one.rows, ...other.rows].map(({ state }) => state))).toEqual(new Set(['new', 'same']));
  });
});

describe('a round', () => {
  const wanted = (): NewRound => {
    const { db, clock } = app.wired.services;
    const { settings, paperVersionId } = db.query.rounds.findFirst().sync()!;
    const opensAt = clock.now();
    return {
      title: 'Été 2027',
      paper: paperVersionId,
      opensAt,
      closesAt: opensAt + 1000,
      timeZone: 'Europe/Paris',
      settings,
      staff: [],
    };
  };

  it('is made from a paper, for those who are chosen; whoever makes it coordinates it', async () => {
    const made = await coordinator.post<{ id: number }>('/rounds', wanted());
    expect(made.status).toBe(200);
    expect((await coordinator.get(`/rounds/${made.body.id}`)).status).toBe(200);
    const keys = app.wired.services.db.query.rounds
      .findMany()
      .sync()
      .map((row) => row.key);
    await coordinator.post('/rounds', wanted());
    expect(keys.at(-1)).toBe('ete-2027');
    const again = app.wired.services.db.query.rounds.findMany().sync().at(-1)!.key;
    expect(again).toBe('ete-2027-2');
  });

  it('of a paper with programs is refused where programs may only run behind a second wall, and there is none', async () => {
    const { sandbox } = app.wired.services;
    const allowed = vi.spyOn(sandbox, 'allowed', 'get').mockReturnValue(false);
    const refused = await coordinator.post<Refusal>('/rounds', wanted());
    allowed.mockRestore();
    expect([refused.status, refused.body.code]).toEqual([409, 'no-second-wall']);
    expect((await coordinator.post('/rounds', wanted())).status).toBe(200);
  });

  it('of a paper with an adaptive section is refused: all of its pool would be asked', async () => {
    const paper = samplePaper();
    const adaptive = {
      prior: { mean: 0, sd: 1 },
      targetError: 0.5,
      leastLength: 1,
      greatestLength: 2,
      topics: [{ topic: 'seed', share: 1 }],
      best: 1,
      exposureLimit: 1,
      scale: { mean: 500, step: 100 },
      levels: [{ title: 'A', from: 0 }],
    };
    const sections = paper.sections.map((section, i) => (i === 0 ? { ...section, adaptive } : section));
    const id = publishPaper(app.wired.services.db, { ...paper, version: 31, sections });
    const refused = await coordinator.post<Refusal>('/rounds', { ...wanted(), paper: id });
    expect([refused.status, refused.body.code]).toEqual([409, 'adaptive-round']);
  });

  it.each([
    ['a window that ends before it begins', { closesAt: 1 }, 422],
    ['a paper that is not there', { paper: 4711 }, 404],
    ['a zone that is none', { timeZone: 'Atlantis/Capital' }, 400],
    ['a role that somebody does not have', { staff: [{ id: 1, roles: ['lead'] }] }, 400],
  ])('with %s is refused', async (_, change, status) => {
    const refused = await coordinator.post<Refusal>('/rounds', { ...wanted(), ...change });
    expect([refused.status, refused.body.message.code.startsWith('error.')]).toEqual([status, true]);
  });
});
