import type { LiveView } from '../../core/live/api';
import { people } from '../db/schema';
import { sha256 } from '../secrets';
import type { Page } from '../../core/lists/list';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { ArrivalView } from '../../core/arrival/api';
import { kindNames, type KindName } from '../../core/kinds/kindNames';
import { sumMarks } from '../../core/marks';
import type { MarkingTableData } from '../../core/marking/api';
import type { ResultRow } from '../../core/results/api';
import type { ResultSheet } from '../../core/results/resultSheet';
import type { AttemptRule, InvitedRow } from '../../core/rounds/api';
import { MINUTE_MS } from '../../core/timing/deadline';
import { SMALL_PICTURE } from '../../core/testing/smallPicture';
import { emptyRich } from '../../core/kinds/shared/richText';
import { TaggedPdf } from '../printing/TaggedPdf';
import { type Refusal, ApiClient } from '../testing/ApiClient';
import { readPdf } from '../testing/readPdf';
import { bestOf, isReadByPeople, samplePaper, sampleOf } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let [assessor, lead, coordinator]: ApiClient[] = [];
beforeAll(async () => {
  app = await serve();
  assessor = app.staff('assessor');
  lead = app.staff('lead');
  coordinator = app.staff('coordinator');
});
afterAll(() => app.close());

let version = 1;
const newRound = (counts: AttemptRule, attemptsAllowed: number) =>
  app.addRound({ ...samplePaper(), version: version++ }, { counts, attemptsAllowed });
const byPeople = kindNames.filter(isReadByPeople);

/** Answers some kinds as well as can be and hands in; the rest stays empty. */
async function sit(link: string, kinds: readonly KindName[]): Promise<ApiClient> {
  const device = await app.sitting(link);
  for (const kind of kinds) device.write(`the-${kind}/A`, bestOf(kind));
  await device.finish();
  await app.wired.services.jobs.turn();
  return device.client;
}

/** Marks all there is with the first or the last level of every criterion. */
async function markAll(round: number, level: (levels: number) => number): Promise<void> {
  for (const kind of byPeople)
    for (;;) {
      const { body } = await assessor!.get<MarkingTableData>(`/marking/piles/${round}/the-${kind}/A`);
      const script = body.scripts?.[0];
      if (!script || body.left === 0) break;
      const given = Object.fromEntries(
        script.components.map((c) => [c.key, level(c.criterion!.levels!.length)]),
      );
      const marked = await assessor!.post(`/marking/tasks/${script.task}`, {
        given,
        comment: 'as it reads',
        notes: [],
      });
      expect(marked.status).toBe(200);
    }
}

async function finish(round: number): Promise<void> {
  expect((await lead!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(200);
  expect((await coordinator!.post(`/rounds/${round}/release`)).status).toBe(200);
}
const candidates = async (round: number) =>
  (await coordinator!.get<Page<InvitedRow>>(`/rounds/${round}/candidates`)).body.rows;
const result = async (client: ApiClient) => (await client.get<ResultSheet>('/result')).body;
const worth = (kinds: readonly KindName[]) => sumMarks(kinds.map((kind) => sampleOf(kind).marks));

describe('a result', () => {
  it('comes only after marking, sign-off and release, and then with all its reasons', async () => {
    const round = newRound('latest', 1);
    const client = await sit(app.invite(round), ['number', 'choice', ...byPeople]);
    const early = await client.get<{ code: string }>('/result');
    expect([early.status, early.body.code]).toEqual([409, 'not-released']);
    const { body: waiting } = await client.get<ArrivalView>('/arrival');
    expect(waiting.stage).toEqual({ at: 'being marked' });
    expect(waiting.marking).toMatchObject({
      scoring: false,
      scored: waiting.marking!.questions - byPeople.length,
      reading: byPeople.map((kind) => ({ title: `A ${kind}`, assessors: 1 })),
    });
    // The page hears of every step by itself: of the marks, and of the release.
    const stream = await client.stream('/live/stream');
    const next = async () => JSON.parse((await stream.next()).slice('data: '.length)) as LiveView;
    const before = await next();
    expect(before.stage).toEqual({ at: 'being marked' });
    await markAll(round, (levels) => levels - 1);
    const after = await next();
    expect([after.stage, after.marked === before.marked]).toEqual([{ at: 'being marked' }, false]);
    expect((await lead!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(200);
    expect((await client.get('/result')).status).toBe(409);
    expect((await coordinator!.post(`/rounds/${round}/release`)).status).toBe(200);
    let told = await next();
    while (told.stage.at !== 'result') told = await next();
    expect(told.marked).not.toBeNull();
    await stream.end();
    const sheet = await result(client);
    const best = worth(['number', 'choice']);
    const people = sumMarks(
      sheet.questions
        .filter((q) => byPeople.some((kind) => q.title === `A ${kind}`))
        .map((q) => q.hundredths),
    );
    expect(sheet).toMatchObject({ state: 'confirmed', hundredths: best + people });
    const parts = sheet.questions.flatMap((q) => q.parts);
    const unexplained = parts.filter(
      (p) =>
        !['right', 'unanswered'].includes(p.verdict) &&
        p.components.every((c) => c.reasons.length === 0 && c.level === null),
    );
    expect(unexplained).toEqual([]);
    // The right answers are not shown by this paper, whatever was answered.
    expect(parts.every((p) => p.right === null)).toBe(true);
    expect(await candidates(round)).toMatchObject([{ total: sheet.hundredths }]);
    expect((await client.get<ArrivalView>('/arrival')).body.stage).toEqual({ at: 'result' });
  });

  it('as a PDF is made ahead, kept, and made again where the sheet says something else', async () => {
    const round = newRound('latest', 1);
    const client = await sit(app.invite(round), ['number', ...byPeople]);
    await markAll(round, () => 0);
    await finish(round);
    const { db, jobs } = app.wired.services;
    await jobs.turn();
    const kept = () => db.query.printedResults.findMany().sync().at(-1)!;
    const { file } = kept();
    const pdf = async () => Buffer.from(await (await client.raw('/result.pdf')).arrayBuffer());
    const first = await pdf();
    expect(first.subarray(0, 5).toString()).toBe('%PDF-');
    expect([sha256(first), (await pdf()).equals(first), kept().file]).toEqual([file, true, file]);
    db.update(people).set({ name: 'Ada Newname' }).run();
    expect(sha256(await pdf())).not.toBe(file);
  });

  it('that lacks pages only because they could not be drawn now is not kept as it is', async () => {
    const round = newRound('latest', 1);
    const device = await app.sitting(app.invite(round));
    for (const kind of byPeople) device.write(`the-${kind}/A`, bestOf(kind));
    const document = new TaggedPdf({ title: 'Working', author: 'a candidate', language: 'en' });
    const bytes = new Uint8Array(await document.end(() => '1'));
    const page = { hash: sha256(bytes), bytes: bytes.length, type: 'application/pdf', turn: 0 };
    device.write('the-upload/A', { version: 1, response: { pages: [page], joined: 0, text: emptyRich } });
    await device.save();
    const address = `/sitting/${device.opened.sitting}/pages/${page.hash}/${page.bytes}/0`;
    expect((await device.client.put<{ state: string }>(address, bytes)).body.state).toBe('here');
    await device.finish();
    const { db, jobs, printer } = app.wired.services;
    await jobs.turn();
    await markAll(round, () => 0);
    const printed = () => db.query.printedResults.findMany().sync().length;
    const before = printed();
    const drawing = vi.spyOn(printer, 'pagesOfPdf').mockResolvedValue(null);
    await finish(round);
    await jobs.turn();
    expect((await device.client.raw('/result.pdf')).status).toBe(200);
    expect([drawing.mock.calls.length, printed() - before]).toEqual([2, 0]);
    drawing.mockRestore();
    expect((await device.client.raw('/result.pdf')).status).toBe(200);
    expect(printed() - before).toBe(1);
  });

  it('says what a lead writes of the whole script, also afterwards, until it is taken back', async () => {
    const round = newRound('latest', 1);
    const client = await sit(app.invite(round), ['number', ...byPeople]);
    await markAll(round, () => 0);
    await finish(round);
    const { script } = app.wired.services.db.query.sittings.findMany().sync().at(-1)!;
    const path = `/marking/rounds/${round}/overall-comments`;
    const say = async (who: ApiClient, text: string) => (await who.post(path, { script, text })).status;
    expect((await result(client)).comment).toBeNull();
    expect(await say(lead!, 'Clear throughout.')).toBe(200);
    expect((await result(client)).comment).toBe('Clear throughout.');
    expect([await say(assessor!, 'No.'), await say(coordinator!, 'No.')]).toEqual([403, 403]);
    expect((await lead!.post(path, { script: 'T-NONE', text: 'Lost.' })).status).toBe(404);
    expect(await say(lead!, '')).toBe(200);
    expect((await result(client)).comment).toBeNull();
  });

  it('has the file that a lead lets go with their words: checked like a page, for its candidate alone', async () => {
    const round = newRound('latest', 1);
    const client = await sit(app.invite(round), ['number', ...byPeople]);
    const other = await sit(app.invite(round), ['number', ...byPeople]);
    await markAll(round, () => 0);
    await finish(round);
    const { script, invitationId } = app.wired.services.db.query.sittings.findMany().sync().at(-2)!;
    const path = `/marking/rounds/${round}/overall-comments/${script}`;
    const attach = (who: ApiClient, bytes: Uint8Array) =>
      who.send<Refusal>(`${path}/file`, {
        method: 'POST',
        body: Buffer.from(bytes),
        headers: { 'Content-Type': 'application/octet-stream' },
      });
    // A picture is re-encoded: what was hidden behind it is not there any more.
    const sent = Buffer.concat([Buffer.from(SMALL_PICTURE, 'base64'), Buffer.from('<script>')]);
    expect((await attach(assessor!, sent)).status).toBe(403);
    for (const wrong of [new Uint8Array(), Buffer.from('<html>'), Buffer.from('%PDF-1.7 cut')])
      expect((await attach(lead!, wrong)).status).toBe(400);
    expect((await result(client)).file).toBeNull();
    expect((await attach(lead!, sent)).status).toBe(200);
    const { file, comment } = await result(client);
    expect([file?.type, comment]).toEqual(['image/jpeg', null]);
    const own = await client.bytes(`/result/remark/${file!.hash}`);
    expect([own.status, own.type, own.bytes.includes('<script>')]).toEqual([200, 'image/jpeg', false]);
    expect(sha256(own.bytes)).toBe(file!.hash);
    expect((await other.bytes(`/result/remark/${file!.hash}`)).status).toBe(404);
    const sheet = `/rounds/${round}/results/${invitationId}/remark/${file!.hash}`;
    expect([(await lead!.bytes(sheet)).status, (await assessor!.bytes(sheet)).status]).toEqual([200, 403]);
    // Words come and go beside it.
    await lead!.post(`/marking/rounds/${round}/overall-comments`, { script, text: 'See the picture.' });
    expect(await result(client)).toMatchObject({ comment: 'See the picture.', file });
    expect((await lead!.post(`${path}/no-file`, {})).status).toBe(200);
    expect(await result(client)).toMatchObject({ comment: 'See the picture.', file: null });
    expect((await client.bytes(`/result/remark/${file!.hash}`)).status).toBe(404);
    expect(app.wired.services.files.store.find(file!.hash)).toBeNull();
  });

  it('tells who marks no name until the sign-off, by no way; the coordinator sees it', async () => {
    const round = newRound('latest', 1);
    app.nameNext('Berit Blind');
    await sit(app.invite(round), ['number', ...byPeople]);
    await markAll(round, () => 0);
    const list = async (who: ApiClient, search = '') =>
      (await who.get<Page<ResultRow>>(`/rounds/${round}/results?search=${search}`)).body.rows;
    const [row] = await list(coordinator!);
    expect(row).toMatchObject({ name: 'Berit Blind' });
    const { script, invitation, reference } = row!;
    const readAll = async () => {
      const sheet = `/rounds/${round}/results/${invitation}`;
      const ways = [`/rounds/${round}/results`, `/rounds/${round}/results.csv`, sheet, '/jobs/failed'];
      const texts = await Promise.all(ways.map(async (way) => (await lead!.raw(way)).text()));
      const pdf = await readPdf(new Uint8Array(await (await lead!.raw(`${sheet}/script.pdf`)).arrayBuffer()));
      return [...texts, pdf.text].join(' ');
    };
    const blind = await readAll();
    expect(['Berit', reference!, script].map((word) => blind.includes(word))).toEqual([false, false, true]);
    expect(await list(lead!, 'Berit')).toEqual([]);
    expect(await list(lead!, script)).toMatchObject([{ name: null, reference: null }]);
    expect((await lead!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(200);
    expect(await readAll()).toContain('Berit');
    expect(await list(lead!, 'Berit')).toHaveLength(1);
  });

  it('is each candidate’s own; nobody else’s session opens it', async () => {
    const stranger = new ApiClient(app.url);
    expect((await stranger.get('/result')).status).toBe(401);
    expect((await stranger.get('/result.pdf')).status).toBe(401);
    expect((await assessor!.get('/result')).status).toBe(401);
  });

  it('is frozen with the sign-off: no mark changes after it', async () => {
    const round = newRound('latest', 1);
    await sit(app.invite(round), byPeople);
    const task = `/marking/piles/${round}/the-${byPeople[0]}/A`;
    const { body } = await assessor!.get<MarkingTableData>(task);
    await markAll(round, () => 0);
    await finish(round);
    const given = Object.fromEntries(body.scripts[0]!.components.map((c) => [c.key, 0]));
    const late = await assessor!.post<{ code: string }>(`/marking/tasks/${body.scripts[0]!.task}`, {
      given,
      comment: 'second thoughts',
    });
    expect([late.status, late.body.code]).toEqual([409, 'signed-off']);
  });
});

describe('the results of a round', () => {
  it('are sorted, filtered and cut by the database as they would be one by one', async () => {
    const round = newRound('latest', 2);
    const links: string[] = [];
    for (const name of ['Cecil', 'ada', 'Bo', 'Dora']) {
      app.nameNext(name);
      links.push(app.invite(round));
    }
    for (const [n, link] of links.entries()) {
      app.clock.advance(MINUTE_MS);
      for (let tries = 0; tries < (n === 1 ? 2 : 1); tries++) await sit(link, ['number']);
    }
    app.invite(round);
    const ask = async (query: string) =>
      (await coordinator!.get<Page<ResultRow>>(`/rounds/${round}/results?${query}`)).body;
    const orders = {
      name: ['ada', 'Bo', 'Cecil', 'Dora'],
      handedInAt: ['Cecil', 'ada', 'Bo', 'Dora'],
      attempts: ['Cecil', 'Bo', 'Dora', 'ada'],
      total: ['Cecil', 'ada', 'Bo', 'Dora'],
    };
    for (const [sort, names] of Object.entries(orders)) {
      const whole = await ask(`sort=${sort}`);
      expect([sort, whole.count, whole.rows.map((row) => row.name)]).toEqual([sort, 4, names]);
      const pieces = await Promise.all([0, 1, 2, 3].map((from) => ask(`sort=${sort}&from=${from}&size=1`)));
      expect([sort, pieces.flatMap(({ rows }) => rows)]).toEqual([sort, whole.rows]);
      expect(pieces.map((piece) => piece.count)).toEqual([4, 4, 4, 4]);
    }
    expect((await ask('sort=name&descending=true&size=2')).rows.map((row) => row.name)).toEqual([
      'Dora',
      'Cecil',
    ]);
    expect((await ask('search=AD')).rows.map((row) => row.name)).toEqual(['ada']);
    expect((await ask('filter=check asked')).count).toBe(0);
    expect((await ask('filter=complete')).count).toBe(4);
  });
});

describe('of two attempts', () => {
  const [weak, strong] = [['number'], ['number', 'choice', 'order']] as const;

  it.each([
    ['first', weak],
    ['latest', strong],
    ['best', strong],
  ] as const)('the %s counts', async (rule, counted) => {
    const round = newRound(rule, 2);
    const link = app.invite(round);
    const between = await sit(link, weak);
    expect((await between.get<ArrivalView>('/arrival')).body).toMatchObject({
      stage: { at: 'between', next: 2 },
      attempt: 2,
    });
    const client = await sit(link, strong);
    await markAll(round, () => 0);
    await finish(round);
    expect((await result(client)).hundredths).toBe(worth(counted));
    // One row for one candidate, however many attempts there were.
    expect(await candidates(round)).toMatchObject([{ total: worth(counted) }]);
  });

  it('the mean counts, part by part, and says so', async () => {
    const round = newRound('mean', 2);
    const link = app.invite(round);
    await sit(link, weak);
    app.clock.advance(MINUTE_MS);
    const client = await sit(link, strong);
    await markAll(round, () => 0);
    await finish(round);
    const sheet = await result(client);
    // Right in both: all of it; right in the second only: half of it, both whole hundredths here.
    const half = (kind: KindName) => Math.floor(sampleOf(kind).marks / 2 + 0.5);
    expect(sheet.hundredths).toBe(worth(['number']) + half('choice') + half('order'));
    const choice = sheet.questions.find((q) => q.title === 'A choice')!.parts[0]!;
    expect(choice.verdict).toBe('partly');
    expect(choice.remarks).toMatchObject([{ code: 'sheet.meanOf', values: { count: 2 } }]);
    expect(await candidates(round)).toMatchObject([{ total: sheet.hundredths }]);
  });

  it('a third is not to be had', async () => {
    const round = newRound('latest', 2);
    const link = app.invite(round);
    await sit(link, weak);
    const client = await sit(link, weak);
    expect((await client.get<ArrivalView>('/arrival')).body.stage).toEqual({ at: 'being marked' });
    expect((await client.post('/sitting/prepare')).status).toBe(409);
  });
});
