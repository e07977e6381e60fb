import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { expect, it } from 'vitest';
import type { ArrivalView } from '../core/arrival/api';
import type { DemoPage } from '../core/demo/api';
import { demoPage } from './page';
import { readConfig } from '../server/config';
import { rounds, staff } from '../server/db/schema';
import { ApiClient } from '../server/testing/ApiClient';
import { samplePaper } from '../server/testing/samplePaper';
import { serve } from '../server/testing/serve';

const file = path.join(mkdtempSync(path.join(tmpdir(), 'clear-sitting-demo-')), 'people.json');
writeFileSync(file, JSON.stringify(demoPage));

it('the front page of the demo opens a link or signs in, for the people whom it names alone', async () => {
  const app = await serve({ CLEAR_SITTING_DEMO: file });
  try {
    const { db } = app.wired.services;
    const client = new ApiClient(app.url);
    expect((await client.get<DemoPage>('/demo')).body).toEqual(demoPage);
    const round = app.addRound({ ...samplePaper(), version: 1 });
    const [named] = demoPage.candidates;
    db.update(rounds).set({ key: named!.round }).where(eq(rounds.id, round)).run();
    app.invite(round);
    const other = { email: 'candidate.1@example.org', round: named!.round };
    expect((await client.post('/demo/candidate', other)).status).toBe(404);
    // Named, but not invited here.
    expect((await client.post('/demo/candidate', { email: named!.email, round: named!.round })).status).toBe(
      404,
    );
    db.$client.prepare('update people set email = ?').run(named!.email);
    const { body } = await client.post<{ link: string }>('/demo/candidate', {
      email: named!.email,
      round: named!.round,
    });
    const opened = await client.post<ArrivalView>('/arrival/open', { link: body.link });
    expect(opened.body.stage).toMatchObject({ at: 'arriving' });

    const [member] = demoPage.staff;
    expect((await client.post('/demo/staff', { email: 'boss@example.org' })).status).toBe(404);
    const values = { name: member!.name, roles: [...member!.roles], passwordHash: 'none' };
    db.insert(staff)
      .values([
        { ...values, email: member!.email },
        { ...values, email: 'boss@example.org' },
      ])
      .run();
    expect((await client.post('/demo/staff', { email: 'boss@example.org' })).status).toBe(404);
    expect((await client.get('/rounds')).status).toBe(401);
    expect((await client.post('/demo/staff', { email: member!.email })).status).toBe(200);
    expect((await client.get('/rounds')).status).toBe(200);
  } finally {
    await app.close();
  }
});

it('elsewhere there is no such page, and a server that people reach by https cannot be a demo', async () => {
  const app = await serve();
  try {
    const client = new ApiClient(app.url);
    expect((await client.get('/demo')).body).toBeNull();
    for (const route of ['/demo/candidate', '/demo/staff'])
      expect((await client.post(route, { ...demoPage.candidates[0] })).status).toBe(404);
  } finally {
    await app.close();
  }
  const settings = { CLEAR_SITTING_URL: 'https://tests.example.org', CLEAR_SITTING_DEMO: file };
  expect(() => readConfig(settings)).toThrow('not for a server that people reach by https');
});
