import type { AnswerTable } from '../../core/answers/api';
import type { Page } from '../../core/lists/list';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { kindNames, type KindName } from '../../core/kinds/kindNames';
import type { Component } from '../../core/kinds/contract';
import { sumMarks } from '../../core/marks';
import type { MarkingTableData, MarkingPile, SignOffState } from '../../core/marking/api';
import {
  audit,
  currentAnswers,
  invitations,
  judgements,
  marks,
  markingTasks,
  roundStaff,
  sittings,
} from '../db/schema';
import { observe } from '../observations/observations';
import { makeReceipt } from '../sittings/receipts';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { bestOf, isMarkedByPeople, samplePaper, sampleOf } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { scoreSitting } from './scoreJob';

let app: Served;
let [ada, lead]: ApiClient[] = [];
beforeAll(async () => {
  app = await serve();
  ada = app.staff('assessor');
  lead = app.staff('lead');
});
afterAll(() => app.close());

const KIND = kindNames.find(isMarkedByPeople)!;
const TARGET = `the-${KIND}/A`;
let version = 1;
const newRound = () => app.addRound({ ...samplePaper(), version: version++ });

async function handIn(round: number, kinds: readonly KindName[] = [KIND]): Promise<void> {
  const device = await app.sitting(app.invite(round));
  for (const kind of kinds) device.write(`the-${kind}/A`, bestOf(kind));
  await device.finish();
  await app.wired.services.jobs.turn();
}
const tableOf = async (who: ApiClient, round: number) =>
  (await who.get<MarkingTableData>(`/marking/piles/${round}/${TARGET}`)).body;
const componentsOn = ({ scripts }: MarkingTableData): readonly Component[] => scripts[0]!.components;
const levelsOf = (component: Component) => component.criterion!.levels!;
const levelled = (on: MarkingTableData, level: (count: number) => number) =>
  Object.fromEntries(componentsOn(on).map((c) => [c.key, level(levelsOf(c).length)]));
const lowest = (on: MarkingTableData) => levelled(on, () => 0);
const highest = (on: MarkingTableData) => levelled(on, (count) => count - 1);
const totalOn = (on: MarkingTableData, at: 0 | -1) =>
  sumMarks(componentsOn(on).map((c) => levelsOf(c).at(at)!.hundredths));
/** Having seen the mark that stands, if any does. */
const mark = (who: ApiClient, task: number, given: object, comment = '') => {
  const own = app.wired.services.db.select().from(markingTasks).all();
  const seen = own.find(({ id }) => id === task)?.judgementId ?? null;
  return who.post<Refusal>(`/marking/tasks/${task}`, { given, comment, notes: [], seen });
};
const given = () =>
  app.wired.services.db
    .select()
    .from(marks)
    .all()
    .filter((m) => m.staffId !== null);

describe('a pile', () => {
  it('shows scripts by code alone: no name, reference, time or address', async () => {
    const round = newRound();
    await handIn(round);
    const shown = JSON.stringify(await tableOf(ada!, round));
    expect(shown).not.toMatch(/Candidate \d|example\.org|@|T-\d/);
    const { scripts } = await tableOf(ada!, round);
    expect(Object.keys(scripts[0]!).sort()).toEqual(
      [
        ...['aside', 'components', 'credits', 'draft', 'kind', 'practice'],
        ...['response', 'right', 'roughWork', 'script', 'seen', 'shown', 'takenBack', 'task'],
      ].sort(),
    );
  });

  it.each([true, false])('shows rough work only where the paper says so (%s)', async (showRoughWork) => {
    const round = app.addRound({ ...samplePaper(), version: version++, showRoughWork });
    const device = await app.sitting(app.invite(round));
    device.write(TARGET, bestOf(KIND));
    device.write('text', 'first a plan', { about: 'rough-work' });
    device.write('drawing', [[1, 2, 30, 40]], { about: 'rough-work' });
    await device.finish();
    await app.wired.services.jobs.turn();
    const [script] = (await tableOf(ada!, round)).scripts;
    const shown = showRoughWork ? { text: 'first a plan', drawing: [[1, 2, 30, 40]] } : null;
    expect(script!.roughWork).toEqual(shown);
  });

  it('shows nothing of what was observed: how an answer came about is no matter of marking', async () => {
    const round = newRound();
    const device = await app.sitting(app.invite(round));
    device.write(TARGET, bestOf(KIND));
    await device.finish();
    const { db } = app.wired.services;
    const { id } = db.query.sittings.findMany().sync().at(-1)!;
    observe(db, id, { kind: 'reload', from: 5, to: 5, facts: {} });
    await app.wired.services.jobs.turn();
    const [script] = (await tableOf(ada!, round)).scripts;
    expect(JSON.stringify(script)).not.toContain('reload');
  });

  it('is not there for a question that the machine marks, nor for a round that is none', async () => {
    const round = newRound();
    await handIn(round);
    expect((await ada!.get(`/marking/piles/${round}/the-choice/A`)).status).toBe(404);
    expect((await ada!.get(`/marking/piles/9999/${TARGET}`)).status).toBe(404);
  });
});

describe('a mark', () => {
  it('is one for each criterion, and stands beside the one before it', async () => {
    const round = newRound();
    await handIn(round);
    const on = await tableOf(ada!, round);
    const { task } = on.scripts[0]!;
    const before = given().length;
    await mark(ada!, task, lowest(on), 'at first');
    await mark(ada!, task, highest(on), 'on reflection');
    const both = given().slice(before);
    const count = componentsOn(on).length;
    expect(both.map((m) => m.component)).toEqual(
      [...componentsOn(on), ...componentsOn(on)].map((c) => c.key),
    );
    expect(both.slice(count).map((m) => m.supersedes)).toEqual(both.slice(0, count).map((m) => m.id));
    expect(sumMarks(both.slice(0, count).map((m) => m.hundredths))).toBe(totalOn(on, 0));
    expect(sumMarks(both.slice(count).map((m) => m.hundredths))).toBe(totalOn(on, -1));
    const { db } = app.wired.services;
    const said = db
      .select()
      .from(judgements)
      .all()
      .filter((one) => both.some((m) => m.judgementId === one.id));
    expect(said.map((one) => one.comment)).toEqual(['at first', 'on reflection']);
  });

  it.each([
    ['no level for a criterion', () => ({})],
    ['a level that there is not', (b: MarkingTableData) => ({ ...lowest(b), [componentsOn(b)[0]!.key]: 8 })],
    ['a criterion that there is not', (b: MarkingTableData) => ({ ...lowest(b), z: 0 })],
    [
      'a level that is no number',
      (b: MarkingTableData) => ({ ...lowest(b), [componentsOn(b)[0]!.key]: 'top' }),
    ],
  ])('is refused with %s, and nothing is kept', async (_, levels) => {
    const round = newRound();
    await handIn(round);
    const on = await tableOf(ada!, round);
    const before = given().length;
    const refused = await mark(ada!, on.scripts[0]!.task, levels(on));
    expect([refused.status, refused.body.code]).toEqual([400, 'malformed']);
    expect(given()).toHaveLength(before);
    expect((await tableOf(ada!, round)).left).toBe(1);
  });
});

/** Why the marks of a round cannot be signed off, with how many. */
const reasonsAgainst = async (round: number) =>
  (await lead!.post<Refusal>(`/marking/rounds/${round}/sign-off`)).body.reasons.map(({ code, values }) => [
    code.replace('error.', ''),
    values?.count,
  ]);

describe('the sign-off', () => {
  const state = async (round: number) =>
    (await lead!.get<SignOffState[]>('/marking/rounds')).body.find((r) => r.round === round)!;

  it('waits for those who write, for what is unmarked, and for anybody at all', async () => {
    const round = newRound();
    const refusal = () => reasonsAgainst(round);
    expect(await refusal()).toEqual([['openNothing', 1]]);
    await handIn(round);
    const writing = await app.sitting(app.invite(round));
    expect(await refusal()).toEqual([
      ['openRunning', 1],
      ['openMarking', 1],
    ]);
    await writing.finish();
    expect(await refusal()).toContainEqual(['openScoring', 1]);
    expect(await state(round)).toMatchObject({ handedIn: 2, running: 0, beingScored: 1, unmarked: 1 });
  });

  it('is done once, by a lead alone, and is on record', async () => {
    const round = newRound();
    await handIn(round);
    const on = await tableOf(ada!, round);
    await mark(ada!, on.scripts[0]!.task, lowest(on));
    expect((await ada!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(403);
    const acts = () =>
      app.wired.services.db
        .select()
        .from(audit)
        .all()
        .filter((a) => a.act === 'signed-off' && a.subject === `round ${round}`).length;
    await lead!.post(`/marking/rounds/${round}/sign-off`);
    const { signedOffAt } = await state(round);
    app.clock.advance(1000);
    await lead!.post(`/marking/rounds/${round}/sign-off`);
    expect([(await state(round)).signedOffAt, acts()]).toEqual([signedOffAt, 1]);
    expect(
      (await ada!.get<Page<MarkingPile>>('/marking/piles')).body.rows.some((p) => p.round === round),
    ).toBe(false);
  });

  it('tells the mean of what was given beside what there is to give', async () => {
    const round = newRound();
    await handIn(round);
    await handIn(round);
    const on = await tableOf(ada!, round);
    await mark(ada!, on.scripts[0]!.task, lowest(on));
    await mark(ada!, on.scripts[1]!.task, highest(on));
    const mean = (totalOn(on, 0) + totalOn(on, -1)) / 2;
    const { piles } = await state(round);
    expect(piles.find(({ title }) => title === on.title)).toMatchObject({ marked: 2, left: 0, mean });
  });
});

describe('a script that changes after it was marked', () => {
  it('is marked again only where it has changed; each mark names the one that it supersedes', async () => {
    const round = newRound();
    const device = await app.sitting(app.invite(round));
    const { services, sittings: operations } = app.wired;
    device.write(TARGET, bestOf(KIND));
    device.write('the-number/A', { version: 1, response: { typed: '1' } });
    device.write('the-code/A', bestOf('code'));
    await device.finish();
    await services.jobs.turn();
    const on = await tableOf(ada!, round);
    await mark(ada!, on.scripts[0]!.task, lowest(on));
    const id = services.db
      .select()
      .from(sittings)
      .all()
      .find((s) => s.deviceName === device.opened.sitting)!.id;
    const own = eq(marks.sittingId, id);
    const marksOf = () => services.db.select().from(marks).where(own).orderBy(marks.id).all();
    const before = marksOf();
    expect(before.every((m) => m.supersedes === null)).toBe(true);
    // A coordinator's decision takes the number back: the note and the program stay as they were marked.
    const gone = and(eq(currentAnswers.sittingId, id), eq(currentAnswers.target, 'the-number/A'));
    services.db.delete(currentAnswers).where(gone).run();
    makeReceipt(services.db, id, { at: app.clock.now(), reason: 'decision' });
    services.db.update(sittings).set({ scoredAt: null }).where(eq(sittings.id, id)).run();
    const run = vi.spyOn(services.sandbox, 'run');
    await scoreSitting(services, id, { last: false });
    // What the program did was kept as evidence: it does not run again.
    expect(run).not.toHaveBeenCalled();
    run.mockRestore();
    const after = marksOf().slice(before.length);
    expect(after.map((m) => [m.target, m.cause, m.hundredths])).toEqual([
      ['the-number/A', 'response changed', 0],
    ]);
    expect(after[0]!.supersedes).toBe(before.find((m) => m.target === 'the-number/A')!.id);
    expect((await tableOf(ada!, round)).left).toBe(0);
    expect(operations.holds.of(id)).toHaveLength(1);
  });
});

describe('staff of a round', () => {
  it('mark, watch and sign off only where they have the role', async () => {
    const round = newRound();
    await handIn(round);
    const { db } = app.wired.services;
    expect((await lead!.get(`/marking/piles/${round}/${TARGET}`)).status).toBe(200);
    db.delete(roundStaff).where(eq(roundStaff.roundId, round)).run();
    expect(
      (await ada!.get<Page<MarkingPile>>('/marking/piles')).body.rows.some((p) => p.round === round),
    ).toBe(false);
    expect((await ada!.get(`/marking/piles/${round}/${TARGET}`)).status).toBe(403);
    expect((await lead!.post(`/marking/rounds/${round}/sign-off`)).status).toBe(403);
  });
});

describe('what the machine cannot score', () => {
  const totalIn = async (round: number) => {
    const coordinator = app.staff('coordinator');
    const { body } = await coordinator.get<{ rows: { total: number | null }[] }>(
      `/rounds/${round}/candidates`,
    );
    return body.rows[0]!.total;
  };
  const pile = async (round: number, kind: KindName) =>
    (await ada!.get<MarkingTableData>(`/marking/piles/${round}/the-${kind}/A`)).body;

  it('is one component for people, with the error on record; the rest is scored', async () => {
    const { services } = app.wired;
    const score = services.scorer.score.bind(services.scorer);
    const broken = vi.spyOn(services.scorer, 'score').mockImplementation(async (parts) => {
      const found = new Map(await score(parts));
      if (found.has('the-gaps/A'))
        found.set('the-gaps/A', { failure: 'took too long', trouble: 'more than 5000 ms' });
      return found;
    });
    const round = newRound();
    await handIn(round, ['gaps', 'choice']);
    broken.mockRestore();
    expect(await reasonsAgainst(round)).toContainEqual(['openMarking', 1]);
    const on = await pile(round, 'gaps');
    expect(on.scripts[0]!.components).toMatchObject([{ key: 'by-hand', of: on.marks, by: 'people' }]);
    const { task } = on.scripts[0]!;
    expect((await mark(ada!, task, { 'by-hand': on.marks + 1 })).status).toBe(400);
    expect(await totalIn(round)).toBeNull();
    expect((await mark(ada!, task, { 'by-hand': 150 })).status).toBe(200);
    expect(await totalIn(round)).toBe(150 + sampleOf('choice').marks);
    const kept = services.db.select().from(markingTasks).where(eq(markingTasks.id, task)).get()!;
    expect([kept.failure, kept.trouble]).toEqual(['took too long', 'more than 5000 ms']);
  });

  it('is a cell alone where it cannot be read: people see that one, the other cells are scored', async () => {
    const { services } = app.wired;
    const round = newRound();
    const device = await app.sitting(app.invite(round));
    const best = bestOf('table-entry') as { response: { cells: Record<string, string> } };
    const cells = { ...best.response.cells, sowing_out: 'a hundred and twenty' };
    device.write('the-table-entry/A', { ...best, response: { cells } });
    await device.finish();
    await services.jobs.turn();
    expect(await reasonsAgainst(round)).toContainEqual(['openMarking', 1]);
    const on = await pile(round, 'table-entry');
    const [script] = on.scripts;
    // A quarter of 402 hundredths, by largest remainder.
    expect(script!.components).toMatchObject([
      { key: 'sowing_out', of: 101, by: 'people', criterion: { levels: null } },
    ]);
    expect(script!.credits.map((credit) => [credit.component, credit.verdict])).toEqual([
      ['sowing_held', 'right'],
      ['gift_in', 'right'],
      ['gift_held', 'right'],
    ]);
    expect(script!.right).not.toBeNull();
    expect(await totalIn(round)).toBeNull();
    expect((await mark(ada!, script!.task, { sowing_out: 102 })).status).toBe(400);
    expect((await mark(ada!, script!.task, { sowing_out: 101 })).status).toBe(200);
    expect(await totalIn(round)).toBe(402);
  });

  it('waits where the disk is full: the program is scored when there is room again, and once', async () => {
    const { services } = app.wired;
    const [run, commit] = [
      services.sandbox.run.bind(services.sandbox),
      services.commits.run.bind(services.commits),
    ];
    let full = false;
    const running = vi.spyOn(services.sandbox, 'run').mockImplementation(async (program, owner) => {
      const outcomes = await run(program, owner);
      full = true;
      return outcomes;
    });
    const committing = vi
      .spyOn(services.commits, 'run')
      .mockImplementation((work) =>
        full ? Promise.reject(Object.assign(new Error('full'), { code: 'SQLITE_FULL' })) : commit(work),
      );
    const round = newRound();
    await handIn(round, ['code']);
    expect([running.mock.calls.length, await totalIn(round)]).toEqual([1, null]);
    running.mockRestore();
    committing.mockRestore();
    app.clock.advance(60_000);
    await services.jobs.turn();
    expect(await totalIn(round)).toBe(sampleOf('code').marks);
    expect(services.jobs.failed()).toEqual([]);
  });

  it('for want of evidence goes to people when the job has failed for the fifth time; the other parts do not wait', async () => {
    const { services } = app.wired;
    const run = vi.spyOn(services.sandbox, 'run').mockRejectedValue(new Error('no sandbox to be had'));
    const round = newRound();
    await handIn(round, ['code', 'choice']);
    expect(await reasonsAgainst(round)).toContainEqual(['openScoring', 1]);
    const choiceOf = () =>
      services.db
        .select()
        .from(marks)
        .innerJoin(sittings, eq(sittings.id, marks.sittingId))
        .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
        .where(and(eq(invitations.roundId, round), eq(marks.target, 'the-choice/A')))
        .all();
    expect(choiceOf()).toHaveLength(1);
    for (let n = 2; n <= 5; n++) {
      expect((await ada!.get(`/marking/piles/${round}/the-code/A`)).status).toBe(404);
      app.clock.advance(30_000);
      await services.jobs.turn();
    }
    run.mockRestore();
    // Staff see that something is wrong, and may have it run again, which takes the part from the pile.
    const [failed] = services.jobs.failed();
    expect(failed).toMatchObject({ kind: 'score', trouble: expect.stringContaining('no sandbox') as string });
    const on = await pile(round, 'code');
    expect((await mark(ada!, on.scripts[0]!.task, { 'by-hand': on.marks })).status).toBe(200);
    expect(choiceOf()).toHaveLength(1);
    expect(await totalIn(round)).toBe(on.marks + sampleOf('choice').marks);
    services.jobs.runAgain(failed!.id);
    await services.jobs.turn();
    expect(services.jobs.failed()).toEqual([]);
  });

  it('is had once the machine is well again and staff have the job run again: the part leaves the pile', async () => {
    const { services } = app.wired;
    const run = vi.spyOn(services.sandbox, 'run').mockRejectedValue(new Error('no sandbox to be had'));
    const round = newRound();
    await handIn(round, ['code']);
    for (let n = 2; n <= 5; n++) {
      app.clock.advance(30_000);
      await services.jobs.turn();
    }
    run.mockRestore();
    const [script] = (await pile(round, 'code')).scripts;
    const path = `/marking/tasks/${script!.task}`;
    const evidence = async () => (await ada!.get<{ found: unknown }>(`${path}/evidence`)).body.found;
    expect(await evidence()).toBeNull();
    // Whoever marks it runs it with an input of their own, which changes nothing.
    const again = await ada!.post(`${path}/run`, { input: '9007199254740993' });
    expect(again.body).toMatchObject({ outcomes: [{ value: ['i', '18014398509481986'] }] });
    for (const asked of [{ input: '"x"' }, { case: 'no-such' }, {}, { input: '1', case: 'h1' }])
      expect((await ada!.post(`${path}/run`, asked)).status, JSON.stringify(asked)).toBe(400);
    const hidden = await ada!.post(`${path}/run`, { case: 'h1' });
    expect(hidden.body).toMatchObject({ outcomes: [{ value: ['i', '62674'] }] });
    // An assessor of another script, and who watches, learn nothing of it.
    for (const client of [app.staff('assessor'), app.staff('coordinator')])
      for (const answer of [
        await client.get(`${path}/evidence`),
        await client.post(`${path}/run`, { input: '1' }),
      ])
        expect([403, 404]).toContain(answer.status);
    services.jobs.runAgain(services.jobs.failed()[0]!.id);
    await services.jobs.turn();
    expect([await totalIn(round), services.jobs.failed()]).toEqual([sampleOf('code').marks, []]);
    expect(await evidence()).toMatchObject([
      { title: 'hidden one', hidden: true, verdict: 'accepted', expected: ['i', '62674'] },
      { title: 'hidden two', verdict: 'accepted' },
    ]);
    const { body: table } = await lead!.get<AnswerTable>(`/rounds/${round}/answers/the-code/A`);
    expect(table.answers).toContainEqual(
      expect.objectContaining({ type: 'outcome', of: 'hidden one', answer: '62674', right: true, count: 1 }),
    );
  });
});
