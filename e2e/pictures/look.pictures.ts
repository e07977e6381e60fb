import { test } from '../testApp';
test('look', async ({ app, browser, staff }) => {
  test.setTimeout(300_000);
  const room = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await room.newPage();
  await staff(page, 'lead');
  const shot = (name: string) => page.screenshot({ path: `/tmp/look/${name}.png` });
  await page.goto(`${app.url}/staff/sign-off`);
  await page.waitForTimeout(1500);
  await shot('signoff');
  const { id: main } = app.rows<{ id: number }>("select id from rounds where key = 'technician-main'")[0]!;
  await page.goto(`${app.url}/staff/rounds/${main}/answers`);
  await page.waitForTimeout(2000);
  await shot('parts');
  await page
    .getByRole('button', { name: 'Set the bands' })
    .click()
    .catch(() => undefined);
  await page.waitForTimeout(500);
  await shot('bands');
  await page.keyboard.press('Escape');
  await page
    .getByRole('link', { name: /Tray 14/ })
    .nth(2)
    .click();
  await page.waitForTimeout(2000);
  await shot('part');
  await page.getByRole('button', { name: 'Change the right answer' }).click();
  await page.waitForTimeout(700);
  await shot('key-gaps');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Withdraw it' }).click();
  await page.waitForTimeout(3000);
  await shot('withdraw');
  await page.setViewportSize({ width: 1024, height: 768 });
  await page
    .getByLabel(/^Reason/)
    .fill('Two readings of the note are possible, and both were accepted in the other room.');
  await page.getByRole('button', { name: 'Apply the correction' }).click();
  await page.waitForTimeout(4000);
  await shot('part-1024');
  await page.mouse.wheel(0, 900);
  await page.waitForTimeout(300);
  await shot('part-1024b');
  await page.getByRole('link', { name: 'All questions' }).click();
  await page.waitForTimeout(1500);
  await shot('parts-1024');
});
