import { readFileSync } from 'node:fs';
import { test, expect, ILSE } from '../testApp';
import { Staff } from '../people/Staff';
const SUM = `let total = 0;\nlet line: string | null;\nwhile ((line = readLine()) !== null) {\n  const mass = line.split(" ")[1];\n  total += Number(mass);\n}\nconsole.log(total.toFixed(1));\nconsole.log(missing);\n`;
test('look', async ({ app, browser, candidate, page }) => {
  test.setTimeout(240000);
  await page.setViewportSize({ width: 1280, height: 800 });
  const office = await Staff.signIn(await (await browser.newContext()).newPage(), app.url, 'coordinator');
  const answer = await office.page.request.post(`${app.url}/api/papers/import/publish`, {
    data: readFileSync('docs/coding-example.json'),
    headers: { 'Content-Type': 'application/octet-stream' },
    timeout: 120000,
  });
  const { published } = (await answer.json()) as { published: number };
  app.change("update rounds set paper_version_id = ? where key = 'technician-november'", published);
  const ilse = candidate(page, ILSE);
  await ilse.arrives();
  const cases = page.getByRole('group', { name: 'Cases' }).filter({ visible: true });
  await ilse.programs('TypeScript', SUM);
  await ilse.triesAllCases();
  await expect(cases.getByRole('status')).toHaveText('0 of 1 as expected', { timeout: 60000 });
  await page.screenshot({ path: '/tmp/look/c1.png' });
  await ilse.programs('TypeScript', SUM.replace('console.log(missing);\n', 'console.log("K-1 ");\n'));
  await ilse.triesAllCases();
  await expect(cases.getByRole('status')).toHaveText('0 of 1 as expected', { timeout: 60000 });
  await cases.getByRole('button', { name: 'Details of two samples' }).click();
  await cases.getByRole('textbox', { name: 'Your own standard input' }).fill('X 1');
  await cases.getByRole('button', { name: 'Run with this input' }).click();
  await expect(cases.getByRole('row').filter({ hasText: 'your input 1' })).toContainText('1.0');
  await page.screenshot({ path: '/tmp/look/c2.png' });
  await ilse.goesTo(2);
  await ilse.programs('Python', 'def gaps(days):\n    return [b - a for a, b in zip(days, days[1:])]\n');
  await ilse.triesAllCases();
  await expect(cases.getByRole('status')).toHaveText('2 of 2 as expected', { timeout: 60000 });
  await page.screenshot({ path: '/tmp/look/c3.png' });
  await ilse.goesTo(3);
  await ilse.programs('SQL', 'select number from tray where number not in (select tray from seed)');
  await ilse.triesAllCases();
  await expect(cases.getByRole('status')).toHaveText('1 of 1 as expected', { timeout: 60000 });
  await cases
    .getByRole('button', { name: /Details of/ })
    .first()
    .click();
  await page.screenshot({ path: '/tmp/look/c4.png' });
  await ilse.goesTo(4);
  await page.getByRole('textbox', { name: 'program.py, program in Python' }).click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('# one\n');
  await ilse.triesAllCases();
  await expect(cases.getByRole('status')).toHaveText('0 of 1 as expected', { timeout: 60000 });
  await cases
    .getByRole('button', { name: /Details of/ })
    .first()
    .click();
  await page.screenshot({ path: '/tmp/look/c5.png' });
  await page.setViewportSize({ width: 360, height: 740 });
  await page.screenshot({ path: '/tmp/look/p1.png' });
  await page.getByRole('tab', { name: 'Program' }).filter({ visible: true }).click();
  await page.screenshot({ path: '/tmp/look/p2.png' });
  await page.getByRole('tab', { name: 'Cases' }).filter({ visible: true }).click();
  await page.screenshot({ path: '/tmp/look/p3.png' });
  await page.setViewportSize({ width: 1280, height: 800 });
  await ilse.isSaved();
  await ilse.handsIn();
  await app.doJobs();
  await app.doJobs();
  const assessor = await Staff.signIn(await (await browser.newContext()).newPage(), app.url, 'assessor');
  await assessor.page.setViewportSize({ width: 1280, height: 800 });
  await assessor.opensPile('Two racks');
  const evidence = assessor.page.getByRole('region', { name: 'What the program did' });
  await evidence.getByRole('button', { name: 'Details of four lots (hidden)' }).click();
  await assessor.page.screenshot({ path: '/tmp/look/a1.png' });
  await evidence.scrollIntoViewIfNeeded();
  await evidence.getByRole('button', { name: 'Run again: four lots' }).click();
  await expect(evidence).toContainText(/ran · \d+ ms/, { timeout: 60000 });
  await assessor.page.screenshot({ path: '/tmp/look/a2.png' });
  const [own] = app.rows<{ round: number; invitation: number }>(
    'select i.round_id as round, i.id as invitation from sittings s join invitations i on i.id = s.invitation_id where s.closed_at is not null order by s.id desc',
  );
  await office.page.setViewportSize({ width: 1280, height: 800 });
  await office.page.goto(`${app.url}/staff/review/${own!.round}/${own!.invitation}/0`);
  await office.page
    .getByRole('combobox', { name: 'Answer to replay' })
    .selectOption({ label: '1 · Masses in all' });
  const versions = office.page.getByRole('list', { name: 'Saved versions and runs' });
  await versions
    .getByText(/lines added/)
    .last()
    .click();
  await versions.scrollIntoViewIfNeeded();
  await office.page.screenshot({ path: '/tmp/look/r1.png' });
});
