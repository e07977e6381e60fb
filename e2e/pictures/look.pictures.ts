import { staffMembers } from '../../demo/people';
import { test } from '../testApp';
import { Staff } from '../people/Staff';

test('a', async ({ page, app }) => {
  const shot = (name: string) => page.screenshot({ path: `/tmp/look/${name}.png`, animations: 'disabled' });
  await Staff.signInAs(
    page,
    app.url,
    staffMembers.find(({ roles }) => roles.includes('assessor'))!,
  );
  const round = app.rows<{ id: number }>(
    "select round_id as id from marking_tasks where target = 'incident-note/A' and done_at is null limit 1",
  )[0]!.id;
  await page.goto(`${app.url}/staff/marking/${round}/incident-note/A`);
  await page.waitForTimeout(1500);
  await page.keyboard.press('9');
  await shot('marking');
  await page.getByRole('button', { name: /by you$/ }).click();
  await page.waitForTimeout(800);
  await page
    .getByRole('button', { name: /^Mark .* again/ })
    .first()
    .click();
  await shot('marked');
  await page.getByRole('button', { name: 'Change the mark' }).click();
  await page.waitForTimeout(1500);
  await page.setViewportSize({ width: 1024, height: 768 });
  await shot('taken-back-1024');
  await page.goto(`${app.url}/staff/marking/${round}/how-many-to-sow/A`);
  await page.waitForTimeout(2500);
  await page.keyboard.press('w');
  await page.keyboard.press('ArrowDown');
  await shot('crosshair-1024');
});
test('b', async ({ page, app }) => {
  const shot = (name: string) =>
    page.screenshot({ path: `/tmp/look/${name}.png`, animations: 'disabled', fullPage: true });
  await Staff.signIn(page, app.url, 'lead');
  const round = app.rows<{ id: number }>(
    "select round_id as id from marking_tasks where target = 'incident-note/A' and done_at is null limit 1",
  )[0]!.id;
  await page.goto(`${app.url}/staff/quality/${round}/incident-note/A`);
  await page.waitForTimeout(2000);
  await page.getByText('Pair by pair').click();
  await page.waitForTimeout(300);
  const card = page.getByText('Pair by pair');
  await card.scrollIntoViewIfNeeded();
  await page.screenshot({ path: '/tmp/look/quality.png', animations: 'disabled' });
  await shot('quality-full');
});
