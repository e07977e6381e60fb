import { hasNoBarriers } from './barriers';
import { ForgedClient } from './people/ForgedClient';
import { expect, ILSE, MATTIS, test } from './testApp';

test.use({ serviceWorkers: 'allow' });

const ROUND = 'Technician, November';

test('a pause: who writes nothing in it has one version, a forged client two, and the coordinator chooses', async ({
  page,
  app,
  candidate,
  staff,
  browser,
}) => {
  const office = await browser.newContext();
  const bram = await staff(await office.newPage(), 'invigilator');
  await bram.watches(ROUND);
  const mattis = candidate(page, MATTIS);
  await mattis.arrives();
  await mattis.goesTo(3);
  await mattis.entersFigure('-19');
  await mattis.isSaved();
  await bram.does('Pause', 'Mattis Okafor-Lind', 'The hall is cleared');
  await expect(mattis.heading('Your test is paused')).toBeVisible();
  await app.advance(3);
  await bram.does('Continue', 'Mattis Okafor-Lind', 'Everybody is back');
  await expect(mattis.heading('Question 3')).toBeVisible();
  await mattis.entersFigure('-20');
  await mattis.isSaved();
  await mattis.handsIn();
  expect(app.rows('select 1 from decisions')).toEqual([]);

  const other = await browser.newContext();
  const ilse = candidate(await other.newPage(), ILSE);
  await ilse.arrives();
  await ilse.goesTo(3);
  await ilse.entersFigure('-19');
  await ilse.isSaved();
  const desk = ilse.page;
  const forgery = await other.newPage();
  await desk.close();
  const forged = new ForgedClient(forgery, app);
  const typed = (text: string, at = 0) => ({
    about: 'answer' as const,
    target: 'reading-the-dial/A',
    at,
    value: { version: 1, response: { typed: text } },
  });
  await forged.says([]);
  await bram.does('Pause', 'Ilse Brandvold', 'The hall is cleared');
  await app.advance(1);
  // It claims to have written long before the pause.
  await forged.says([typed('-25')]);
  await bram.does('Continue', 'Ilse Brandvold', 'Everybody is back');
  await forged.says([]);
  await forged.says([]);
  const claimedAt = Date.now();
  await forged.says([typed('-26', 1)], 'hand-in', { by: 'candidate', claimedAt });
  await forged.says([]);

  const coordinator = await staff(await (await browser.newContext()).newPage(), 'coordinator');
  await coordinator.opensRound(ROUND);
  const decision = coordinator.page
    .getByRole('heading', { name: /Written while the clock was stopped · Ilse/ })
    .locator('..');
  await expect(decision).toContainText('-19');
  await expect(decision).toContainText('-26');
  await hasNoBarriers(coordinator.page, 'a decision');
  const marked = () => app.rows("select 1 from marks where target = 'reading-the-dial/A'");
  // Nothing of hers is marked before it is decided.
  const before = marked().length;
  await decision.getByLabel('Reason (kept on record)').fill('Nobody may write in a pause');
  await decision.getByRole('button', { name: 'Mark it without that writing' }).click();
  await expect(decision).toBeHidden();
  await app.doJobs();
  expect(marked()).toHaveLength(before + 1);
  const [mark] = app.rows<{ hundredths: number }>(
    "select hundredths from marks where target = 'reading-the-dial/A' order by id desc limit 1",
  );
  expect(mark!.hundredths).toBe(200);
  const reasons = app.rows<{ reason: string }>('select reason from receipts order by id');
  expect(reasons.map((row) => row.reason)).toEqual(['handed in', 'handed in', 'decision']);
});

test('earlier versions: an essay is brought back, and one from another device can be chosen', async ({
  page,
  app,
  candidate,
  browser,
}) => {
  const ilse = candidate(page, ILSE);
  await ilse.arrives();
  await ilse.goesTo(8);
  await ilse.writes('The first draft of the note. ');
  await ilse.isSaved();
  await app.advance(1);
  // The device learns of the minute that has passed.
  await page.reload();
  await expect(ilse.heading('Question 8')).toBeVisible();
  const sheet = page.getByRole('main').getByRole('textbox');
  await sheet.press('Control+A');
  await page.keyboard.type('Something else altogether.');
  await ilse.isSaved();
  await page.getByRole('button', { name: 'Earlier versions' }).click();
  const dialog = page.getByRole('dialog', { name: 'Earlier versions of your answer' });
  await expect(dialog.getByRole('listitem')).toHaveCount(2);
  await expect(dialog.getByRole('group', { name: /^Saved/ })).toContainText('The first draft of the note.');
  await hasNoBarriers(page, 'earlier versions');
  await dialog.getByRole('button', { name: 'Restore this version' }).click();
  await expect(sheet).toContainText('The first draft of the note.');
  await ilse.isSaved();

  // This device goes on without a network; another takes over and writes the same note.
  await page.context().setOffline(true);
  await sheet.press('End');
  await page.keyboard.type('Written offline.');
  await expect(page.locator('[data-saved="kept"]')).toBeVisible();
  const tablet = await browser.newContext();
  const again = candidate(await tablet.newPage(), ILSE);
  await again.opensLink();
  await again.page.getByRole('button', { name: 'Continue here' }).click();
  await again.goesTo(8);
  const second = again.page.getByRole('main').getByRole('textbox');
  await expect(second).toContainText('The first draft of the note.');
  await expect(second).not.toContainText('Written offline.');
  await second.press('End');
  await again.page.keyboard.type('On the tablet.');
  await again.isSaved();
  await page.context().setOffline(false);
  await expect(ilse.heading('Your test is open in another window or device')).toBeVisible();
  // The later hold wins; the other version is offered, not lost.
  await expect(second).toContainText('On the tablet.');
  await again.page.getByRole('button', { name: 'Compare the versions' }).click();
  const compare = again.page.getByRole('dialog', { name: 'Earlier versions of your answer' });
  await compare
    .getByRole('button', { name: /from another device or window/ })
    .first()
    .click();
  await expect(compare.getByRole('group', { name: /^Saved/ })).toContainText('Written offline.');
  await compare.getByRole('button', { name: 'Restore this version' }).click();
  await expect(second).toContainText('Written offline.');
  await again.isSaved();
  const [current] = app.rows<{ value: string }>(
    "select value from current_answers where about = 'answer' and target = 'incident-note/A'",
  );
  expect(current!.value).toContain('Written offline.');
});
