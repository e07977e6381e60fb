import { hasNoBarriers } from './barriers';
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
  await page.getByRole('link', { name: 'Go to the test' }).click();
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

test('one’s own page: three invitations, a link for another test, and a lost link', async ({ page, app }) => {
  await page.goto(app.url + app.linkOf(PERPETUA, 'technician-november'));
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText('Your tests');
  const cards = page.getByRole('main').getByRole('listitem');
  await expect(cards).toHaveCount(3);
  await hasNoBarriers(page, 'one’s own page');
  // The test of this link comes first among those that can be started, and is one press away.
  await cards.first().getByRole('link', { name: 'Go to the test' }).click();
  await expect(heading).toHaveText('Are these your details?');
  await page.getByRole('link', { name: 'Your tests' }).click();
  const other = cards.filter({ hasText: 'Counting check' });
  await other.getByRole('button', { name: 'Send me the link for this test' }).click();
  await expect(other.getByRole('status')).toContainText('The link is on its way');

  await page.goto(app.url);
  await page.getByLabel('E-mail address').fill('nobody@example.org');
  await page.getByRole('button', { name: 'Send me a link' }).click();
  const told = page.getByRole('status');
  await expect(told).toContainText('If you are invited under this address');
  const unknown = await told.textContent();
  await page.getByLabel('E-mail address').fill(PERPETUA);
  await page.getByRole('button', { name: 'Send me a link' }).click();
  await expect(told).toHaveText(unknown!);
  const sent = () =>
    app.rows<{ n: number }>(
      `select count(*) as n from letters where "to" = ? and json_extract(facts, '$.kind') = 'link'`,
      PERPETUA,
    )[0]!.n;
  await expect.poll(sent).toBe(2);
});
