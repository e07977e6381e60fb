import type { JournalKept } from '../core/sittings/api';
import { hasNoBarriers } from './barriers';
import { readableOf } from './stored';
import { expect, ILSE, test } from './testApp';

test.use({ serviceWorkers: 'allow' });

test('kill -9 while answers are typed: every acknowledged answer is there', async ({
  page,
  app,
  candidate,
}) => {
  const ilse = candidate(page);
  let held = 0;
  page.on('response', (response) => {
    if (!response.url().endsWith('/api/sitting/journal') || !response.ok()) return;
    void response.json().then(
      (kept: JournalKept) => (held = Math.max(held, kept.held)),
      () => undefined,
    );
  });
  await ilse.arrives();
  await ilse.goesTo(8);
  const before = held;
  await page.getByRole('main').getByRole('textbox').click();
  for (const word of ['The', 'supply', 'to', 'bay', 'three', 'dipped', 'at', 'night'])
    await page.keyboard.type(`${word} `, { delay: 40 });
  await expect.poll(() => held).toBeGreaterThan(before);
  await page.keyboard.type('and the cooler ', { delay: 15 });
  await app.killHard();
  const promised = held;
  await page.keyboard.type('did not take over.', { delay: 15 });
  await expect(page.locator('[data-saved="kept"]')).toContainText('Saved on this device – connection lost');
  await app.start();
  const numbers = app.rows<{ number: number }>('select number from journal').map((row) => row.number);
  for (let number = 1; number <= promised; number++) expect(numbers).toContain(number);
  await ilse.isSaved();
  const [current] = app.rows<{ value: string }>(
    "select value from current_answers where about = 'answer' and target = 'incident-note/A'",
  );
  expect(current!.value).toContain(
    'The supply to bay three dipped at night and the cooler did not take over.',
  );
  expect(app.rows('select 1 from journal where variant > 0')).toEqual([]);
});

test('a closed window: the link goes on where one was, and the clock has run on', async ({
  page,
  app,
  candidate,
  context,
}) => {
  const ilse = candidate(page);
  await ilse.arrives();
  await ilse.chooses('The young root');
  await ilse.goesTo(5);
  await page.getByRole('button', { name: 'Strike out K-1' }).click();
  await ilse.entersFigure('71.3');
  await page.getByRole('button', { name: 'Flag', exact: true }).click();
  await ilse.isSaved();
  // The device's own clock jumps by three hours, forth and back: nothing changes.
  const before = await page.getByRole('timer').textContent();
  await page.evaluate(() => {
    const real = Date.now.bind(Date);
    Date.now = () => real() + 3 * 3_600_000;
  });
  await ilse.entersFigure('71.4');
  await expect(page.getByRole('timer')).toHaveText(/^1:14:/);
  expect(before).toMatch(/^1:1[45]:/);
  await expect(page.getByText('Your paper is handed in')).toBeHidden();
  await ilse.isSaved();
  const [entry] = app.rows<{ lag: number }>(
    'select arrived_at - claimed_at as lag from journal order by arrival desc limit 1',
  );
  expect(Math.abs(entry!.lag)).toBeLessThan(60_000);

  await page.close();
  await app.advance(20);
  const again = candidate(await context.newPage());
  await again.opensLink();
  await expect(again.heading('Question 5')).toBeVisible();
  await expect(again.page.getByRole('timer')).toHaveText(/^54:/);
  await expect(again.page.getByRole('main').getByRole('textbox').first()).toHaveValue('71.4');
  await expect(again.page.getByRole('button', { name: 'Restore K-1' })).toBeVisible();
  await expect(again.page.getByRole('button', { name: 'Flagged', exact: true })).toBeVisible();
  await again.goesTo(1);
  await expect(again.page.getByLabel('The young root', { exact: true })).toBeChecked();
});

test('at the deadline the paper hands itself in, on the desk and with the browser gone', async ({
  page,
  app,
  candidate,
  browser,
}) => {
  const ilse = candidate(page);
  await ilse.arrives();
  await ilse.chooses('The young root');
  await ilse.isSaved();
  await app.advance(61);
  // The page hears of it with its next message: after that it has been warned, and is not warned again.
  await expect(page.getByRole('timer')).toHaveText(/^1[34]:/);
  await page.reload();
  await expect(page.locator('[data-warning]')).toHaveCount(0);
  await app.advance(9.9);
  await page.reload();
  await expect(page.getByRole('timer')).toHaveText(/^[34]:/);
  const gone = await browser.newContext();
  const mattis = candidate(await gone.newPage(), 'mattis.okafor.lind@example.org');
  await mattis.arrives();
  await mattis.goesTo(3);
  await mattis.entersFigure('-19');
  await mattis.isSaved();
  await gone.close();
  await app.advance(4.5);
  await page.reload();
  await expect(ilse.heading('Your paper is handed in')).toBeVisible();
  await expect(page.getByText(/handed in automatically|had reached the server were handed in/)).toBeVisible();
  await app.advance(60);
  const closed = app.rows<{ by: string; used: number }>(
    'select closed_by as by, closed_at - started_at as used from sittings order by id',
  );
  expect(closed).toHaveLength(2);
  // What the start itself took on its way is given back: far below a second on this machine, seconds on a starved one.
  expect(closed[1]!.by).toBe('server');
  for (const [i, minutes] of [75, 60].entries()) {
    const given = closed[i]!.used - minutes * 60_000;
    expect(given).toBeGreaterThanOrEqual(0);
    expect(given).toBeLessThan(60_000);
  }
  // Mattis's device never came back: his paper is settled twelve minutes after its end.
  await app.advance(13);
  await app.doJobs();
  const [mark] = app.rows<{ hundredths: number }>(
    "select hundredths from marks where target = 'reading-the-dial/A' order by id desc",
  );
  expect(mark!.hundredths).toBe(200);
  expect(app.linkOf(ILSE)).toBe(new URL(ilse.link).pathname);
});

test('a section with a limit of its own: entered, run out, sealed, and the rest goes on', async ({
  page,
  app,
  candidate,
}) => {
  await app.killHard();
  app.change("update paper_versions set document = json_set(document, '$.sections[0].minutes', 10)");
  await app.start();
  const ilse = candidate(page);
  await ilse.comesToCover();
  await expect(page.getByRole('row', { name: /^A / })).toContainText('10');
  await ilse.starts();
  // Sealed until it is entered: neither the page nor the device knows a word of it.
  await expect(page.getByRole('heading', { name: 'Section A has a time limit of its own' })).toBeVisible();
  await hasNoBarriers(page, 'before a section');
  expect(await readableOf(page, ['germinates'])).toEqual([]);
  await ilse.goesTo(5);
  await expect(page.getByRole('heading', { name: /time limit of its own/ })).toBeHidden();
  await ilse.goesTo(1);
  await page.getByRole('button', { name: 'Enter section A – its time begins' }).click();
  // Ten minutes, and a quarter more for her.
  await expect(page.getByText(/^12:[0-3]\d left in this section/)).toBeVisible();
  await ilse.chooses('The young root');
  await ilse.isSaved();
  await app.advance(6);
  await ilse.goesTo(2);
  await expect(page.getByText(/^6:[0-3]\d left in this section/)).toBeVisible();
  await app.advance(7);
  await page.getByRole('button', { name: 'Flag', exact: true }).click();
  await expect(page.getByText('The time for this section has ended')).toBeVisible();
  // What ran while the server heard nothing is given back until the device has shown that it knows: with the next save.
  await page.getByRole('button', { name: 'Flagged', exact: true }).click();
  await ilse.isSaved();
  // The page can still show the state of the save before: what has arrived is asked of the server.
  await expect.poll(() => app.rows("select value from journal where about = 'flag'")).toHaveLength(2);
  await ilse.isSaved();
  // Sealed: neither pointer nor key changes what is there, on this question or another of the section.
  await ilse.goesTo(1);
  const root = page.getByLabel('The young root', { exact: true });
  await expect(root).toBeChecked();
  await expect(page.getByText('The time for this section has ended')).toBeVisible();
  await page.getByText('The first leaf', { exact: true }).click({ force: true });
  await page.keyboard.press('ArrowDown');
  await expect(root).toBeChecked();
  await ilse.goesTo(5);
  await expect(page.getByText('The time for this section has ended')).toBeHidden();
  const [first] = app.rows<{ section: string }>(
    "select json_extract(event, '$.section') as section from time_events where json_extract(event, '$.type') = 'section entered'",
  );
  expect(first).toEqual({ section: 'A' });
  await ilse.handsIn();
  const counted = app.rows<{ value: string }>(
    "select value from current_answers where target = 'parts-of-a-seed/A' and about = 'answer'",
  );
  expect(counted).toEqual([{ value: '{"response":{"chosen":["root"]},"version":1}' }]);
});
