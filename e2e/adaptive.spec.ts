import path from 'node:path';
import { hasNoBarriers } from './barriers';
import { ROOT } from './paths';
import { expect, test } from './testApp';

test('a coordinator looks at what an adaptive section would do, before anybody sits it', async ({
  page,
  staff,
}) => {
  const office = await staff(page, 'coordinator');
  await office.goesTo('Papers');
  await page.getByRole('link', { name: 'Field School reading' }).click();
  const section = page.getByRole('region', { name: 'Reading' });
  await expect(section).toContainText('8 to 24 of 40 questions, within 25 minutes');
  await expect(section).toContainText('each on at least 1000 people');
  await expect(section.getByRole('img', { name: 'Information over ability' })).toBeVisible();
  await section.getByText('These figures in a table').click();
  await expect(section.getByRole('row', { name: /one sitting at most/ })).toContainText('10.1');
  await expect(page.getByRole('link', { name: 'Create a round from this paper' })).toHaveCount(0);
  await section.getByRole('button', { name: 'Simulate 2,000 candidates' }).click();
  // As `npm run simulate-adaptive` prints it (docs/adaptive.md).
  await expect(section.getByRole('row', { name: /Root mean square error/ })).toContainText('0.42');
  await expect(section.getByRole('row', { name: /asked most often/ })).toContainText('60 %');
  await expect(section.getByRole('row', { name: /−2 to −1/ })).toContainText('13.5');
  await expect(section.getByRole('button', { name: 'Simulate 2,000 candidates' })).toBeEnabled();
  await hasNoBarriers(page, 'a paper with an adaptive section');

  await test.step('and before the paper is published, of a file', async () => {
    await page.goto('/staff/papers/import');
    await page.getByLabel('File').setInputFiles(path.join(ROOT, 'docs/adaptive-example.json'));
    const checked = page.getByRole('region', { name: 'Reading' });
    await expect(checked).toContainText('2 to 4 of 6 questions, within 10 minutes');
    await expect(checked).toContainText('6 questions have the author’s estimate of their difficulty only.');
    await checked.getByRole('button', { name: 'Simulate 2,000 candidates' }).click();
    await expect(checked.getByRole('row', { name: /Questions asked, at most/ })).toContainText('limit: 4');
    await hasNoBarriers(page, 'an adaptive section before it is published');
  });
});
