import { readFileSync } from 'node:fs';
import path from 'node:path';
import { freePort } from '../server/testing/freePort';
import { readPdf } from '../server/testing/readPdf';
import { hasNoBarriers } from './barriers';
import { expect, TestApp, test as base } from './testApp';
import { ROOT } from './paths';
import { Candidate } from './people/Candidate';
import { Staff } from './people/Staff';

/* From an empty folder, by the README alone: nothing of the demo is here. */
const test = base.extend({
  app: async ({}, use) => {
    const app = new TestApp(await freePort(), null);
    await app.start();
    await use(app);
    await app.close();
  },
});

const EXAMPLE = path.join(ROOT, 'docs', 'paper-example.json');
const PEOPLE = `Name;E-mail;Extra time
Marit Solheim;marit@example.org;25 %
Piet Hoogland;piet@example.org;
Rosa Iden;rosa@example.org;
`;

test('the first account, a paper, a round, people from a list, a sitting, marks, and a result', async ({
  page,
  browser,
  app,
}) => {
  const link = /http:\S+\/first-account\/\S+/.exec(app.log)![0];
  await page.goto(link);
  await hasNoBarriers(page, 'first account');
  await page.getByLabel('Your name').fill('Nils Aker');
  await page.getByLabel('E-mail').fill('nils@example.org');
  await page.getByLabel('Password').fill('three words are enough');
  await page.getByRole('button', { name: 'Create the account' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Rounds' })).toBeVisible();
  const nils = Staff.at(page);
  await test.step('the link works once', async () => {
    const stranger = await (await browser.newContext()).newPage();
    await stranger.goto(link);
    for (const [label, value] of [
      ['Your name', 'Somebody'],
      ['E-mail', 'else@example.org'],
      ['Password', 'a password of theirs'],
    ] as const)
      await stranger.getByLabel(label).fill(value);
    await stranger.getByRole('button', { name: 'Create the account' }).click();
    await expect(stranger.getByRole('alert')).toContainText('no longer valid');
  });

  await nils.goesTo('Papers');
  await page.getByRole('link', { name: 'Import a paper' }).click();
  const example = readFileSync(EXAMPLE, 'utf8');
  const file = (text: string) => ({
    name: 'p.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text),
  });
  const chosen = page.getByLabel('File');
  await chosen.setInputFiles(file(example.replace('"right": ["count"]', '"right": ["nobody"]')));
  await expect(page.getByText('Fix 1 problem before you publish this paper')).toBeVisible();
  await expect(page.getByRole('cell', { name: /^sections\.0\.items\.0\.parts\.0\.content/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Publish this paper' })).toBeHidden();
  await chosen.setInputFiles(EXAMPLE);
  await expect(page.getByText('This file has no problems.')).toBeVisible();
  await expect(page.getByRole('heading', { name: /The first shift/ })).toBeVisible();
  await hasNoBarriers(page, 'import of a paper');
  await page.getByRole('button', { name: 'Publish this paper' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Cold-store basics' })).toBeVisible();

  const hilde = { name: 'Hilde Moe', email: 'hilde@example.org' };
  const password = app.addStaff(hilde.name, hilde.email, 'assessor,lead');
  await page.getByRole('link', { name: 'Create a round from this paper' }).click();
  await page.getByLabel('Title of the round').fill('Store, spring');
  const wall = (at: number) => new Date(at).toISOString().slice(0, 16);
  await page.getByLabel('Time zone').selectOption('UTC');
  await page.getByLabel('Opens').fill(wall(Date.now() - 3_600_000));
  await page.getByLabel('Closes').fill(wall(Date.now() + 86_400_000));
  await page.getByLabel('Where candidates get help').fill('Write to store@example.org.');
  const staff = page.getByRole('group', { name: hilde.name });
  await staff.getByLabel('assessor', { exact: true }).check();
  await staff.getByLabel('lead assessor').check();
  await hasNoBarriers(page, 'new round');
  await page.getByRole('button', { name: 'Create the round' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Store, spring' })).toBeVisible();

  await page.getByRole('link', { name: 'Import people' }).click();
  await page.getByLabel('Or rows to paste').fill(`${PEOPLE}Nobody;;\n`);
  await page.getByRole('button', { name: 'Check these rows' }).click();
  await expect(page.getByRole('status')).toContainText('3 new, 0 changed');
  await expect(page.getByText('The e-mail address is missing.')).toBeVisible();
  await hasNoBarriers(page, 'import of people');
  await page.getByRole('button', { name: 'Invite or change 3 people' }).click();
  await page.getByRole('link', { name: 'Back to the round' }).click();
  await expect(page.getByRole('rowheader')).toHaveText(['Marit Solheim', 'Piet Hoogland', 'Rosa Iden']);
  await page.getByRole('searchbox', { name: 'Search' }).fill('piet');
  await expect(page.getByRole('rowheader')).toHaveText(['Piet Hoogland']);
  await expect(page).toHaveURL(/search=piet/);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('rosa');
  await page.getByRole('option', { name: /Rosa Iden/ }).click();
  await expect(page.getByRole('rowheader')).toHaveText(['Rosa Iden']);

  await nils.readsInvitationOf('marit@example.org');
  await page.getByRole('button', { name: 'Make a personal link' }).click();
  const personal = page.getByRole('link', { name: 'Open the link as the candidate would' });
  const marit = new Candidate(
    await (await browser.newContext()).newPage(),
    (await personal.getAttribute('href'))!,
  );
  await marit.arrives();
  await marit.chooses('The trays are counted');
  await marit.entersFigure('5');
  await marit.goesTo(3);
  await marit.fillsGap(1, 'species');
  await marit.fillsGap(2, 'date');
  await marit.goesTo(4);
  await marit.writes(
    'Tray 7 is missing from shelf 2 since this morning. Please look for it before you count.',
  );
  await marit.isSaved();
  await marit.handsIn();
  const own = marit.page;
  await own.getByRole('group', { name: 'I had enough time.' }).getByLabel('Mostly', { exact: true }).check();
  await own.getByLabel('Anything else?').fill('The plan was easy to read.');
  await hasNoBarriers(own, 'questionnaire');
  await own.getByRole('button', { name: 'Send my answers' }).click();
  await expect(own.getByRole('heading', { name: 'Four questions about the test' })).toBeHidden();
  await app.doJobs();

  const lead = await Staff.signInAs(await (await browser.newContext()).newPage(), app.url, {
    ...hilde,
    password,
  });
  await lead.opensPile('A short note');
  await lead.marksByKeys([1, 1], 'Short and clear.');
  await expect(lead.page.getByRole('heading', { name: 'This item is done' })).toBeVisible();
  await lead.goesTo('Sign-off');
  await lead.confirms('Sign off');
  await expect(lead.page.getByText('signed off')).toBeVisible();

  await nils.opensRound('Store, spring');
  await page.getByText('What candidates say about the test').click();
  await expect(page.getByText('The plan was easy to read.')).toBeVisible();
  await nils.confirms('Release the results');
  await expect(page.getByText('released', { exact: true })).toBeVisible();

  await marit.opensLink();
  await expect(marit.heading('Marit Solheim')).toBeVisible();
  await expect(own.getByText('Short and clear.')).toBeVisible();
  const shown = await own.getByRole('article').allInnerTexts();
  const pdf = await own.request.get(`${app.url}/api/result.pdf`);
  const { text: printed } = await readPdf(await pdf.body());
  const letters = (text: string) => text.replace(/[^\p{L}\p{N}]+/gu, '');
  // Every line of ten letters and more that the page shows of a question stands in the PDF too; where nothing was
  // answered, it says so in other words, and on paper there is no way back to press.
  const left = ['Not answered: the order was not changed.', 'Back to the list of questions'];
  const lines = shown
    .flatMap((text) => text.split('\n'))
    .filter((line) => letters(line).length > 10 && !left.includes(line));
  expect(lines.filter((line) => !letters(printed).includes(letters(line)))).toEqual([]);
});
