import type { Page } from '@playwright/test';
import { hasNoBarriers } from './barriers';
import { AMADOU, BETTINA, expect, test } from './testApp';

/** Is the page as wide as its window, and no wider? */
const noSidewaysScroll = async (page: Page, where: string) =>
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth + 1),
    where,
  ).toBe(true);

/** 1280 × 800 at 400 % and at 200 %, in pixels of the page. */
const ZOOMED = [
  [320, 200],
  [640, 400],
] as const;

const inView = (page: Page, role: Parameters<Page['getByRole']>[0], name: string | RegExp, exact = false) =>
  page.getByRole(role, { name, exact }).filter({ visible: true });

test('every source and handout by pointer', async ({ page, candidate }) => {
  const amadou = candidate(page, AMADOU);
  await amadou.arrives();

  await test.step('introductions fold; the source and the answer can each have the width', async () => {
    const fold = page.getByText('Introduction to section A');
    const text = page.getByRole('paragraph').filter({ hasText: 'A recording can be played twice.' });
    await expect(text).toBeVisible();
    await fold.click();
    await expect(text).toBeHidden();
    await inView(page, 'button', 'Source only').click();
    await expect(page.getByText('Where does group three begin?')).toBeHidden();
    await inView(page, 'button', 'Answer only').click();
    await expect(page.getByText('Where does group three begin?')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Recording: Morning briefing' })).toBeHidden();
    await inView(page, 'button', 'Both').click();
    await hasNoBarriers(page, 'a recording');
  });

  await test.step('a picture opens large, zooms and moves', async () => {
    await amadou.goesTo(2);
    await expect(page.getByRole('img', { name: /^A map of an island/ })).toBeVisible();
    await page.getByRole('button', { name: 'Enlarge: Hollin Reach' }).click();
    const large = page.getByRole('dialog', { name: 'Hollin Reach, with its paths' });
    const picture = large.getByRole('img');
    const placeOf = async () => (await picture.boundingBox())!;
    const before = await placeOf();
    await page.mouse.move(640, 400);
    await page.mouse.wheel(0, -400);
    await expect.poll(async () => (await placeOf()).width).toBeGreaterThan(before.width * 1.2);
    const zoomed = await placeOf();
    await page.mouse.down();
    await page.mouse.move(500, 300, { steps: 5 });
    await page.mouse.up();
    await expect.poll(async () => (await placeOf()).x).not.toBe(zoomed.x);
    await large.getByRole('button', { name: 'Fit' }).click();
    await expect.poll(async () => Math.round((await placeOf()).width)).toBe(Math.round(before.width));
    await hasNoBarriers(page, 'a large picture');
    await large.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('passages in tabs keep their scroll; words have meanings', async () => {
    await amadou.goesTo(3);
    await page.setViewportSize({ width: 1280, height: 520 });
    const place = () =>
      inView(page, 'tabpanel', /./)
        .first()
        .evaluate((panel) => panel.querySelector<HTMLElement>('[tabindex="0"]')!.scrollTop);
    await inView(page, 'tabpanel', 'Sea kale').hover();
    await page.mouse.wheel(0, 120);
    await expect.poll(place).toBeGreaterThan(40);
    const left = await place();
    await page.getByRole('tab', { name: 'Sea holly' }).click();
    await expect(page.getByRole('cell', { name: '82 %' })).toBeVisible();
    await page.getByRole('tab', { name: 'Thrift' }).click();
    await expect(page.locator('.katex-display').filter({ visible: true })).toBeVisible();
    await amadou.goesTo(2);
    await amadou.goesTo(3);
    await page.getByRole('tab', { name: 'Sea kale' }).click();
    expect(await place()).toBe(left);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.getByRole('button', { name: 'shingle' }).click();
    await expect(page.getByRole('dialog', { name: 'Meaning' })).toHaveText('small round stones on a beach');
    await page.keyboard.press('Escape');
  });

  await test.step('handouts lie beside the question, are moved and sized, and are there after a reload', async () => {
    await page.getByRole('button', { name: 'Handouts' }).click();
    await page.getByRole('button', { name: /^Rules for collecting/ }).click();
    const rules = page.getByRole('dialog', { name: 'Handout: Rules for collecting' });
    const formulas = page.getByRole('dialog', { name: 'Handout: Formulas and limits' });
    // What was opened has the focus, and the list is closed by that.
    await expect(rules).toBeVisible();
    await expect(page.getByRole('button', { name: /^Formulas and limits/ })).toBeHidden();
    await page.getByRole('button', { name: 'Handouts' }).click();
    await page.getByRole('button', { name: /^Formulas and limits/ }).click();
    await expect(formulas).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(formulas).toBeHidden();
    await expect(rules.getByText('Take no more than 20 %')).toBeVisible();
    await page.getByRole('button', { name: 'Handouts' }).click();
    await page.getByRole('button', { name: /^Formulas and limits/ }).click();
    await expect(formulas.getByRole('cell', { name: 'Sea kale' })).toBeVisible();
    await page.getByRole('button', { name: 'Handouts' }).click();
    await expect(rules).toBeVisible();
    const grip = rules.getByRole('button', { name: /^Handout: Rules for collecting\. Move/ });
    const from = (await grip.boundingBox())!;
    await page.mouse.move(from.x + 40, from.y + 15);
    await page.mouse.down();
    await page.mouse.move(from.x + 100, from.y + 160, { steps: 8 });
    await page.mouse.up();
    await expect.poll(async () => Math.round((await grip.boundingBox())!.x)).toBe(Math.round(from.x + 60));
    // Worked with beside the question: neither is in the way of the other.
    await amadou.chooses('Sea holly');
    await amadou.isSaved();
    await page.reload();
    await expect(rules.getByText('Take no more than 20 %')).toBeVisible();
    expect(Math.round((await grip.boundingBox())!.x)).toBe(Math.round(from.x + 60));
    await expect(formulas).toBeVisible();
    await hasNoBarriers(page, 'handouts');
    await formulas.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('a document is turned over, zoomed, searched, and its text can be chosen', async () => {
    const rules = page.getByRole('dialog', { name: 'Handout: Rules for collecting' });
    await rules.getByRole('button', { name: 'Next page' }).click();
    await expect(rules.getByRole('textbox', { name: 'Page of 2' })).toHaveValue('2');
    await rules.getByRole('searchbox').fill('one plant in five');
    await expect(rules.getByRole('status')).toHaveText('1 of 1 result');
    await expect(rules.getByRole('textbox', { name: 'Page of 2' })).toHaveValue('1');
    await rules.getByRole('searchbox').fill('ostrich');
    await expect(rules.getByRole('status')).toHaveText('Not found');
    const line = rules.getByText('Take no more than 20 %');
    const before = (await line.boundingBox())!.width;
    await rules.getByRole('button', { name: 'Zoom in' }).click();
    await expect.poll(async () => (await line.boundingBox())!.width).toBeGreaterThan(before * 1.1);
    await line.click({ clickCount: 3 });
    expect(await page.evaluate(() => getSelection()!.toString())).toContain('ripe seed of a plant');
    await rules.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('a chart has its table one press away', async () => {
    await amadou.goesTo(4);
    await expect(page.getByRole('img', { name: /^Germination of three lots\. Three lines/ })).toBeVisible();
    await hasNoBarriers(page, 'a chart');
    await inView(page, 'button', 'Show as a table').click();
    await expect(page.getByRole('row', { name: '14 70 43 9' })).toBeVisible();
  });

  await test.step('two questions on one page have a place each on the rail', async () => {
    await amadou.goesTo(5);
    await page.getByRole('region', { name: 'Question 6' }).getByRole('textbox').fill('35.2');
    await expect(amadou.heading('Question 6')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Question 6, Four bags, 2 marks, done/ })).toBeVisible();
    await page.getByRole('region', { name: 'Question 5' }).getByRole('textbox').fill('29.3');
    await expect(page.getByRole('button', { name: /^Question 5, One bag, 2 marks, done/ })).toBeVisible();
    await hasNoBarriers(page, 'two questions on a page');
  });

  await test.step('a film plays with captions, at another speed, wound and large', async () => {
    await amadou.goesTo(7);
    await page.getByRole('button', { name: 'Enter section C' }).click();
    const film = page.getByRole('region', { name: 'Video: A tray of sea kale' });
    const video = film.locator('video');
    const facts = () =>
      video.evaluate((one: HTMLVideoElement) => ({
        paused: one.paused,
        speed: one.playbackRate,
        at: one.currentTime,
        captions: one.textTracks[0]!.mode,
        cue: (one.textTracks[0]!.activeCues?.[0] as VTTCue | undefined)?.text,
      }));
    await film.getByRole('button', { name: 'Play' }).click();
    await expect.poll(async () => (await facts()).at).toBeGreaterThan(0.5);
    await expect
      .poll(async () => (await facts()).cue)
      .toBe('This tray holds twelve seeds of sea kale on damp sand.');
    await film.getByRole('combobox').selectOption('1.5×');
    await film.getByRole('button', { name: 'Pause' }).click();
    await film.getByRole('slider', { name: 'Position in A tray of sea kale' }).fill('16');
    await film.getByRole('button', { name: 'Captions off' }).click();
    expect(await facts()).toMatchObject({ paused: true, speed: 1.5, at: 16, captions: 'hidden' });
    await film.getByRole('button', { name: 'Enlarge' }).click();
    expect((await video.boundingBox())!.width).toBeGreaterThan(900);
    await page.keyboard.press('Escape');
    await film.getByText('Description of the video').click();
    await expect(film.getByText('A counter shows day 0, 7, 14 and 21.')).toBeVisible();
    await hasNoBarriers(page, 'a film');
  });
});

/** Goes on with Tab until a named control is in focus. */
async function tabsTo(page: Page, name: string | RegExp): Promise<void> {
  const wanted = page
    .getByRole('button', { name })
    .or(page.getByRole('slider', { name }))
    .or(page.getByRole('tab', { name }));
  for (let n = 0; n < 80; n++) {
    if (await wanted.and(page.locator(':focus')).count()) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`nobody comes to ${String(name)} by the Tab key`);
}

test('every source and handout by keys alone, and heard in their order', async ({ page, candidate }) => {
  const amadou = candidate(page, AMADOU);
  await amadou.arrives();
  const keys = page.keyboard;

  await test.step('a recording', async () => {
    await tabsTo(page, 'Play a test tone');
    await keys.press('Enter');
    await tabsTo(page, 'I hear the tone');
    await keys.press('Enter');
    await tabsTo(page, 'Volume');
    await keys.press('ArrowLeft');
    const player = page.getByRole('region', { name: 'Recording: Morning briefing' });
    await expect(player.getByRole('slider', { name: 'Volume' })).toHaveAttribute('aria-valuetext', '75 %');
    // What a screen reader meets, in this order.
    await expect(player).toMatchAriaSnapshot(`
      - heading "Morning briefing" [level=3]
      - status: /You can play it two more times .+, 1 min 3 s You cannot pause it or play a part of it again\\./
      - button "Play – counts as one time"
      - progressbar "Position in Morning briefing"
      - slider "Volume"
    `);
  });

  await test.step('a picture', async () => {
    await keys.press('Alt+PageDown');
    await tabsTo(page, /^Enlarge/);
    await keys.press('Enter');
    const picture = page.getByRole('dialog').getByRole('img');
    const placeOf = async () => (await picture.boundingBox())!;
    const before = await placeOf();
    await keys.press('+');
    await expect.poll(async () => (await placeOf()).width).toBeGreaterThan(before.width * 1.2);
    const zoomed = await placeOf();
    await keys.press('ArrowRight');
    await expect.poll(async () => Math.round((await placeOf()).x - zoomed.x)).toBe(-60);
    await keys.press('0');
    await expect.poll(async () => Math.round((await placeOf()).width)).toBe(Math.round(before.width));
    await keys.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
  });

  await test.step('tabs and meanings', async () => {
    await keys.press('Alt+PageDown');
    await tabsTo(page, 'Sea kale');
    await keys.press('ArrowRight');
    await expect(page.getByRole('tab', { name: 'Sea holly' })).toHaveAttribute('aria-selected', 'true');
    await keys.press('ArrowLeft');
    await tabsTo(page, 'germinate');
    await keys.press('Enter');
    await expect(page.getByRole('dialog', { name: 'Meaning' })).toContainText('begin to grow');
    await keys.press('Escape');
    await expect(page.getByRole('button', { name: 'germinate' })).toBeFocused();
    await expect(inView(page, 'tabpanel', 'Sea kale')).toMatchAriaSnapshot(`
      - tabpanel "Sea kale":
        - heading "Sea kale" [level=2]
        - heading "Sea kale" [level=3]
        - paragraph:
          - text: Sea kale grows on
          - button "shingle"
          - text: /above the line/
        - paragraph:
          - text: /The case has to be opened/
          - button "germinate"
          - text: /a year later/
        - text: /1 Sow in March, on damp sand\\. 2 Keep at 15 °C/
    `);
  });

  await test.step('a handout is moved and sized by arrows', async () => {
    await tabsTo(page, 'Handouts');
    await keys.press('Enter');
    await tabsTo(page, /^Rules for collecting/);
    await keys.press('Enter');
    const panel = page.getByRole('dialog', { name: 'Handout: Rules for collecting' });
    const grip = panel.getByRole('button', { name: /Move with the arrow keys/ });
    await expect(grip).toBeFocused();
    const before = (await panel.boundingBox())!;
    await keys.press('ArrowRight');
    await keys.press('ArrowDown');
    await keys.press('Shift+ArrowRight');
    await expect
      .poll(async () => {
        const { x, y, width } = (await panel.boundingBox())!;
        return [x - before.x, y - before.y, width - before.width].map(Math.round);
      })
      .toEqual([20, 20, 20]);
    await tabsTo(page, 'Next page');
    await keys.press('Enter');
    await expect(panel.getByRole('textbox', { name: 'Page of 2' })).toHaveValue('2');
    await keys.press('Escape');
    await expect(panel).toBeHidden();
  });

  await test.step('a chart and a film', async () => {
    await keys.press('Alt+PageDown');
    await tabsTo(page, 'Show as a table');
    await keys.press('Enter');
    await expect(page.getByRole('row', { name: '28 74 82 61' })).toBeVisible();
    for (let n = 0; n < 3; n++) await keys.press('Alt+PageDown');
    await tabsTo(page, 'Enter section C');
    await keys.press('Enter');
    await tabsTo(page, 'Play');
    await keys.press('Enter');
    const video = page.locator('video').filter({ visible: true });
    await expect.poll(() => video.evaluate((one: HTMLVideoElement) => one.currentTime)).toBeGreaterThan(0.3);
    await keys.press(' ');
    expect(await video.evaluate((one: HTMLVideoElement) => one.paused)).toBe(true);
    await tabsTo(page, 'Position in A tray of sea kale');
    await keys.press('End');
    await expect.poll(() => video.evaluate((one: HTMLVideoElement) => one.currentTime)).toBeGreaterThan(18);
  });
});

test.describe('at 360 × 740', () => {
  test.use({ viewport: { width: 360, height: 740 }, hasTouch: true });

  test('sources and handouts on a phone, with transcripts, enlarged, and in forced colours', async ({
    page,
    candidate,
  }) => {
    const bettina = candidate(page, BETTINA);
    await bettina.arrives();
    const source = () => inView(page, 'tab', 'Source').tap();
    const next = () => page.keyboard.press('Alt+PageDown');
    await source();
    // By arrangement she reads what the others hear.
    await expect(page.getByRole('region', { name: 'Transcript of “Morning briefing”' })).toContainText(
      'Group three begins at the seed store',
    );
    await noSidewaysScroll(page, 'a transcript');
    await next();
    await source();
    await page.getByRole('button', { name: /^Enlarge/ }).tap();
    await expect(page.getByRole('dialog').getByRole('img')).toBeVisible();
    await hasNoBarriers(page, 'a large picture on a phone');
    await page.getByRole('button', { name: 'Close' }).tap();
    await next();
    await source();
    await page.getByRole('tab', { name: 'Sea holly' }).tap();
    await expect(page.getByRole('cell', { name: '82 %' })).toBeVisible();
    await noSidewaysScroll(page, 'a table');
    await inView(page, 'tab', 'Answer').tap();
    await bettina.chooses('Sea holly');
    await source();
    // Both tabs are as they were left.
    await expect(page.getByRole('cell', { name: '82 %' })).toBeVisible();
    await page.getByRole('button', { name: 'Kit' }).tap();
    await page.getByRole('button', { name: 'Handouts' }).tap();
    await page.getByRole('button', { name: /^Rules for collecting/ }).tap();
    const sheet = page.getByRole('dialog', { name: 'Handout: Rules for collecting' });
    await expect(sheet.getByText('Take no more than 20 %')).toBeVisible();
    const box = (await sheet.boundingBox())!;
    expect([box.x, box.width, Math.round(box.y + box.height)]).toEqual([0, 360, 740]);
    await hasNoBarriers(page, 'a handout on a phone');
    await sheet.getByRole('button', { name: 'Close' }).tap();
    await next();
    await source();
    await expect(page.getByRole('img', { name: /^Germination of three lots/ })).toBeVisible();
    await noSidewaysScroll(page, 'a chart');
    for (const [width, height] of ZOOMED) {
      await page.setViewportSize({ width, height });
      await noSidewaysScroll(page, `a chart at ${width} pixels`);
      await page.keyboard.press('Alt+PageUp');
      await noSidewaysScroll(page, `a table at ${width} pixels`);
      await page.keyboard.press('Alt+PageDown');
    }
    await page.emulateMedia({ forcedColors: 'active' });
    await page.setViewportSize({ width: 360, height: 740 });
    await hasNoBarriers(page, 'a chart in forced colours');
    for (let n = 0; n < 3; n++) await next();
    await page.getByRole('button', { name: 'Enter section C' }).tap();
    await source();
    await expect(page.getByRole('region', { name: 'Video: A tray of sea kale' })).toBeVisible();
    await hasNoBarriers(page, 'a film in forced colours');
    for (const [width, height] of [[360, 740] as const, ...ZOOMED]) {
      await page.setViewportSize({ width, height });
      await noSidewaysScroll(page, `a film at ${width} pixels`);
    }
  });
});
