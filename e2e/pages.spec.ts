import { createHash } from 'node:crypto';
import type { Page as Tab } from '@playwright/test';
import type { Page } from '../core/files/pages';
import { hasNoBarriers } from './barriers';
import { pageFile } from './pageFiles';
import { codeOf, photographs } from './people/phone';
import { expect, RUNA, test } from './testApp';

test.use({ serviceWorkers: 'allow' });

/** A line that can be cut in the middle of a page: when its second part goes out. */
async function cuttable(phone: Tab): Promise<{ cutInNextPage: () => void }> {
  let armed = false;
  await phone.route('**/api/phone/pages/*/*/*', async (route) => {
    const inTheMiddle = !route.request().url().endsWith('/0');
    if (!armed || !inTheMiddle) return route.continue();
    armed = false;
    await phone.context().setOffline(true);
    await route.abort();
  });
  return { cutInNextPage: () => (armed = true) };
}

const sha256 = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

test('six pages by a phone on a line that is cut twice, one by the desk, handed in offline: all is delivered', async ({
  page: desk,
  app,
  candidate,
  staff,
  browser,
}) => {
  const runa = candidate(desk, RUNA);
  await runa.arrives();
  await runa.goesTo(17);
  await hasNoBarriers(desk, 'a question that takes pages, empty');
  const address = await codeOf(desk);
  await hasNoBarriers(desk, 'a code for a phone');

  const phone = await (
    await browser.newContext({ viewport: { width: 360, height: 740 }, hasTouch: true })
  ).newPage();
  const announced: Page[] = [];
  phone.on('request', (request) => {
    if (request.method() === 'POST' && request.url().endsWith('/phone/pages'))
      announced.push(request.postDataJSON() as Page);
  });
  const line = await cuttable(phone);
  await phone.goto(address);
  await expect(phone.getByRole('heading', { name: 'Photograph your working' })).toBeVisible();
  await expect(desk.getByText('A phone is connected.')).toBeVisible();
  await photographs(phone, 1);
  await expect(phone.getByText('sent', { exact: true })).toHaveCount(1);
  await hasNoBarriers(phone, 'a phone that has sent a page');
  // The first cut: what was photographed meanwhile is kept, and sent when the line is back.
  line.cutInNextPage();
  await photographs(phone, 2);
  await photographs(phone, 3);
  await expect(phone.getByText('waits for the connection')).toHaveCount(2);
  await phone.context().setOffline(false);
  await photographs(phone, 4);
  await photographs(phone, 5);
  await expect(phone.getByText('sent', { exact: true })).toHaveCount(5);
  const saved = desk.getByText('saved', { exact: true });
  await expect(saved).toHaveCount(5);
  // The desk puts them in another order, and turns one; a reload changes nothing.
  await desk.getByRole('button', { name: 'Move page 2 earlier' }).click();
  await desk.getByRole('button', { name: 'Turn page 1' }).click();
  await runa.isSaved();
  await desk.reload();
  await expect(saved).toHaveCount(5);

  // The second cut, in the middle of the sixth page: the server has heard of it, and the desk knows.
  line.cutInNextPage();
  await photographs(phone, 6);
  await expect(desk.getByRole('listitem', { name: 'Page 6' })).toContainText('being sent from the phone');
  await desk.context().setOffline(true);
  await desk.getByLabel('Choose files').setInputFiles(await pageFile(7));
  await expect(desk.getByText('saved on this device, waiting for the connection')).toBeVisible();
  await desk.keyboard.press('F9');
  await desk.getByRole('button', { name: 'Hand in my paper' }).click();
  await desk.getByRole('alertdialog').getByRole('button', { name: 'Hand in my paper' }).click();
  await expect(runa.heading('Your paper is handed in on this device')).toBeVisible();
  // The hand-in goes at once; the bytes of the page follow when they can, in plain sight.
  let letThrough = () => {};
  const slow = new Promise<void>((go) => (letThrough = go));
  await desk.route('**/api/sitting/*/pages/**', (route) => slow.then(() => route.continue()));
  await desk.context().setOffline(false);
  await expect(runa.heading('Your paper is handed in')).toBeVisible({ timeout: 30_000 });
  await expect(desk.getByText('1 page of your answers is still being sent.')).toBeVisible();
  letThrough();
  await expect(desk.getByText('All pages of your answers have arrived.')).toBeVisible({ timeout: 30_000 });
  // The phone is joined no longer, and still delivers what it had announced.
  await phone.context().setOffline(false);
  await expect(phone.getByRole('heading', { name: 'This phone is no longer connected' })).toBeVisible();
  await expect(phone.getByText(/still being sent/)).toBeHidden({ timeout: 30_000 });

  const rows = app.rows<{ hash: string; state: string; late: number }>('select hash, state, late from pages');
  expect(rows.filter((row) => row.state === 'here' && row.late === 0)).toHaveLength(7);
  // What the device hashed is what was handed in, and what is kept.
  expect(announced).toHaveLength(6);
  const [answer] = app.rows<{ value: string }>("select value from current_answers where about = 'answer'");
  const handedIn = (JSON.parse(answer!.value) as { response: { pages: Page[] } }).response.pages;
  expect(
    handedIn
      .map((one) => one.hash)
      .slice(0, 6)
      .sort(),
  ).toEqual(announced.map((one) => one.hash).sort());
  expect([handedIn[0]!.hash, handedIn[0]!.turn]).toEqual([announced[1]!.hash, 90]);
  for (const { hash } of handedIn) expect(sha256(app.keptFile(hash))).toBe(hash);

  await app.doJobs();
  const assessor = await staff(await (await browser.newContext()).newPage(), 'assessor');
  await assessor.opensPile('Mark item 17');
  for (let number = 1; number <= 7; number++)
    await expect(assessor.page.getByRole('img', { name: `Page ${number}`, exact: true })).toBeVisible();
});
