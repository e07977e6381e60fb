import { hasNoBarriers } from './barriers';
import { leftBehind } from './stored';
import { expect, MATTIS, test } from './testApp';

test.use({ serviceWorkers: 'allow' });

test('without a network while typing, a reload in between, then the hand-in with its true time', async ({
  page,
  app,
  candidate,
}) => {
  await page.clock.install();
  const ilse = candidate(page);
  await ilse.arrives();
  await ilse.goesTo(8);
  await ilse.writes('The supply dipped ');
  await ilse.isSaved();
  // With the next question, which asks for a program, came what runs it.
  const keptPython = () =>
    page.evaluate(async () => (await caches.match('/vendor/pyodide/python.snapshot')) !== undefined);
  await expect.poll(keptPython).toBe(true);
  await app.killHard();
  await page.keyboard.type('at 21:40, ');
  const saved = page.locator('[data-saved="kept"]');
  await expect(saved).toContainText('Saved on this device');
  await page.clock.fastForward('02:00');
  await expect(saved).toContainText(/connection lost 1[2-9]\d s ago/);
  await page.reload();
  await expect(ilse.heading('Question 8')).toBeVisible();
  const sheet = page.getByRole('main').getByRole('textbox');
  await expect(sheet).toContainText('The supply dipped at 21:40,');
  await sheet.press('End');
  await page.keyboard.type('and nobody heard the alarm');
  // The last key, and the page is gone in the same moment.
  await page.keyboard.type('.');
  await page.reload();
  await expect(sheet).toContainText('and nobody heard the alarm.');
  await ilse.goesTo(9);
  await ilse.programs('Python', 'def strongest(lots):\n    return ""\n');
  await ilse.triesAllCases();
  await expect(page.getByText('1 of 3 as expected')).toBeVisible();
  await ilse.goesTo(3);
  await ilse.entersFigure('-19');
  await ilse.looksBack();
  await page.getByRole('button', { name: 'Hand in my paper' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Hand in my paper' }).click();
  await expect(ilse.heading('Your paper is handed in on this device')).toBeVisible();
  await hasNoBarriers(page, 'handed in on the device');
  await page.reload();
  await expect(ilse.heading('Your paper is handed in on this device')).toBeVisible();
  // The server is up again some minutes before the device finds its way to it.
  await page.context().setOffline(true);
  await app.start();
  await app.advance(5);
  await page.context().setOffline(false);
  await expect(ilse.heading('Your paper is handed in')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/You handed in on your device at .* without a connection/)).toBeVisible();
  const [last] = app.rows<{ value: string }>(
    "select value from current_answers where target = 'incident-note/A' and about = 'answer'",
  );
  expect(last!.value).toContain('The supply dipped at 21:40, and nobody heard the alarm.');
  expect(app.rows('select 1 from journal where variant > 0')).toEqual([]);
  // Nothing of the paper or of the answers stays behind in this browser.
  await expect.poll(() => leftBehind(page)).toEqual([]);
  await page
    .getByLabel('Receipt code')
    .fill((await page.locator('p.font-mono').textContent())!.toLowerCase());
  await page.getByRole('button', { name: 'Check a code' }).click();
  await expect(page.getByText('exactly those that you handed in')).toBeVisible();
});

test('the deadline without a network: handed in on the device, and a coordinator decides what came late', async ({
  page,
  app,
  candidate,
  staff,
  browser,
}) => {
  await page.clock.install();
  const mattis = candidate(page, MATTIS);
  await mattis.arrives();
  await mattis.chooses('The first leaf');
  await mattis.isSaved();
  await page.context().setOffline(true);
  await mattis.chooses('The young root');
  await expect(page.locator('[data-saved="kept"]')).toBeVisible();
  await page.clock.fastForward('01:01:00');
  await expect(mattis.heading('Your paper is handed in on this device')).toBeVisible();
  // The server’s hour is over too, and the grace: what the device delivers now is for a person to decide.
  await app.advance(70);
  await page.context().setOffline(false);
  await page.clock.fastForward('01:00');
  await expect(mattis.heading('Your paper is handed in')).toBeVisible({ timeout: 60_000 });
  // Nobody is shown a result, and nobody marks, before everything that counts can have come.
  await app.advance(13);
  expect(app.rows("select 1 from decisions where kind = 'late-entries'")).toHaveLength(1);
  const office = await browser.newContext();
  const coordinator = await staff(await office.newPage(), 'coordinator');
  await coordinator.opensRound('Technician, November');
  const late = coordinator.page.getByRole('heading', { name: /Late entries · Mattis/ }).locator('..');
  await expect(late).toContainText('The first leaf');
  await hasNoBarriers(coordinator.page, 'late arrivals');
  await expect(late).toContainText('The young root');
  await late.getByLabel('Reason (kept on record)').fill('The hall had lost its line');
  await late.getByRole('button', { name: 'Count them' }).click();
  await expect(late).toBeHidden();
  await app.doJobs();
  const [mark] = app.rows<{ hundredths: number }>(
    "select hundredths from marks where target = 'parts-of-a-seed/A' order by id desc limit 1",
  );
  expect(mark!.hundredths).toBe(100);
});

test('a second device: told, takes over, and both versions are kept', async ({
  page,
  candidate,
  app,
  browser,
}) => {
  const ilse = candidate(page);
  await ilse.arrives();
  await ilse.chooses('The first leaf');
  await ilse.isSaved();
  const tablet = await browser.newContext();
  const again = candidate(await tablet.newPage());
  await again.opensLink();
  await expect(again.heading('Your test is open in another window or device')).toBeVisible();
  await again.page.getByRole('button', { name: 'Continue here' }).click();
  await expect(again.heading('Question 1')).toBeVisible();
  await expect(ilse.heading('Your test is open in another window or device')).toBeVisible();
  await expect(again.field('The first leaf')).toBeChecked();
  await again.chooses('The young root');
  await again.isSaved();
  const kept = app.rows<{ hold: number; value: string }>(
    "select hold, value from journal where target = 'parts-of-a-seed/A' order by arrival",
  );
  expect(kept).toEqual([
    { hold: 1, value: '{"response":{"chosen":["leaf"]},"version":1}' },
    { hold: 2, value: '{"response":{"chosen":["root"]},"version":1}' },
  ]);
});
