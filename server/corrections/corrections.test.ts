import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AnswerTable, PartFigures } from '../../core/answers/api';
import type {
  BandsView,
  CorrectionPage,
  CorrectionPreview,
  RoundMoves,
  WantedChange,
} from '../../core/corrections/api';
import type { KindName } from '../../core/kinds/kindNames';
import { storeResponse } from '../../core/kinds/stored';
import type { FullPaper } from '../../core/papers/paper';
import type { ResultSheet } from '../../core/results/resultSheet';
import type { RoundSettings } from '../../core/rounds/api';
import { letters, marks } from '../db/schema';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { bestOf, samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let [lead, coordinator]: ApiClient[] = [];
beforeAll(async () => {
  app = await serve();
  [lead, coordinator] = [app.staff('lead'), app.staff('coordinator')];
});
afterAll(() => app.close());

/** Some of the sample questions under names of their own: what is corrected of one paper is of no other. */
function paperOf(name: string, kinds: readonly KindName[]): FullPaper {
  const whole = samplePaper();
  const bank = whole.bank
    .filter(({ parts }) => kinds.includes(parts[0]!.kind))
    .map((item) => ({ ...item, key: `${name}-${item.parts[0]!.kind}` }));
  const [section] = whole.sections;
  const items = bank.map(({ key, version }) => ({ key, version, page: null, draw: null }));
  return { ...whole, key: name, title: `Paper ${name}`, bank, sections: [{ ...section!, items }] };
}

interface World {
  readonly name: string;
  readonly round: number;
}

/** A choice (1 mark, a wrong one costs a third), a number (2 marks), two gaps (2.01 marks). */
const objective = ['choice', 'number', 'gaps'] as const;
function newWorld(
  name: string,
  settings: Partial<RoundSettings> = {},
  kinds: readonly KindName[] = objective,
): World {
  return { name, round: app.addRound(paperOf(name, kinds), { sheet: 'key', ...settings }) };
}

/** Hands in: the option chosen, and the number where it is asked for. */
async function sit({ name, round }: World, chosen: string | null, number = true): Promise<ApiClient> {
  const device = await app.sitting(app.invite(round));
  if (chosen) device.write(`${name}-choice/A`, storeResponse('choice', { chosen: [chosen] }));
  if (number) device.write(`${name}-number/A`, bestOf('number'));
  await device.finish();
  await app.wired.services.jobs.turn();
  return device.client;
}
const turn = () => app.wired.services.jobs.turn();

async function release({ round }: World): Promise<void> {
  expect((await lead!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(200);
  expect((await coordinator!.post(`/rounds/${round}/release`)).status).toBe(200);
  await turn();
  app.clock.advance(1000);
}

const pathOf = ({ name, round }: World, kind: KindName) => `/rounds/${round}/corrections/${name}-${kind}/A`;
const preview = async (world: World, kind: KindName, change: WantedChange) =>
  (await lead!.post<CorrectionPreview>(`${pathOf(world, kind)}/preview`, { change })).body;
const page = async (world: World, kind: KindName) =>
  (await lead!.get<CorrectionPage>(pathOf(world, kind))).body;

async function correct(world: World, kind: KindName, change: WantedChange, reason = 'It was wrong.') {
  const { rounds: found, seen } = await preview(world, kind, change);
  const made = await lead!.post<Refusal>(pathOf(world, kind), { change, reason, seen });
  expect(made.status).toBe(200);
  await turn();
  return found[0]!;
}
const sheetOf = async (client: ApiClient) => (await client.get<ResultSheet>('/result')).body;
const partOf = (sheet: ResultSheet, item: string) =>
  sheet.questions.find((question) => question.item === item)!.parts[0]!;
const changedLetters = () =>
  app.wired.services.db
    .select()
    .from(letters)
    .all()
    .filter(({ facts }) => facts.kind === 'notice' && facts.topic === 'result changed').length;
const numbers = ({ moved, kept, across, moves }: RoundMoves) => [
  moved,
  kept,
  across,
  moves.map(({ before, after }) => [before, after]),
];

const toRush: WantedChange = { type: 'key', key: { right: ['rush'] } };

describe('a miskeyed choice', () => {
  it('is put right after the release: who gains is written to, nobody falls, and taking it back lowers nobody', async () => {
    const world = newWorld('miskeyed');
    const right = await sit(world, 'rush');
    const wrong = await sit(world, 'holly');
    await release(world);
    // 2 for the number; a wrong option costs a third of a mark.
    expect((await sheetOf(right)).hundredths).toBe(167);
    const before = changedLetters();
    const found = await correct(world, 'choice', toRush, 'Holly is no sedge.');
    // 2 − 0.33 becomes 2 + 1; 2 + 1 would be 2 − 0.33, and stays.
    expect(numbers(found)).toEqual([
      1,
      1,
      0,
      [
        [167, 300],
        [300, 300],
      ],
    ]);
    expect(changedLetters() - before).toBe(1);
    const up = await sheetOf(right);
    expect([up.hundredths, partOf(up, 'miskeyed-choice').verdict]).toEqual([300, 'right']);
    expect(up.changes).toMatchObject([
      { question: 1, about: 'question', before: -33, after: 100, reason: { code: 'sheet.rescored' } },
    ]);
    const kept = await sheetOf(wrong);
    expect([kept.hundredths, partOf(kept, 'miskeyed-choice').verdict]).toEqual([300, 'wrong']);
    expect(kept.remarks).toEqual([{ code: 'sheet.kept', values: { marks: '1.67' } }]);
    const [row] = (await page(world, 'choice')).rows;
    expect(row).toMatchObject({ moved: 2, told: 1, stands: true, by: 'lead', reason: 'Holly is no sedge.' });
    // Taken back, the others are as before; who had gained keeps it.
    const back = await correct(world, 'choice', { type: 'take back', correction: row!.id });
    expect(numbers(back)).toEqual([0, 1, 0, [[300, 300]]]);
    expect([(await sheetOf(right)).hundredths, (await sheetOf(wrong)).remarks]).toEqual([300, []]);
    expect((await page(world, 'choice')).rows.map((one) => one.stands)).toEqual([false, false]);
  });

  it('lowers released results where the round says so, with letters both ways', async () => {
    const world = newWorld('may-fall', { marksMayFall: true });
    const [right, wrong] = [await sit(world, 'rush'), await sit(world, 'holly')];
    await release(world);
    const before = changedLetters();
    await correct(world, 'choice', toRush);
    expect([(await sheetOf(right)).hundredths, (await sheetOf(wrong)).hundredths]).toEqual([300, 167]);
    expect(changedLetters() - before).toBe(2);
    const [row] = (await page(world, 'choice')).rows;
    await correct(world, 'choice', { type: 'take back', correction: row!.id });
    expect([(await sheetOf(right)).hundredths, (await sheetOf(wrong)).hundredths]).toEqual([167, 300]);
    expect(changedLetters() - before).toBe(4);
    const gone = await lead!.post<Refusal>(`${pathOf(world, 'choice')}/preview`, {
      change: { type: 'take back', correction: row!.id },
    });
    expect([gone.status, gone.body.code]).toEqual([409, 'correction-gone']);
  });

  it('counts at once for who hands in afterwards, and old marks stay on record', async () => {
    const world = newWorld('later');
    await sit(world, 'rush');
    await correct(world, 'choice', toRush);
    await sit(world, 'rush');
    const own = app.wired.services.db.select().from(marks).where(eq(marks.target, 'later-choice/A')).all();
    expect(
      own.map(({ cause, hundredths, correctionId }) => [cause, hundredths, correctionId !== null]),
    ).toEqual([
      ['score', -33, false],
      ['rescore', 100, true],
      ['score', 100, false],
    ]);
  });
});

describe('a correction', () => {
  let refused: World | undefined;
  it('is never made from a preview of another state', async () => {
    const world = newWorld('stale');
    await sit(world, 'rush');
    const { seen } = await preview(world, 'choice', toRush);
    const make = (change: WantedChange) =>
      lead!.post<Refusal>(pathOf(world, 'choice'), { change, seen, reason: 'It was wrong.' });
    expect((await make({ type: 'key', key: { right: ['kale'] } })).body.code).toBe('preview-stale');
    await sit(world, 'holly');
    const late = await make(toRush);
    expect([late.status, late.body.code]).toEqual([409, 'preview-stale']);
    expect((await page(world, 'choice')).rows).toEqual([]);
  });

  it.each<[string, KindName, WantedChange, number, string]>([
    [
      'two right options of one',
      'choice',
      { type: 'key', key: { right: ['rush', 'holly'] } },
      409,
      'key-contradicts',
    ],
    [
      'an option that there is not',
      'choice',
      { type: 'key', key: { right: ['fern'] } },
      409,
      'key-contradicts',
    ],
    ['no key of its kind', 'choice', { type: 'key', key: { left: [] } }, 409, 'key-unreadable'],
    ['the same key', 'choice', { type: 'key', key: { right: ['holly'] } }, 409, 'key-same'],
    ['a gap that would be gone', 'gaps', { type: 'key', key: { gaps: {} } }, 409, 'key-contradicts'],
    [
      'an answer of a kind that takes none',
      'choice',
      { type: 'accept', component: 'whole', answer: 'x' },
      409,
      'not-acceptable',
    ],
    [
      'a correction of another question',
      'number',
      { type: 'take back', correction: 1 },
      409,
      'correction-gone',
    ],
    ['a ruling that there is not', 'number', { type: 'ruling', ruling: 'half' } as never, 400, 'malformed'],
  ])('is refused for %s', async (_, kind, change, status, code) => {
    refused ??= newWorld('refused');
    const asked = await lead!.post<Refusal>(`${pathOf(refused, kind)}/preview`, { change });
    expect([asked.status, asked.body.code]).toEqual([status, code]);
  });

  it('is for leads of the round alone', async () => {
    const world = newWorld('others');
    expect((await coordinator!.get(pathOf(world, 'choice'))).status).toBe(403);
    expect((await lead!.get(`/rounds/${world.round}/corrections/others-order/A`)).status).toBe(404);
  });

  it('can be brought as a file: its key alone may differ', async () => {
    const world = newWorld('by-file');
    await sit(world, 'rush');
    const item = paperOf('by-file', objective).bank.find(({ key }) => key === 'by-file-choice')!;
    const [part] = item.parts;
    const fileOf = (content: object) => ({
      key: 'corrected',
      title: 'Corrected',
      minutes: 5,
      rules: { text: '' },
      sections: [
        {
          key: 'A',
          title: 'One',
          items: [
            {
              key: item.key,
              title: item.title,
              parts: [{ key: 'A', kind: 'choice', marks: 100, prompt: 'Answer this choice.', content }],
            },
          ],
        },
      ],
    });
    const send = (content: object) =>
      lead!.send<Refusal & { readonly key: unknown }>(`${pathOf(world, 'choice')}/file`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/octet-stream' },
        body: JSON.stringify(fileOf(content)),
      });
    const read = await send({ ...part!.content, key: { right: ['rush'] } });
    expect([read.status, read.body]).toEqual([200, { key: { right: ['rush'] } }]);
    const asked = part!.content.asked as { options: object[] };
    const other = await send({ asked: { ...asked, shuffle: false }, key: { right: ['rush'] } });
    expect([other.status, other.body.code]).toEqual([409, 'file-asks-otherwise']);
    expect((await send({ ...part!.content, key: { right: [] } })).status).toBe(422);
  });
});

describe('a withdrawn part', () => {
  it('counts for nobody; the rest is scaled to the same maximum, and nobody falls', async () => {
    const world = newWorld('scaled');
    const [low, high] = [await sit(world, 'rush'), await sit(world, 'holly')];
    await release(world);
    // 501 in all; without the choice 200 of 401 marks: 200 · 501 / 401 = 249.875….
    const found = await correct(world, 'choice', { type: 'ruling', ruling: 'withdrawn' }, 'Two are right.');
    expect(numbers(found)).toEqual([
      1,
      1,
      0,
      [
        [167, 250],
        [300, 300],
      ],
    ]);
    const sheet = await sheetOf(low);
    expect([sheet.hundredths, sheet.of]).toEqual([250, 501]);
    expect(sheet.remarks).toEqual([
      { code: 'sheet.scaled', values: { marks: '2', left: '4.01', of: '5.01' } },
    ]);
    expect(partOf(sheet, 'scaled-choice')).toMatchObject({ verdict: 'withdrawn', of: 0, right: null });
    expect(sheet.changes).toMatchObject([
      { question: 1, about: 'total', before: 167, after: 250, reason: { code: 'sheet.withdrawn' } },
    ]);
    expect((await sheetOf(high)).hundredths).toBe(300);
    // The marks that were given are there still, and count again.
    const [row] = (await page(world, 'choice')).rows;
    await correct(world, 'choice', { type: 'take back', correction: row!.id });
    expect((await sheetOf(high)).remarks).toEqual([]);
    expect(partOf(await sheetOf(high), 'scaled-choice').hundredths).toBe(100);
  });

  it('counts once what released results keep is known, never before', async () => {
    const world = newWorld('in-force');
    const client = await sit(world, 'holly');
    await release(world);
    const change = { type: 'ruling', ruling: 'withdrawn' } as const;
    const { seen } = await preview(world, 'choice', change);
    expect(
      (await lead!.post(pathOf(world, 'choice'), { change, reason: 'Two are right.', seen })).status,
    ).toBe(200);
    // 300 of 501; without the choice it would be 249.875.
    expect(await sheetOf(client)).toMatchObject({ hundredths: 300, remarks: [] });
    const again = await lead!.post<Refusal>(`${pathOf(world, 'choice')}/preview`, { change: toRush });
    expect([again.status, again.body.code]).toEqual([409, 'correction-under-way']);
    await turn();
    expect(await sheetOf(client)).toMatchObject({
      hundredths: 300,
      remarks: [{ code: 'sheet.scaled' }, { code: 'sheet.kept' }],
    });
  });

  it('lowers the maximum where the round says so: bands are set anew before the sign-off', async () => {
    const world = newWorld('lowered', { withdrawn: 'lowered' });
    const client = await sit(world, 'holly');
    const found = await correct(world, 'choice', { type: 'ruling', ruling: 'withdrawn' });
    expect([found.of, found.bandsAnew]).toEqual([{ before: 501, after: 401 }, true]);
    const early = await lead!.post<Refusal>(`/marking/rounds/${world.round}/sign-off`);
    expect(early.body.reasons).toEqual([{ code: 'error.openBands', values: { count: 1 } }]);
    const bands = `/rounds/${world.round}/bands`;
    expect((await lead!.get<BandsView>(bands)).body).toMatchObject({ bands: null, of: 401, open: true });
    const set = (from: number) =>
      lead!.post<Refusal>(bands, { bands: [{ title: 'Passed', from }], reason: 'As the board decided.' });
    expect((await set(402)).status).toBe(422);
    expect((await set(150)).status).toBe(200);
    await release(world);
    expect(await sheetOf(client)).toMatchObject({
      hundredths: 200,
      of: 401,
      band: { title: 'Passed', from: 150 },
    });
    // Signed off, they are fixed.
    expect((await set(100)).body.code).toBe('signed-off');
  });
});

describe('full marks', () => {
  it('go to who answered, or to everybody, whatever was answered', async () => {
    const world = newWorld('given');
    await sit(world, 'rush');
    await sit(world, null);
    const answered = await preview(world, 'choice', { type: 'ruling', ruling: 'marks for who answered' });
    expect(numbers(answered.rounds[0]!)).toEqual([1, 0, 0, [[167, 300]]]);
    const found = await correct(world, 'choice', { type: 'ruling', ruling: 'marks for all' });
    expect(numbers(found)).toEqual([
      2,
      0,
      0,
      [
        [167, 300],
        [200, 300],
      ],
    ]);
    await release(world);
    const figures = (await lead!.get<PartFigures[]>(`/rounds/${world.round}/figures`)).body;
    // As it was answered: −0.33 and nothing of 1 mark; half left it out.
    expect(figures[0]).toMatchObject({
      ruling: 'marks for all',
      facility: { n: 2, value: -0.165 },
      omitted: { n: 2, value: 0.5 },
    });
  });

  it('need no assessor: nobody has to mark what is decided', async () => {
    const world = newWorld('essay', {}, ['choice', 'writing']);
    const device = await app.sitting(app.invite(world.round));
    device.write('essay-writing/A', bestOf('writing'));
    await device.finish();
    await turn();
    const open = await lead!.post<Refusal>(`/marking/rounds/${world.round}/sign-off`);
    expect(open.body.reasons).toEqual([{ code: 'error.openMarking', values: { count: 1 } }]);
    await correct(world, 'writing', { type: 'ruling', ruling: 'marks for who answered' });
    await release(world);
    const sheet = await sheetOf(device.client);
    const part = partOf(sheet, 'essay-writing');
    expect([part.hundredths === part.of, part.verdict]).toEqual([true, 'given']);
  });
});

describe('one more accepted answer', () => {
  it('counts in all scripts, and is no wrong answer any more', async () => {
    const world = newWorld('accepted');
    const device = await app.sitting(app.invite(world.round));
    device.write('accepted-gaps/A', storeResponse('gaps', { filled: { a: 'kept', b: 'zehntel' } }));
    await device.finish();
    await turn();
    const change = { type: 'accept', component: 'b', answer: 'zehntel' } as const;
    const found = await correct(world, 'gaps', change, 'The German word is right too.');
    // The second gap is worth 100 of 201.
    expect(found.moves.map(({ before, after }) => after - before)).toEqual([100]);
    const { body } = await lead!.get<AnswerTable>(`/rounds/${world.round}/answers/accepted-gaps/A`);
    expect(body.answers.find(({ answer }) => answer === 'zehntel')).toMatchObject({ right: true });
  });
});
