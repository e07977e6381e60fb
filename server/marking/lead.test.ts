import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Component } from '../../core/kinds/contract';
import { kindNames } from '../../core/kinds/kindNames';
import type {
  GapData,
  GivenReply,
  MarkedScript,
  MarkingTableData,
  MarkStanding,
  Phrase,
  QualityData,
  SignOffState,
} from '../../core/marking/api';
import type { SimilarData, SimilarSide } from '../../core/marking/similarApi';
import { CORRECTION_MS } from '../../core/marking/standardisation';
import { storeResponse } from '../../core/kinds/stored';
import { sumMarks } from '../../core/marks';
import { judgements, marks, roundStaff } from '../db/schema';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { bestOf, isMarkedByPeople, samplePaper, sampleOf } from '../testing/samplePaper';
import { markingTasks } from '../db/schema';
import { serve, type Served } from '../testing/serve';

let app: Served;
let [ada, ben, lead, coordinator]: ApiClient[] = [];
beforeAll(async () => {
  app = await serve();
  [ada, ben] = [app.staff('assessor'), app.staff('assessor')];
  [lead, coordinator] = [app.staff('lead'), app.staff('coordinator')];
});
afterAll(() => app.close());

const KIND = kindNames.find(isMarkedByPeople)!;
const TARGET = `the-${KIND}/A`;
const PILE = (round: number) => `/marking/piles/${round}/${TARGET}`;
const ITEM = (round: number) => `/marking/quality/${round}/${TARGET}`;
let version = 1;

async function roundOf(scripts: number, settings?: object): Promise<number> {
  const round = app.addRound({ ...samplePaper(), version: version++ });
  const usual = { doublePercent: 0, tolerance: 0, standardEvery: 2 };
  if (settings) expect((await act(round, 'settings', { ...usual, ...settings })).status).toBe(200);
  for (let n = 0; n < scripts; n++) {
    const device = await app.sitting(app.invite(round));
    device.write(TARGET, bestOf(KIND));
    await device.finish();
  }
  await app.wired.services.jobs.turn();
  return round;
}
const act = (round: number, path: string, body: object = {}) =>
  lead!.post<QualityData & Refusal>(`${ITEM(round)}/${path}`, body);
const quality = async (round: number) => (await lead!.get<QualityData>(ITEM(round))).body;
const tableOf = async (who: ApiClient, round: number) =>
  (await who.get<MarkingTableData>(`/marking/piles/${round}/${TARGET}`)).body;
const levels = (components: readonly Component[], at: 'lowest' | 'highest') =>
  Object.fromEntries(
    components.map(({ key, criterion }) => [key, at === 'lowest' ? 0 : criterion!.levels!.length - 1]),
  );
const give = (who: ApiClient, task: number, given: object, more: object = {}) =>
  who.post<GivenReply & Refusal>(`/marking/tasks/${task}`, { given, comment: '', notes: [], ...more });
const note = {
  id: 'n-1',
  anchor: { on: 'text', start: 0, end: 3, quote: 'The' },
  component: null,
  text: 'Why?',
};

/** Marks the first script in somebody's queue. */
async function markNext(who: ApiClient, round: number, at: 'lowest' | 'highest', more: object = {}) {
  const [script] = (await tableOf(who, round)).scripts;
  const reply = await give(who, script!.task, levels(script!.components, at), more);
  expect(reply.status).toBe(200);
  return { script: script!, told: reply.body.told };
}
async function markAll(who: ApiClient, round: number, at: 'lowest' | 'highest'): Promise<void> {
  while ((await tableOf(who, round)).scripts.length > 0) await markNext(who, round, at);
}

describe('a phrase', () => {
  it('is its owner’s everywhere, and where it is shared that of those who mark in the same round', async () => {
    const [round, other] = [await roundOf(1), await roundOf(1)];
    const add = (text: string, shared: boolean) =>
      ada!.post<Phrase[]>(`/marking/rounds/${round}/phrases`, { text, shared });
    await add('Mine alone', false);
    const kept = (await add('For all of this round', true)).body;
    const texts = async (who: ApiClient, of: number) => {
      const { phrases } = (await who.get<MarkingTableData>(`/marking/piles/${of}/${TARGET}`)).body;
      return phrases.map(({ text }) => text);
    };
    const both = ['For all of this round', 'Mine alone'];
    expect([await texts(ada!, round), await texts(ada!, other)]).toEqual([both, both]);
    expect([await texts(ben!, round), await texts(ben!, other)]).toEqual([both.slice(0, 1), []]);
    const { id } = kept.find(({ shared }) => shared)!;
    const remove = (who: ApiClient) => who.post(`/marking/rounds/${round}/phrases/${id}/remove`);
    await remove(ben!);
    expect(await texts(ben!, round)).toEqual(both.slice(0, 1));
    await remove(ada!);
    expect(await texts(ben!, round)).toEqual([]);
  });
});

describe('scripts shared out', () => {
  it('go to both assessors evenly, none to both where they are marked once', async () => {
    const round = await roundOf(4);
    const [hers, his] = [await tableOf(ada!, round), await tableOf(ben!, round)];
    expect([hers.left, his.left]).toEqual([2, 2]);
    const codes = [hers, his].flatMap((table) => table.scripts.map((one) => one.script));
    expect(new Set(codes).size).toBe(4);
    const refused = await give(ben!, hers.scripts[0]!.task, levels(hers.scripts[0]!.components, 'lowest'));
    expect([refused.status, refused.body.code]).toEqual([409, 'not-yours']);
  });

  it('go to others where somebody is absent or their marking is held; what was given stays', async () => {
    const round = await roundOf(4);
    await markNext(ada!, round, 'highest');
    const { assessors } = await quality(round);
    const { id } = assessors.find((one) => one.marked === 1)!;
    await act(round, 'hold', { assessor: id, held: true, reason: 'We talk first.' });
    expect((await tableOf(ada!, round)).held).toBe('We talk first.');
    expect([(await tableOf(ada!, round)).scripts, (await tableOf(ben!, round)).left]).toEqual([[], 3]);
    expect((await quality(round)).assessors.find((one) => one.id === id)).toMatchObject({
      marked: 1,
      left: 0,
    });
    await act(round, 'hold', { assessor: id, held: false, reason: 'We have talked.' });
    expect((await tableOf(ada!, round)).held).toBeNull();
  });

  it('come as a half-made mark again after a reload, and after a mark was taken back', async () => {
    const round = await roundOf(2);
    const [script] = (await tableOf(ada!, round)).scripts;
    const key = script!.components[0]!.key;
    const overrides = { whole: { hundredths: 0, reason: 'The unit is missing.' } };
    const draft = { given: { [key]: 1 }, comment: 'half', notes: [note], overrides };
    expect((await ada!.putJson(`/marking/tasks/${script!.task}/draft`, draft)).status).toBe(200);
    expect((await tableOf(ada!, round)).scripts[0]!.draft).toEqual(draft);
    await give(ada!, script!.task, levels(script!.components, 'highest'), {
      comment: 'whole',
      notes: [note],
    });
    expect((await tableOf(ada!, round)).last).toMatchObject({ task: script!.task, words: 'whole · Why?' });
    expect((await ada!.get(`${PILE(round)}/marked`)).body).toMatchObject([{ task: script!.task }]);
    await ada!.post(`/marking/tasks/${script!.task}/take-back`);
    expect((await tableOf(ada!, round)).scripts[0]).toMatchObject({
      task: script!.task,
      draft: { given: levels(script!.components, 'highest'), comment: 'whole', notes: [note] },
    });
  });
});

describe('an assessor', () => {
  it('is sent nothing of the person, the time, or the other mark', async () => {
    const round = await roundOf(2, { doublePercent: 100 });
    await markNext(ada!, round, 'lowest', {
      comment: 'SECRET-COMMENT',
      notes: [{ ...note, text: 'SECRET-NOTE' }],
    });
    const shown = JSON.stringify(await tableOf(ben!, round));
    expect(shown).not.toMatch(/SECRET|Candidate \d|example\.org|HR-\d|T-\d/);
    const others = ['handedIn', 'closedAt', 'startedAt', 'assessor', 'role', 'sitting', 'invitation'];
    for (const name of others) expect(shown).not.toContain(`"${name}"`);
    for (const path of ['', '/similar']) expect((await ben!.get(`${ITEM(round)}${path}`)).status).toBe(403);
    expect((await ben!.post(`${ITEM(round)}/clarify`, { text: 'No.' })).status).toBe(403);
    expect((await coordinator!.get(`/marking/piles/${round}/${TARGET}`)).status).toBe(403);
  });

  it('asks the lead about a script and gets it back with the answer; a clarification is shown once', async () => {
    const round = await roundOf(2);
    const [script] = (await tableOf(ada!, round)).scripts;
    await ada!.post(`/marking/tasks/${script!.task}/set-aside`, { reason: 'illegible', note: 'Is it 7?' });
    expect((await tableOf(ada!, round)).scripts).toEqual([]);
    expect((await quality(round)).open).toContainEqual({ code: 'error.openAsides', values: { count: 1 } });
    const [aside] = (await quality(round)).asides;
    expect(aside).toMatchObject({ script: script!.script, reason: 'illegible', note: 'Is it 7?' });
    await act(round, 'answer', { id: aside!.id, answer: 'It is 1.' });
    expect((await tableOf(ada!, round)).scripts[0]!.aside).toMatchObject({ answer: 'It is 1.' });
    await markNext(ada!, round, 'lowest');
    app.clock.advance(1000);
    await act(round, 'clarify', { text: 'Half a degree is enough.' });
    const [one] = (await tableOf(ada!, round)).clarifications;
    expect(one).toMatchObject({ text: 'Half a degree is enough.', isNew: true, touches: 1 });
    await ada!.post(`/marking/clarifications/${one!.id}/read`);
    expect((await tableOf(ada!, round)).clarifications[0]!.isNew).toBe(false);
    expect((await tableOf(ben!, round)).clarifications[0]).toMatchObject({ isNew: true, touches: 0 });
  });

  it.each([
    ['a note without a place', { notes: [{ ...note, anchor: { on: 'text', start: 3, end: 3, quote: '' } }] }],
    ['a note twice', { notes: [note, note] }],
    ['a credit beyond its component', { overrides: { whole: { hundredths: 5, reason: 'why' } } }],
  ])('is refused %s', async (_, more) => {
    const round = await roundOf(2);
    const [script] = (await tableOf(ada!, round)).scripts;
    const refused = await give(ada!, script!.task, levels(script!.components, 'lowest'), more);
    expect([refused.status, refused.body.code]).toEqual([400, 'malformed']);
    expect((await tableOf(ada!, round)).byYou).toBe(0);
  });
});

describe('two marks of one response', () => {
  const total = (round: number) =>
    coordinator!
      .get<{ rows: { total: number | null }[] }>(`/rounds/${round}/candidates`)
      .then(({ body }) => body.rows[0]!.total);
  const { marks: of } = sampleOf(KIND);

  it('have their mean within the tolerance', async () => {
    const round = await roundOf(1, { doublePercent: 100, tolerance: of });
    await markNext(ada!, round, 'lowest');
    await markNext(ben!, round, 'highest');
    expect((await quality(round)).gaps).toEqual([]);
    expect(await total(round)).toBe(of / 2);
  });

  it('are a gap beyond it, which the lead settles with a reason; then they cannot be taken back', async () => {
    const round = await roundOf(1, { doublePercent: 100, tolerance: 50 });
    const { script } = await markNext(ada!, round, 'lowest', { notes: [note] });
    await markNext(ben!, round, 'highest');
    const [gap] = (await quality(round)).gaps;
    expect([gap!.first, gap!.second].sort((a, b) => a - b)).toEqual([0, of]);
    const path = `/marking/rounds/${round}/gaps/${gap!.id}`;
    const { body } = await lead!.get<GapData>(path);
    expect(body.sides.flatMap((side) => side.notes)).toEqual([note]);
    const early = await lead!.post<Refusal>(`/marking/rounds/${round}/sign-off`);
    expect(early.body.reasons).toContainEqual({ code: 'error.openGaps', values: { count: 1 } });
    const bare = { given: 'mean', comment: '', reason: '' };
    expect((await lead!.post(path, bare)).status).toBe(400);
    expect((await lead!.post(path, { ...bare, reason: 'Both have a point.' })).status).toBe(200);
    expect(await total(round)).toBe(of / 2);
    expect((await lead!.post<Refusal>(path, { ...bare, reason: 'again' })).body.code).toBe('settled-already');
    const late = await ada!.post<Refusal>(`/marking/tasks/${script.task}/take-back`);
    expect([late.status, late.body.code]).toEqual([409, 'settled-already']);
    const next = await give(ada!, script.task, levels(script.components, 'highest'));
    expect([next.status, next.body.code]).toEqual([409, 'settled-already']);
    const standing = app.wired.services.db
      .select()
      .from(marks)
      .all()
      .filter((m) => m.role === 'settlement');
    expect(sumMarks(standing.map((m) => m.hundredths))).toBe(of / 2);
    expect(standing.every((m) => m.supersedes !== null)).toBe(true);
  });

  it('open and close gaps as the tolerance changes; figures tell how far they agree', async () => {
    const round = await roundOf(2, { doublePercent: 100, tolerance: 0 });
    await markAll(ada!, round, 'lowest');
    await markAll(ben!, round, 'highest');
    const { agreement, gaps, pairs } = await quality(round);
    expect([gaps.length, pairs.length, agreement.exact.value]).toEqual([2, 2, 0]);
    // Both always differ by everything: the mean of first − second depends on whose turn was first, its size does not.
    expect(agreement.adjacent.value).toBe(of <= 100 ? 1 : 0);
    await act(round, 'settings', { doublePercent: 100, tolerance: of, standardEvery: 2 });
    expect((await quality(round)).gaps).toEqual([]);
    // Of responses that an assessor can still change nothing is computed for them; of closed ones it is.
    expect((await tableOf(ada!, round)).agreement.n).toBe(0);
    expect((await act(round, 'sign-off')).status).toBe(200);
    expect((await tableOf(ada!, round)).agreement.n).toBe(2);
  });
});

describe('a script with agreed marks', () => {
  it('is practice first or comes unseen, tells who is off kindly, and counts with its agreed marks', async () => {
    const round = await roundOf(9, { standardEvery: 2 });
    const { candidates } = await quality(round);
    const [first, second] = candidates.map(({ script }) => script);
    const [sample] = (await tableOf(ada!, round)).scripts;
    const best = levels(sample!.components, 'highest');
    const agreed = { comment: '', given: best, reason: 'Everything is named.' };
    await act(round, 'standards', { ...agreed, script: first, use: 'practice' });
    await act(round, 'standards', { ...agreed, script: second, use: 'unseen' });
    const again = await act(round, 'standards', { ...agreed, script: second, use: 'unseen' });
    expect([again.status, again.body.code]).toEqual([409, 'standard-already']);
    const practised = await markNext(ada!, round, 'lowest');
    expect([practised.script.script, practised.script.practice]).toEqual([first, true]);
    expect(practised.told).toMatchObject({ practice: true, within: false, reason: 'Everything is named.' });
    // Nobody marks it a second time, knowing what was agreed.
    const twice = await give(ada!, practised.script.task, best);
    expect([twice.status, twice.body.code]).toEqual([409, 'given-already']);
    const marked = [];
    while ((await tableOf(ada!, round)).scripts.length > 0)
      marked.push(await markNext(ada!, round, 'lowest'));
    expect(marked.every((one) => one.told === null && !one.script.practice)).toBe(true);
    // It is told when half a minute has passed, not before, and once.
    expect((await tableOf(ada!, round)).told).toEqual([]);
    app.clock.advance(CORRECTION_MS);
    const { told } = await tableOf(ada!, round);
    expect(told).toMatchObject([{ script: second, practice: false, reason: 'Everything is named.' }]);
    expect((await ben!.post(`/marking/tasks/${told[0]!.task}/told`)).status).toBe(409);
    expect((await tableOf(ada!, round)).told).toHaveLength(1);
    await ada!.post(`/marking/tasks/${told[0]!.task}/told`);
    expect((await tableOf(ada!, round)).told).toEqual([]);
    const own = (await quality(round)).assessors.find((one) => one.standards.of > 0)!;
    expect(own.standards).toEqual({ within: 0, of: 1, drifted: false });
    await markAll(ben!, round, 'highest');
    expect((await quality(round)).open).toEqual([]);
  });

  it('is changed like any other; what stood at the end of the time for corrections is compared', async () => {
    const round = await roundOf(9, { standardEvery: 2 });
    const { candidates } = await quality(round);
    const [sample] = (await tableOf(ada!, round)).scripts;
    const best = levels(sample!.components, 'highest');
    await act(round, 'standards', {
      comment: '',
      given: best,
      reason: 'Everything is named.',
      script: candidates[0]!.script,
      use: 'unseen',
    });
    const has = async (who: ApiClient) => {
      await markAll(who, round, 'lowest');
      const { body } = await who.get<MarkedScript[]>(`${PILE(round)}/marked`);
      return body.find(({ script }) => script === candidates[0]!.script);
    };
    const [whose, task] = (await has(ada!))
      ? [ada!, (await has(ada!))!.task]
      : [ben!, (await has(ben!))!.task];
    const again = async (given: object) => {
      expect((await whose.post(`/marking/tasks/${task}/take-back`)).status).toBe(200);
      const [back] = (await tableOf(whose, round)).scripts;
      expect(back).toMatchObject({ task, takenBack: true });
      return give(whose, task, given, { seen: back!.seen });
    };
    const within = async () =>
      (await quality(round)).assessors.find((one) => one.standards.of > 0)!.standards.within;
    expect(await within()).toBe(0);
    // A slip that is put right in time never counts.
    expect((await again(best)).status).toBe(200);
    expect(await within()).toBe(1);
    app.clock.advance(CORRECTION_MS);
    // Later it can be changed all the same, and changes nothing of how it compared.
    expect((await again(levels(sample!.components, 'lowest'))).status).toBe(200);
    expect(await within()).toBe(1);
  });
});

describe('an assessor who knows the writer of a script', () => {
  it('passes all of it to another, gets nothing of it again, and it is on record without a name', async () => {
    const round = await roundOf(4);
    const [script] = (await tableOf(ada!, round)).scripts;
    const { task } = script!;
    const draft = { given: {}, comment: 'half written', notes: [], overrides: {} };
    await ada!.putJson(`/marking/tasks/${task}/draft`, draft);
    expect((await ben!.post<Refusal>(`/marking/tasks/${task}/interest`)).body.code).toBe('not-yours');
    expect((await ada!.post(`/marking/tasks/${task}/interest`)).status).toBe(200);
    const has = async (who: ApiClient) =>
      (await tableOf(who, round)).scripts.filter((one) => one.script === script!.script);
    expect(await has(ada!)).toEqual([]);
    // Three scripts of four are with the other now; what was written of it is gone.
    expect((await tableOf(ben!, round)).left).toBe(3);
    // Nor does it come back when work is shared out anew.
    const { assessors } = await quality(round);
    const benId = assessors.find((one) => one.left === 3)!.id;
    await act(round, 'hold', { assessor: benId, held: true, reason: 'Away for a day.' });
    expect(await has(ada!)).toEqual([]);
    expect((await tableOf(ada!, round)).left).toBe(3);
    await act(round, 'hold', { assessor: benId, held: false, reason: 'Back again.' });
    while ((await tableOf(ben!, round)).scripts.length > 0) await markNext(ben!, round, 'lowest');
    const { $client } = app.wired.services.db;
    const recorded = $client.prepare("select * from audit where act = 'declared-interest'").all() as object[];
    expect(JSON.stringify(recorded)).toContain(script!.script);
    expect(JSON.stringify(recorded)).not.toMatch(/Candidate|example\.org/);
    const late = await ada!.post<Refusal>(`/marking/tasks/${task}/interest`);
    expect([late.status, late.body.code]).toEqual([409, 'not-yours']);
  });
});

describe('a second mark that nobody else can give', () => {
  it.each(['first', 'second'])(
    'is not asked for any more, whichever of both it was: the %s',
    async (turn) => {
      const round = await roundOf(1, { doublePercent: 100 });
      const { db } = app.wired.services;
      const [first] = (await tableOf(ada!, round)).scripts;
      const isFirst =
        db
          .select()
          .from(markingTasks)
          .all()
          .find(({ id }) => id === first!.task)!.role === 'first';
      const [knows, other] = isFirst === (turn === 'first') ? [ada!, ben!] : [ben!, ada!];
      const [script] = (await tableOf(knows, round)).scripts;
      expect((await knows.post(`/marking/tasks/${script!.task}/interest`)).status).toBe(200);
      await markNext(other, round, 'lowest');
      expect(await quality(round)).toMatchObject({ given: 1, all: 1, twice: 0, open: [] });
    },
  );
});

describe('a mark in two windows', () => {
  it('is not replaced unseen: both are shown, and sent once more it counts once', async () => {
    const round = await roundOf(2);
    const [script] = (await tableOf(ada!, round)).scripts;
    const { task, components, seen } = script!;
    expect(seen).toBeNull();
    const low = levels(components, 'lowest');
    expect((await give(ada!, task, low, { seen, comment: 'first' })).status).toBe(200);
    // Its answer was lost: the same mark again is no other one.
    expect((await give(ada!, task, low, { seen, comment: 'first' })).status).toBe(200);
    const other = levels(components, 'highest');
    const refused = await give(ada!, task, other, { seen, comment: 'second' });
    expect([refused.status, refused.body.code]).toEqual([409, 'mark-given-elsewhere']);
    const standing = refused.body.details as MarkStanding;
    expect(standing).toMatchObject({ comment: 'first' });
    const judgementsOfIt = () => app.wired.services.db.select().from(judgements).all().length;
    const before = judgementsOfIt();
    expect((await give(ada!, task, other, { seen: standing.judgement, comment: 'second' })).status).toBe(200);
    expect(judgementsOfIt()).toBe(before + 1);
  });
});

describe('the sign-off', () => {
  it('of an item freezes its marks; a remark with a reason changes them afterwards', async () => {
    const round = await roundOf(2);
    await markAll(ada!, round, 'lowest');
    const { script } = await markNext(ben!, round, 'lowest');
    const component = script.components[0]!;
    const remark = {
      script: script.script,
      target: TARGET,
      component: component.key,
      before: 0,
      hundredths: component.of,
      reason: 'Read again.',
    };
    const path = `/marking/rounds/${round}/remarks`;
    expect((await lead!.post<Refusal>(path, remark)).body.code).toBe('not-signed-off-yet');
    // A mark that was given after the lead looked is not frozen unseen.
    const { newest } = await quality(round);
    const { body: all } = await lead!.get<SignOffState[]>('/marking/rounds');
    expect(all.find((one) => one.round === round)!.newest).toBe(newest);
    await ben!.post(`/marking/tasks/${script.task}/take-back`);
    const [back] = (await tableOf(ben!, round)).scripts;
    await give(ben!, back!.task, levels(back!.components, 'lowest'), { seen: back!.seen, comment: 'again' });
    const unlooked = await act(round, 'sign-off', { seen: newest });
    expect([unlooked.status, unlooked.body.code]).toEqual([409, 'marks-changed']);
    const looked = await act(round, 'sign-off', { seen: (await quality(round)).newest });
    expect(looked.body.signedOffAt).not.toBeNull();
    const late = await give(ben!, script.task, levels(script.components, 'highest'));
    expect([late.status, late.body.code]).toEqual([409, 'signed-off']);
    expect((await lead!.post(path, { ...remark, hundredths: component.of + 1 })).status).toBe(400);
    const unseen = await lead!.post<Refusal>(path, { ...remark, before: 50 });
    expect([unseen.status, unseen.body.code]).toEqual([409, 'mark-changed']);
    expect((await lead!.post(path, remark)).status).toBe(200);
    const last = app.wired.services.db.select().from(marks).all().at(-1)!;
    expect(last).toMatchObject({ role: 'remark', hundredths: component.of });
    expect(last.supersedes).not.toBeNull();
    const { body } = await lead!.get<SignOffState[]>('/marking/rounds');
    const own = body.find((one) => one.round === round)!;
    expect(own.piles.find((one) => one.target === TARGET)!.signedOffAt).not.toBeNull();
    // A script of another round is none of this one's.
    const other = await roundOf(0);
    expect((await lead!.post(`/marking/rounds/${other}/remarks`, remark)).status).toBe(404);
  });

  it('is the lead’s alone, in their own rounds', async () => {
    const round = await roundOf(1);
    const { db } = app.wired.services;
    const [stranger] = [app.staff('lead')];
    db.delete(roundStaff).where(undefined).run();
    expect((await stranger.get(ITEM(round))).status).toBe(403);
    expect((await ada!.post(`/marking/tasks/1`, { given: {}, comment: '', notes: [] })).status).toBe(409);
  });
});

describe('similar responses', () => {
  it('are found and shown side by side, by script code', async () => {
    const fresh = await serve();
    try {
      const own = fresh.staff('lead');
      const round = fresh.addRound(samplePaper());
      const copied =
        'The reserve cooler said that it was ready, but it never took over, and so both lots were warm for nine hours in all.';
      const texts = [
        copied,
        `${copied} I would sow them again.`,
        'Nothing was warm and nobody had been there at the time of it all.',
      ];
      for (const text of texts) {
        const device = await fresh.sitting(fresh.invite(round));
        const paragraph = { type: 'paragraph', content: [{ type: 'text', text }] };
        device.write(
          'the-writing/A',
          storeResponse('writing', { text: { type: 'doc', content: [paragraph] } }),
        );
        await device.finish();
      }
      const path = `/marking/quality/${round}/the-writing/A/similar`;
      const { body } = await own.get<SimilarData>(path);
      expect([body.compared, body.base.pairs, body.pairs.length]).toEqual([3, 3, 1]);
      const { body: sides } = await own.get<SimilarSide[]>(`${path}/${body.pairs[0]!.scripts.join('/')}`);
      expect(sides.map((side) => side.text).sort()).toEqual(texts.slice(0, 2).sort());
      expect(sides.every((side) => side.passages.length > 0)).toBe(true);
    } finally {
      await fresh.close();
    }
  });
});
