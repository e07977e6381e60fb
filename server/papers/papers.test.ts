import type { Page } from '../../core/lists/list';
import type { Refusal } from '../testing/ApiClient';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ArrivalView } from '../../core/arrival/api';
import type { RoundRow } from '../../core/rounds/api';
import { items, itemVersions } from '../db/schema';
import { samplePaper } from '../testing/samplePaper';
import { serve, type Served } from '../testing/serve';
import { forgetPapers, publishPaper } from './papers';

let app: Served;
beforeAll(async () => {
  app = await serve();
});
afterAll(() => app.close());

const withPart = (change: object, version: number) => {
  const paper = samplePaper();
  const bank = paper.bank.map((item) =>
    item.key === 'the-choice' ? { ...item, parts: [{ ...item.parts[0]!, ...change }] } : item,
  );
  return { ...paper, version, bank } as ReturnType<typeof samplePaper>;
};

describe('a paper', () => {
  it.each([
    ['of an unknown kind', { kind: 'juggling' }, 'paper-unreadable'],
    ['of a newer version', { version: 9 }, 'paper-unreadable'],
    ['that is misshapen', { content: { asked: {}, key: {} } }, 'paper-unreadable'],
    ['whose key is of another question', { marks: 0 }, 'paper-unreadable'],
  ])('with a part %s is not published', (_, change, code) => {
    const publish = () => publishPaper(app.wired.services.db, withPart(change, 7));
    expect(publish).toThrow(expect.objectContaining({ code }) as Error);
  });

  it('with a key that contradicts its question is not published, and says where', () => {
    const [part] = samplePaper().bank.find((item) => item.key === 'the-choice')!.parts;
    const content = { ...part!.content, key: { right: ['samphire'] } };
    const publish = () => publishPaper(app.wired.services.db, withPart({ content }, 8));
    const path = ['bank', 0, 'parts', 0, 'content', 'key', 'right'];
    expect(publish).toThrow(
      expect.objectContaining({
        code: 'unreadable',
        body: expect.objectContaining({
          details: [{ path, message: { code: 'choice.rightMissing' } }],
        }) as unknown,
      }) as Error,
    );
  });

  it('that this program cannot read does not start, and says so; every other goes on', async () => {
    const { db } = app.wired.services;
    const [bank] = [samplePaper().bank.map((item) => ({ ...item, version: 2 }))];
    const sections = samplePaper().sections.map((s) => ({
      ...s,
      items: s.items.map((item) => ({ ...item, version: 2 })),
    }));
    const broken = app.addRound({ ...samplePaper(), version: 20, bank, sections });
    const well = app.addRound({ ...samplePaper(), version: 21 });
    const [lost, other] = [app.invite(broken), app.invite(well)];
    const atCover = await app.atCover(lost);
    // As it would be after going back to an older program: a question of a kind from the future.
    const { id } = db.select().from(items).where(eq(items.key, 'the-choice')).get()!;
    const row = db.select().from(itemVersions).where(eq(itemVersions.itemId, id)).all().at(-1)!;
    const document = JSON.parse(
      JSON.stringify(row.document).replace('"choice"', '"juggling"'),
    ) as typeof row.document;
    db.update(itemVersions).set({ document }).where(eq(itemVersions.id, row.id)).run();
    forgetPapers(db);
    for (const refused of [
      await atCover.get<Refusal>('/arrival'),
      await atCover.post<Refusal>('/sitting/prepare'),
    ])
      expect([refused.status, refused.body.code]).toEqual([409, 'paper-unreadable']);
    const device = await app.sitting(other);
    expect((await device.client.get<ArrivalView>('/arrival')).body.stage.at).toBe('running');
    const coordinator = app.staff('coordinator');
    const list = (await coordinator.get<Page<RoundRow>>('/rounds')).body.rows;
    expect(list.map((r) => r.id)).toEqual(expect.arrayContaining([broken, well]));
    expect((await coordinator.get(`/rounds/${well}`)).status).toBe(200);
    const lead = app.staff('lead');
    expect((await lead.get('/marking/rounds')).status).toBe(200);
  });
});
