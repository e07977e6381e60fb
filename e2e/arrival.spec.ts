import type { Page } from '@playwright/test';
import { hasNoBarriers } from './barriers';
import { CORIN, expect, SIGNE, test, TOVE } from './testApp';

const DAY_MIN = 24 * 60;

/** Breaks what the checks look at, until it is mended again. */
async function breaks(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const real = { open: indexedDB.open.bind(indexedDB), WebAssembly: window.WebAssembly };
    Object.defineProperty(document, 'fullscreenEnabled', { configurable: true, get: () => false });
    indexedDB.open = () => {
      throw new Error('no storage');
    };
    Object.assign(window, {
      WebAssembly: undefined,
      mend: () => {
        indexedDB.open = real.open;
        Object.assign(window, { WebAssembly: real.WebAssembly });
        Object.defineProperty(document, 'fullscreenEnabled', { configurable: true, get: () => true });
      },
    });
  });
}

test('each check fails and is mended; admitted by hand; a hand, minutes, a pause and a rest break', async ({
  page,
  app,
  candidate,
  staff,
  browser,
}) => {
  test.setTimeout(400_000);
  const played: string[] = [];
  page.on('request', (request) => {
    const digit = /\/sound\/(\d)\.wav/.exec(request.url())?.[1];
    if (digit) played.push(digit);
  });
  await breaks(page);
  await page.route('**/api/echo', (route) => route.abort());
  const signe = candidate(page, SIGNE);
  await signe.opensLink();
  await page.setViewportSize({ width: 330, height: 740 });
  await signe.confirmsDetails();
  const row = (name: string) =>
    page.getByRole('listitem').filter({ has: page.getByRole('heading', { name, exact: true }) });
  await expect(row('Browser')).toContainText('Your browser lacks: WebAssembly');
  await expect(row('Screen')).toContainText('Make the window wider');
  await expect(row('Storage')).toContainText('Your answers cannot be saved on this device');
  await expect(row('Full screen')).toContainText('This browser has no full screen');
  await expect(row('Connection')).toContainText('No answer from the server', { timeout: 60_000 });
  // With everything that is wrong in view, nothing slides sideways; also in very large text.
  await page.setViewportSize({ width: 320, height: 568 });
  for (const scale of ['1', '2']) {
    await page.evaluate((to) => document.documentElement.style.setProperty('--text-scale', to), scale);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(320);
  }
  await page.evaluate(() => document.documentElement.style.removeProperty('--text-scale'));
  await page.unroute('**/api/echo');
  await page.evaluate(() => (window as unknown as { mend: () => void }).mend());
  await page.setViewportSize({ width: 1280, height: 800 });
  for (const name of ['Browser', 'Screen', 'Storage', 'Connection', 'Full screen'])
    await row(name).getByRole('button', { name: 'Try again' }).click();
  for (const name of ['Browser', 'Screen', 'Storage', 'Full screen'])
    await expect(row(name)).toContainText('good');

  const camera = row('Camera').getByRole('combobox');
  for (const [scene, words] of [
    ['Stand-in: nobody there', 'Nobody is in view'],
    ['Stand-in: two people', 'More than one face is in view'],
    ['Stand-in: lens covered', 'The camera is covered'],
    ['Stand-in: in the dark', 'It is too dark to see you'],
    ['Stand-in: frozen picture', 'The picture does not move'],
    ['Drawn stand-in (demo)', 'Your face is in view. Lighting: good · Picture: sharp'],
  ] as const) {
    await camera.selectOption({ label: scene });
    await expect(row('Camera').getByText(words).first()).toBeVisible({ timeout: 60_000 });
  }

  const sound = row('Sound');
  const number = sound.getByRole('textbox');
  await sound.getByRole('combobox').selectOption({ label: 'Stand-in: silent' });
  const hear = async () => {
    played.length = 0;
    await sound.getByRole('button', { name: 'Play' }).click();
    await expect.poll(() => played.length).toBe(2);
    return played.join('');
  };
  const heard = await hear();
  await number.fill(heard === '00' ? '11' : '00');
  await expect(sound).toContainText('This is not the number that was spoken');
  await number.fill(heard);
  await expect(sound).toContainText('the microphone is silent');
  await sound.getByRole('combobox').selectOption({ label: 'Stand-in: a voice (demo)' });
  await expect(sound).toContainText('Sound and microphone work');
  await expect(row('Connection')).toContainText(/stable|can be used/, { timeout: 60_000 });
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(signe.heading('Your picture')).toBeVisible();
  await page.getByRole('combobox').selectOption({ label: 'Drawn stand-in (demo)' });
  await page.getByRole('button', { name: 'Take the picture' }).click();
  await page.getByRole('button', { name: 'Use this picture' }).click();
  await expect(signe.heading('A picture of your identity document')).toBeVisible();
  await hasNoBarriers(page, 'identity document');
  // Required here: there is no way on without it.
  await expect(page.getByRole('button', { name: 'Continue' })).toBeHidden();
  await page.getByRole('combobox').selectOption({ label: 'Drawn stand-in (demo)' });
  await page.getByRole('button', { name: 'Take a picture of the document' }).click();
  await page.getByRole('button', { name: 'Use this picture' }).click();
  await signe.ticksRules();

  await expect(signe.heading('Waiting room')).toBeVisible();
  await expect(page.getByText('You are number 1 in the queue.')).toBeVisible();
  // With all that comes to be on the page: the camera's words appear once it was looked at.
  const looked = page
    .getByRole('status')
    .filter({ hasText: 'Your face is in view. Lighting: good · Picture: sharp' });
  await expect(looked.first()).toBeVisible({ timeout: 45_000 });
  await hasNoBarriers(page, 'waiting room');
  await page.getByRole('button', { name: 'Raise a hand' }).click();
  await page.getByLabel('What do you need help with?').fill('Does the break count?');
  await page.getByRole('button', { name: 'Send and raise a hand' }).click();
  const office = await browser.newContext();
  const bram = await staff(await office.newPage(), 'invigilator');
  await bram.watches('Technician, supervised sitting');
  await expect(bram.page.getByText('Does the break count?')).toBeVisible();
  await hasNoBarriers(bram.page, 'watch room');
  await bram.does('Answer', 'Signe Tolland', 'It stops your clock.');
  await expect(page.getByText('It stops your clock.').first()).toBeVisible();
  await page.keyboard.press('Escape');
  // All her checks went well in the end: nobody is asked why.
  await bram.page
    .getByRole('row')
    .filter({ hasText: 'Signe Tolland' })
    .getByRole('button', { name: 'Admit' })
    .click();
  await expect(page.getByText('You have rest breaks of 10 min in total')).toBeVisible();
  await expect(page.getByText('1 h 15 min', { exact: true })).toBeVisible();
  await signe.starts();

  const timer = page.getByRole('timer');
  await bram.does('Grant minutes', 'Signe Tolland', 'The alarm rang', 5);
  await expect(timer).toHaveText(/^1:(20:00|19:[345])/);
  await bram.does('Pause', 'Signe Tolland', 'The hall is cleared');
  await expect(signe.heading('Your test is paused')).toBeVisible();
  await hasNoBarriers(page, 'paused');
  await app.advance(12);
  await bram.does('Continue', 'Signe Tolland', 'Everybody is back');
  await expect(signe.heading('Question 1')).toBeVisible();
  await expect(timer).toHaveText(/^1:(19|18):/);
  await page.getByRole('button', { name: 'Take a break' }).click();
  await expect(signe.heading('You are taking a break')).toBeVisible();
  await expect(page.getByText('The young root')).toBeHidden();
  await app.advance(4);
  await page.getByRole('button', { name: 'Continue the test' }).click();
  await expect(timer).toHaveText(/^1:(19|18):/);
  await page.getByRole('button', { name: 'Take a break' }).click();
  await expect(signe.heading('You are taking a break')).toBeVisible();
  // Six minutes of the ten are left: the clock goes on by itself when they are used up.
  await app.advance(7);
  await page.reload();
  await expect(signe.heading('Question 1')).toBeVisible();
  await expect(timer).toHaveText(/^1:(18|17|16):/);
  await expect(page.getByRole('button', { name: 'Take a break' })).toBeHidden();
  // Each start and end of a stop is confirmed by the device as well.
  const events = app
    .rows<{ type: string; reason: string }>(
      "select json_extract(event, '$.type') as type, reason from time_events order by id",
    )
    .filter(({ type }) => type !== 'confirmed');
  expect(events.map((e) => e.type)).toEqual([
    'started',
    'granted',
    'paused',
    'went on',
    'break began',
    'break ended',
    'break began',
  ]);
  expect(events[1]!.reason).toBe('The alarm rang');
});

test('waiting rooms: a door code, and the opening time', async ({ page, app, candidate, staff, browser }) => {
  const corin = candidate(page, CORIN);
  await corin.comesToWaitingRoom();
  await expect(page.getByRole('timer')).toContainText('until it opens');
  const office = await browser.newContext();
  const bram = await staff(await office.newPage(), 'invigilator');
  await bram.watches('Technician, evening sitting');
  await expect(bram.page.getByText('door code', { exact: false })).toBeHidden();
  await app.advance(21);
  await bram.page.reload();
  const code = bram.page.locator('b.font-mono');
  await expect(code).toHaveText(/^\d{3} \d{3}$/);
  await page.reload();
  await page.getByLabel('Door code').fill('123 45');
  const enter = page.getByRole('button', { name: 'Use this code' });
  await enter.click();
  await expect(page.getByRole('alert').filter({ hasText: 'This did not count as a try' })).toBeVisible();
  const right = (await code.textContent())!.replace(' ', '');
  await page.getByLabel('Door code').fill(right.replace(/.$/, (digit) => String((Number(digit) + 1) % 10)));
  await enter.click();
  await expect(page.getByRole('alert').filter({ hasText: 'This is not the code' })).toBeVisible();
  await page.getByLabel('Door code').fill(right);
  await enter.click();
  await expect(page.getByRole('button', { name: 'Start – the clock begins' })).toBeVisible();
  const acts = app.rows<{ act: string }>("select act from audit where act like '%door%' order by id");
  expect(acts.map((a) => a.act)).toEqual(['gave-wrong-door-code', 'entered-by-door-code']);

  // The round of January opens in fifty days: the page counts down, the doors open before, the test at its time.
  const home = await browser.newContext();
  const tove = candidate(await home.newPage(), TOVE);
  await tove.opensLink();
  await expect(tove.page.getByRole('timer')).toContainText(/49 days 23 hours|50 days/);
  const calendar = tove.page.waitForEvent('download');
  await tove.page.getByRole('link', { name: 'Add to my calendar' }).click();
  expect((await calendar).suggestedFilename()).toBe('test-window.ics');
  await app.advance(50 * DAY_MIN - 21 - 10);
  await tove.comesToWaitingRoom();
  await app.advance(11);
  await tove.page.reload();
  await expect(tove.page.getByRole('button', { name: 'Start – the clock begins' })).toBeEnabled();
});

test('a rehearsal from the round’s own page: scored at once, and nothing of it is kept', async ({
  page,
  app,
  candidate,
}) => {
  await page.goto(`${app.url}/r/technician-november/rehearsal`);
  await page.getByRole('button', { name: 'Without the clock' }).click();
  const anybody = candidate(page);
  await expect(anybody.heading('Question 1')).toBeVisible();
  await anybody.chooses('Bram');
  await anybody.goesTo(2);
  await anybody.entersFigure('44');
  await anybody.goesTo(8);
  await anybody.programs('JavaScript', 'const pots = (cups) => Math.ceil(cups / 8);');
  await anybody.triesAllCases();
  await expect(page.getByText('2 of 2 as expected')).toBeVisible({ timeout: 45_000 });
  await anybody.looksBack();
  await anybody.handsInRehearsal();
  await hasNoBarriers(page, 'rehearsal');
  // One for Bram, two for 44 cups, three for the pots: 6 of 16. The connection was checked without a link, too.
  await expect(page.getByRole('main')).toContainText('6 of 16');
  await expect(page.getByRole('main')).toContainText(/(Fast and stable|can be used) \(\d+ ms\)/);
  expect(app.rows('select * from journal')).toEqual([]);
  expect(app.rows('select * from sittings')).toEqual([]);
});

test('a rehearsal has the sections of its paper: one closed until it is entered, one gone through once', async ({
  page,
  app,
  candidate,
}) => {
  await page.goto(`${app.url}/r/field-school-entrance/rehearsal`);
  // The checks of the round, as on the day.
  await expect(page.getByRole('heading', { level: 2, name: 'Sound' })).toBeVisible();
  await page.getByRole('button', { name: /^With the clock/ }).click();
  const anybody = candidate(page);
  await expect(anybody.heading('Question 1')).toBeVisible();
  await anybody.goesTo(7);
  await expect(page.getByRole('heading', { name: 'Section C has a time limit of its own' })).toBeVisible();
  await expect(page.getByRole('main')).toContainText('5 min');
  await page.getByRole('button', { name: /^Enter section C/ }).click();
  await expect(page.getByRole('main').getByText(/4:5\d/)).toBeVisible();
  const turn = page.getByRole('dialog');
  const rail = page.getByRole('navigation', { name: 'Questions' });
  await rail.getByRole('button', { name: /^Question 9,/ }).click();
  await expect(turn).toContainText('Section D is forward only');
  await turn.getByRole('button', { name: 'Enter section D' }).click();
  await expect(anybody.heading('Question 9')).toBeVisible();
  await page.keyboard.press('Alt+PageDown');
  await expect(turn).toContainText('Continue without finishing question 9?');
});
