import { SMALL_PICTURE } from '../core/testing/smallPicture';
import type { Page } from '@playwright/test';
import type { ArrivalView } from '../core/arrival/api';
import { pseudo } from '../core/messages/pseudo';
import { staffMembers } from '../demo/people';
import { dataOf, englishLeft } from './englishLeft';
import { CORIN, expect, ILSE, test, TOVE } from './testApp';

/** A page whose texts are all accented, longer and in brackets. */
async function accentedPage(page: Page): Promise<void> {
  await page.addInitScript(() => localStorage.setItem('language', 'en-XA'));
}

test('in the pseudo-locale no English of ours is left, from the link to the sign-off', async ({
  browser,
  page,
  app,
}) => {
  await accentedPage(page);
  const data = dataOf(app);
  const reads = async (where: string, of = page) => {
    await expect(of.locator('body'), where).toContainText('⟦');
    // Told all at once, not one a run.
    const left = expect.configure({ soft: true });
    await left.poll(() => englishLeft(of, data), { message: where, timeout: 5000 }).toEqual([]);
  };
  const press = (words: string, of = page) =>
    of
      .getByRole('button', { name: pseudo(words) })
      .filter({ visible: true })
      .first()
      .click();

  await page.goto('/');
  await reads('the first page');
  await page.goto('/no-such-page');
  await reads('a page that is not there');
  await page.goto(app.linkOf(TOVE));
  await reads('before the window');
  await page.goto('/i/no-such-link');
  await reads('a wrong link');

  const link = app.linkOf(ILSE);
  const { request } = page;
  await page.goto(link);
  await reads('details');
  const view = (await (await request.get('/api/arrival')).json()) as ArrivalView;
  const steps = {
    details: { correction: null },
    checks: {
      results: view.checks.demanded.map((name) => ({ name, outcome: 'good', facts: {} })),
      goOn: true,
    },
  };
  for (const [step, data] of Object.entries(steps)) {
    await request.post(`/api/arrival/${step}`, { data });
    await page.goto(link);
    await reads(`after ${step}`);
  }
  const picture = Buffer.from(SMALL_PICTURE, 'base64');
  await request.put('/api/arrival/picture/person', {
    data: picture,
    headers: { 'Content-Type': 'image/jpeg' },
  });
  await page.goto(link);
  await reads('rules');
  const accepted = view.rules.statements.map(({ key }) => key);
  await request.post('/api/arrival/rules', { data: { version: view.rules.version, accepted } });
  await page.goto(link);
  await reads('cover');
  await press('Start – the clock begins');
  await expect(page.getByRole('timer')).toBeVisible();
  for (let question = 1; question <= 10; question += 1) {
    await page
      .getByRole('navigation')
      .getByRole('button')
      .nth(question - 1)
      .click();
    await reads(`question ${question}`);
  }
  await page.keyboard.press('?');
  await reads('the keys');
  await page.keyboard.press('Escape');
  await page.getByRole('navigation').getByRole('button').first().click();
  await page.getByRole('radio').first().check({ force: true });
  await press('Raise a hand');
  await reads('raise a hand');
  await page.keyboard.press('Escape');
  await press('Last look');
  await reads('last look');
  await press('Hand in my paper');
  await reads('the question before the hand-in');
  await page
    .getByRole('alertdialog')
    .getByRole('button', { name: pseudo('Hand in my paper') })
    .click();
  await expect(page.locator('p.font-mono')).toBeVisible();
  await reads('the receipt');
  await app.doJobs();

  const office = await (await browser.newContext({ baseURL: app.url, locale: 'en-GB' })).newPage();
  await accentedPage(office);
  const signsIn = async (role: string) => {
    const { email, password } = staffMembers.find((member) => member.roles[0] === role)!;
    await office.context().clearCookies();
    const answer = await office.request.post('/api/sign-in', { data: { email, password } });
    expect(answer.ok()).toBe(true);
  };
  const visits = async (...paths: string[]) => {
    for (const path of paths) {
      await office.goto(path);
      await reads(path, office);
    }
  };
  await visits('/sign-in');
  await signsIn('coordinator');
  const [round] = app.rows<{ id: number; paper: number }>(
    "select id, paper_version_id as paper from rounds where key = 'technician-november'",
  );
  await visits('/staff', '/staff/rounds', `/staff/rounds/${round!.id}`, `/staff/papers/${round!.paper}`);
  await visits(
    '/staff/papers',
    '/staff/papers/import',
    '/staff/rounds/new',
    `/staff/rounds/${round!.id}/people`,
  );
  const [letter] = app.rows<{ id: number }>('select max(id) as id from letters');
  await visits('/staff/outbox', '/staff/account', '/staff/accounts');
  for (const id of [letter!.id, 1]) {
    await office.goto(`/staff/outbox?letter=${id}`);
    await expect(office.locator('pre')).toBeVisible();
    await reads(`letter ${id}`, office);
  }
  await office.goto(`/staff/rounds/${round!.id}`);
  await press('Invite a candidate', office);
  await reads('inviting', office);
  await signsIn('invigilator');
  await visits('/staff/watch', `/staff/watch/${round!.id}`);
  await signsIn('assessor');
  await visits('/staff/marking', `/staff/marking/${round!.id}/days-to-half/A`);
  await signsIn('lead');
  await visits(
    '/staff/sign-off',
    `/staff/rounds/${round!.id}/answers/tray-14/C`,
    `/staff/quality/${round!.id}/days-to-half/A`,
    '/staff/results',
    `/staff/results/${round!.id}`,
  );

  await page.goto(app.linkOf(CORIN));
  await reads('another candidate');
  await page.goto(`${app.linkOf(CORIN)}/rehearsal`);
  await reads('the rehearsal');
});
