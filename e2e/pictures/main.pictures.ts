import path from 'node:path';
import type { Page } from '@playwright/test';
import { codeOf, photographs } from '../people/phone';
import { AMADOU, BETTINA, expect, ILSE, MATTIS, PERPETUA, SIGNE, test } from '../testApp';
import { ROOT } from '../paths';

const shoot = async (page: Page, name: string) => {
  await page.evaluate(() => document.fonts.ready.then(() => undefined));
  await page.screenshot({ path: path.join(ROOT, 'docs/screenshots', `${name}.png`), animations: 'disabled' });
};

const PROGRAM = `def strongest(lots):
    """Name of the lot with the highest share germinated."""
    best, best_share = None, -1.0
    for lot in lots:
        if lot["sown"] == 0:
            continue
        share = lot["up"] / lot["sown"]
        if share > best_share:
            best, best_share = lot["name"], share
    return best
`;

test('what a candidate meets', async ({ page, app, candidate }) => {
  const ilse = candidate(page, ILSE);
  await ilse.opensLink();
  await ilse.confirmsDetails();
  await page.getByRole('combobox').selectOption({ label: 'Drawn stand-in (demo)' });
  await expect(page.getByRole('main').getByText('Your face is in view')).toBeVisible({ timeout: 45_000 });
  await expect(page.getByText('checking …')).toHaveCount(0);
  await shoot(page, 'checks');
  await ilse.passesChecks();
  await ilse.takesPicture();
  await ilse.acceptsRules();
  await shoot(page, 'cover');
  await ilse.starts();
  await ilse.chooses('The young root');
  await ilse.goesTo(2);
  await ilse.chooses('Tray 12: 126 of 200', 'Tray 14: 57 of 90');
  await ilse.goesTo(3);
  await ilse.entersFigure('−19');
  await ilse.goesTo(6);
  await ilse.goesTo(9);
  await page.getByRole('button', { name: 'Flag', exact: true }).click();
  await ilse.programs('Python', PROGRAM);
  await ilse.triesAllCases();
  await expect(page.getByText(/of 3 as expected/)).toBeVisible({ timeout: 45_000 });
  await ilse.isSaved();
  await shoot(page, 'desk-code');
  await ilse.goesTo(5);
  await page.getByRole('button', { name: 'Strike out K-1' }).click();
  await page.getByRole('button', { name: 'Strike out K-3' }).click();
  await ilse.chooses('K-2');
  await ilse.entersFigure('71,25');
  await ilse.fillsGap(1, 'kept');
  await ilse.fillsGap(2, '65');
  await app.advance(18);
  await page.reload();
  await expect(ilse.heading('Question 5')).toBeVisible();
  await ilse.fillsGap(3, 'third');
  await ilse.isSaved();
  await shoot(page, 'desk');
  await ilse.looksBack();
  await shoot(page, 'last-look');
  await ilse.handsInFromLastLook();
  await shoot(page, 'receipt');
  await page.goto(app.url + app.linkOf('tobiah.lindqvar@example.org'));
  await expect(ilse.heading('Tobiah Lindqvar')).toBeVisible();
  await shoot(page, 'result');
});

test('rehearsal, waiting and watching', async ({ page, app, candidate, staff, browser }) => {
  await page.goto(`${app.url}/r/technician-november/rehearsal`);
  await page.getByRole('button', { name: 'Without the clock' }).click();
  const anybody = candidate(page);
  await anybody.chooses('Bram');
  await anybody.goesTo(2);
  await anybody.entersFigure('45');
  await anybody.looksBack();
  await anybody.handsInRehearsal();
  const signe = candidate(page, SIGNE);
  await signe.opensLink();
  await signe.confirmsDetails();
  await signe.passesChecksWithSound();
  await page.getByRole('combobox').selectOption({ label: 'Drawn stand-in (demo)' });
  await page.getByRole('button', { name: 'Take the picture' }).click();
  await page.getByRole('button', { name: 'Use this picture' }).click();
  await page.getByRole('combobox').selectOption({ label: 'Drawn stand-in (demo)' });
  await page.getByRole('button', { name: 'Take a picture of the document' }).click();
  await page.getByRole('button', { name: 'Use this picture' }).click();
  await signe.ticksRules();
  await expect(signe.heading('Waiting room')).toBeVisible();
  await page.getByRole('combobox').selectOption({ label: 'Drawn stand-in (demo)' });
  await page.getByRole('button', { name: 'Raise a hand' }).click();
  await page.getByLabel('What do you need help with?').fill('May I have water on the table?');
  await page.getByRole('button', { name: 'Send and raise a hand' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('main').getByText('Your face is in view')).toBeVisible({ timeout: 45_000 });
  await shoot(page, 'waiting-room');
  const office = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const bram = await staff(await office.newPage(), 'invigilator');
  await bram.watches('Technician, supervised sitting');
  await expect(bram.page.getByText('May I have water')).toBeVisible();
  await shoot(bram.page, 'watch');
});

test('on a phone', async ({ page, candidate }) => {
  const mattis = candidate(page, MATTIS);
  await mattis.arrives();
  await mattis.chooses('The young root');
  await mattis.goesTo(5);
  await page.setViewportSize({ width: 360, height: 740 });
  await page.getByRole('tab', { name: 'Answer' }).filter({ visible: true }).click();
  await mattis.chooses('K-2');
  await mattis.isSaved();
  await shoot(page, 'phone');
});

test('pages of an answer, by a joined phone', async ({ page, candidate, browser }) => {
  const bettina = candidate(page, BETTINA);
  await bettina.arrives();
  await bettina.goesTo(11);
  const address = await codeOf(page);
  const phone = await (await browser.newContext({ viewport: { width: 360, height: 740 } })).newPage();
  await phone.goto(address);
  for (const number of [1, 2, 3]) await photographs(phone, number);
  await expect(page.getByText('saved', { exact: true })).toHaveCount(3);
  await bettina.isSaved();
  await shoot(page, 'pages');
});

test('where staff work', async ({ browser, app, staff }) => {
  await app.doJobs();
  const room = async () => (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const coordinator = await staff(await room(), 'coordinator');
  await coordinator.opensRound('Technician, November');
  await expect(coordinator.page.getByText('Ilse Brandvold')).toBeVisible();
  await shoot(coordinator.page, 'round');
  const assessor = await staff(await room(), 'assessor');
  const { id: main } = app.rows<{ id: number }>("select id from rounds where key = 'technician-main'")[0]!;
  await assessor.page.goto(`${app.url}/staff/marking/${main}/incident-note/A`);
  await expect(assessor.page.getByRole('region', { name: 'Response' })).toBeVisible();
  await assessor.page.getByRole('group', { name: /^The answer/ }).focus();
  const words = Array.from({ length: 5 }, () => 'Shift+ArrowRight');
  for (const key of ['ArrowRight', ...words, 'n']) await assessor.page.keyboard.press(key);
  await assessor.page.keyboard.type('Well begun: the time is named.');
  await assessor.page.keyboard.press('Enter');
  await assessor.page.getByRole('heading', { level: 1 }).click();
  for (const key of ['3', '4', '2']) await assessor.page.keyboard.press(key);
  await shoot(assessor.page, 'marking');
  const lead = await staff(await room(), 'lead');
  await lead.page.goto(`${app.url}/staff/quality/${main}/incident-note/A`);
  await expect(lead.page.getByRole('img', { name: /responses by first and second mark/ })).toBeVisible();
  await shoot(lead.page, 'quality');
  await coordinator.page.goto(`${app.url}/staff/results/${main}`);
  await expect(coordinator.page.getByRole('img', { name: /candidates by marks/ })).toBeVisible();
  await shoot(coordinator.page, 'results');
  const [seen] = app.rows<{ id: number }>(
    `select i.id from observations o join sittings s on s.id = o.sitting_id join invitations i on i.id = s.invitation_id
     where i.round_id = ? order by o.id limit 1`,
    main,
  );
  await coordinator.page.goto(`${app.url}/staff/review/${main}/${seen!.id}`);
  await coordinator.page.getByRole('button', { name: 'no connection' }).click();
  await shoot(coordinator.page, 'review');
});

test('a person’s own page', async ({ page, app }) => {
  await app.doJobs();
  await page.goto(app.url + app.linkOf(PERPETUA, 'counting-check'));
  await expect(page.getByText('6 of 10 marks so far')).toBeVisible();
  await shoot(page, 'your-tests');
});

test('sources and handouts', async ({ page, candidate }) => {
  const amadou = candidate(page, AMADOU);
  await amadou.arrives();
  await amadou.goesTo(4);
  await amadou.chooses('S-3');
  await page.getByRole('button', { name: 'Handouts' }).click();
  await page.getByRole('button', { name: /^Formulas and limits/ }).click();
  const panel = page.getByRole('dialog', { name: 'Handout: Formulas and limits' });
  await expect(panel.getByRole('cell', { name: 'Sea kale' })).toBeVisible();
  for (let n = 0; n < 13; n++) await page.keyboard.press('Shift+ArrowUp');
  for (let n = 0; n < 16; n++) await page.keyboard.press('ArrowDown');
  await amadou.isSaved();
  await shoot(page, 'sources');
});

test('the kit', async ({ page, candidate }) => {
  const ilse = candidate(page);
  await ilse.arrives();
  await ilse.goesTo(5);
  const tool = (name: string) => page.locator('[data-kit]').getByRole('button', { name, exact: true });
  await tool('Highlight').click();
  const highlight = page.getByRole('dialog', { name: 'Highlight' });
  await highlight.getByText('Choose words by keys').click();
  for (const [steps, tint] of [
    [2, 'Yellow, solid line'],
    [2, 'Blue, dotted line'],
  ] as const) {
    for (let n = 0; n < steps; n++) await highlight.getByRole('button', { name: 'Next sentence' }).click();
    await highlight.getByRole('button', { name: tint }).click();
  }
  await highlight.getByText('Choose words by keys').click();
  await tool('Reading slot').click();
  const slot = page.getByRole('button', { name: /^Move the reading slot/ });
  for (let n = 0; n < 4; n++) await slot.press('ArrowDown');
  await tool('Calculator').click();
  const calculator = page.getByRole('dialog', { name: 'Calculator' });
  await calculator.getByRole('textbox').fill('171÷240×100');
  await calculator.getByRole('textbox').press('Enter');
  await expect(calculator.getByRole('status')).toHaveText('71.25');
  await ilse.isSaved();
  await shoot(page, 'kit');
});
