import type { Locator } from '@playwright/test';
import { hasNoBarriers } from './barriers';
import { expect, test } from './testApp';

/** Do two boxes share a point of the page? */
async function overlap(a: Locator, b: Locator): Promise<boolean> {
  const [one, other] = [(await a.boundingBox())!, (await b.boundingBox())!];
  return (
    one.x < other.x + other.width &&
    other.x < one.x + one.width &&
    one.y < other.y + other.height &&
    other.y < one.y + one.height
  );
}

test('directions are in reach, a warning tells the true time and covers nothing, the last look says what is saved', async ({
  page,
  app,
  candidate,
}) => {
  const ilse = candidate(page);
  await ilse.comesToCover();
  for (const told of [/^\d+ questions, \d+ marks in all\./, /^You can start between /, /^Grades: /])
    await expect(page.getByText(told)).toBeVisible();
  await expect(page.getByText('When your time ends, your paper is handed in automatically.')).toBeVisible();
  await ilse.starts();

  await test.step('the rules, the section, the end of the time: from any question', async () => {
    await page.getByRole('button', { name: 'Directions' }).click();
    const dialog = page.getByRole('dialog', { name: 'Directions' });
    for (const title of [
      'At the end of your time',
      'The rules that you accepted',
      'What is recorded',
      'Help',
    ])
      await expect(dialog.getByRole('heading', { name: title })).toBeVisible();
    await expect(dialog.getByText(/^Your reference: /)).toBeVisible();
    await hasNoBarriers(page, 'directions');
    // Without a connection they are there all the same.
    await page.keyboard.press('Escape');
    await page.context().setOffline(true);
    await page.getByRole('button', { name: 'Directions' }).click();
    await expect(dialog.getByRole('heading', { name: 'The rules that you accepted' })).toBeVisible();
    await page.keyboard.press('Escape');
    await page.context().setOffline(false);
  });

  const warning = page.locator('[data-warning]');
  const clock = page.getByRole('timer').filter({ visible: true });
  await test.step('a warning, at both sizes', async () => {
    await ilse.chooses('The young root');
    await ilse.isSaved();
    // Of 75 minutes 15 and a little are left; the page warns when they are passed.
    await app.advance(59.95);
    await expect(warning).toContainText(/^1[45]:\d\d left\./);
    await expect(warning).toContainText('At 0:00 your paper is handed in automatically.');
    const heard = page.locator('[data-announcer]');
    await expect(heard).toContainText(/1[45] minutes are left\./);
    for (const screen of [
      { width: 1280, height: 800 },
      { width: 360, height: 740 },
    ]) {
      await page.setViewportSize(screen);
      const flag = page.getByRole('button', { name: 'Flag', exact: true }).filter({ visible: true });
      const onward = page.locator('[data-foot]').getByRole('button', { name: /^Next$|^Question 2$/ });
      for (const control of [clock, flag, onward]) expect(await overlap(warning, control)).toBe(false);
    }
    await hasNoBarriers(page, 'a warning on a phone');
    // Turning to another page does not say it again.
    const times = await heard.locator('p').filter({ hasText: 'are left' }).count();
    await page.keyboard.press('F9');
    await expect(ilse.heading('Last look')).toBeVisible();
    await expect(warning).toBeVisible();
    await expect(heard.locator('p').filter({ hasText: 'are left' })).toHaveCount(times);
  });

  await test.step('the last look: what is saved, the invigilator, what is flagged', async () => {
    await expect(page.locator('[data-saved]')).toContainText('Saved');
    await expect(page.getByRole('button', { name: 'Raise a hand' })).toBeVisible();
    await page.getByRole('button', { name: /Back to question/ }).click();
    await page.getByRole('button', { name: 'Flag', exact: true }).filter({ visible: true }).click();
    await page.keyboard.press('F9');
    await page.context().setOffline(true);
    await warning.getByRole('button', { name: 'Go on' }).click();
    await page.getByRole('button', { name: 'Hand in my paper' }).click();
    const sure = page.getByRole('alertdialog');
    await expect(sure.getByText('You flagged these questions: 1.')).toBeVisible();
    await expect(sure.locator('[data-saved]')).toBeVisible();
    await sure.getByRole('button', { name: 'Keep working' }).click();
    await page.context().setOffline(false);
  });
});
