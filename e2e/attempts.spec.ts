import { Candidate } from './people/Candidate';
import { expect, PERPETUA, test } from './testApp';

test('three attempts: a receipt after each, the next one as a step, and the best one counts', async ({
  page,
  app,
}) => {
  const perpetua = new Candidate(page, app.url + app.linkOf(PERPETUA, 'counting-check'));
  const arrives = async () => {
    await page.getByRole('button', { name: 'These are my details' }).click();
    await perpetua.acceptsRules();
    await perpetua.starts();
  };
  await perpetua.opensLink();
  await expect(
    page.getByText('This is attempt 1 of 3. You have 3 attempts. The best attempt counts.'),
  ).toBeVisible();
  await arrives();
  await perpetua.chooses('The young root');
  await perpetua.handsIn('Attempt 1 of 3 is handed in');
  const receipts = page.getByRole('list').filter({ hasText: 'Attempt 1' });
  await expect(receipts).toContainText('counts at present');
  await expect(page.getByText('1 of 5 parts')).toBeVisible();
  await page.reload();
  await expect(perpetua.heading('Attempt 1 of 3 is handed in')).toBeVisible();

  // The sheet of one attempt holds totals alone: its verdicts would teach the next.
  await page.getByRole('link', { name: 'Sheet of attempt 1' }).click();
  await expect(page.getByText('While you have attempts left, you see totals only.')).toBeVisible();
  await expect(page.getByText('Your answer')).toHaveCount(0);
  await page.getByRole('link', { name: 'Back to all attempts' }).click();
  await expect(page.getByText('You have used 1 of 3 attempts; 2 are left.')).toBeVisible();

  await page.getByRole('button', { name: 'Start attempt 2 of 3' }).click();
  await expect(page.getByText('This is attempt 2 of 3.')).toBeVisible();
  await arrives();
  await perpetua.handsIn('Attempt 2 of 3 is handed in');
  await expect(page.getByRole('listitem').filter({ hasText: /^Attempt 1/ })).toContainText(
    'counts at present',
  );

  await page.getByRole('button', { name: 'Start attempt 3 of 3' }).click();
  await arrives();
  await perpetua.handsIn('Perpetua Zanardi');
  // The last one: the result, with its receipt and the questions about the test.
  await expect(page.getByRole('heading', { name: 'Receipt' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Four questions about the test' })).toBeVisible();
  const attempts = page.getByRole('region', { name: 'Your attempts' });
  await expect(attempts.getByRole('listitem').filter({ hasText: 'counts' })).toContainText('Attempt 1');
  await expect(page.getByRole('heading', { name: /^Question 1/ })).toBeVisible();
  await attempts.getByRole('link', { name: 'Sheet of attempt 3' }).click();
  await expect(perpetua.heading('Perpetua Zanardi, attempt 3')).toBeVisible();
});
