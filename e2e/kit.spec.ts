import type { Locator, Page } from '@playwright/test';
import { hasNoBarriers } from './barriers';
import { ForgedClient } from './people/ForgedClient';
import { AMADOU, BETTINA, expect, ILSE, test } from './testApp';

const panel = (page: Page, name: string | RegExp) => page.getByRole('dialog', { name });
const tool = (page: Page, name: string) =>
  page.locator('[data-kit]').getByRole('button', { name, exact: true }).filter({ visible: true });
/** Opens what has no room in the row of aids. */
const opensKit = (page: Page) => page.getByRole('button', { name: 'Kit', exact: true }).click();
/** What the browser has drawn as highlights of a tint, as text. */
const drawn = (page: Page, tint: string) =>
  page.evaluate(
    (name) => [...(CSS.highlights.get(name) ?? [])].map((range) => (range as Range).toString()),
    tint,
  );
/** Selects words of a text as a pointer would leave them selected. */
const selects = (text: Locator, words: string) =>
  text.evaluate((root, wanted) => {
    const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) {
      const at = walker.currentNode.textContent!.indexOf(wanted);
      if (at < 0) continue;
      document
        .getSelection()!
        .setBaseAndExtent(walker.currentNode, at, walker.currentNode, at + wanted.length);
      return;
    }
    throw new Error(`no “${wanted}” here`);
  }, words);
const source = (page: Page) => page.locator('[data-text$="|tab-0"]').filter({ visible: true }).first();
const boxOf = async (of: Locator) => (await of.boundingBox())!;
async function drags(page: Page, from: Locator, across: number, down: number): Promise<void> {
  const { x, y, width, height } = await boxOf(from);
  const [left, top] = [x + width / 2, y + height / 2];
  await page.mouse.move(left, top);
  await page.mouse.down();
  await page.mouse.move(left + across, top + down, { steps: 6 });
  await page.mouse.up();
}
const noSidewaysScroll = async (page: Page, where: string) =>
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth + 1), where).toBe(true);

test('the aids of a section by pointer, over a reload and on another device', async ({
  page,
  candidate,
  browser,
}) => {
  const amadou = candidate(page, AMADOU);
  await amadou.arrives();
  await amadou.goesTo(3);

  await test.step('highlights in three tints, listed, cleared one and all', async () => {
    await tool(page, 'Highlight').click();
    const own = panel(page, 'Highlight');
    await selects(source(page), 'Sea kale');
    await expect(own.getByRole('status')).toHaveText('Chosen: Sea kale');
    await own.getByRole('button', { name: 'Blue, dotted line' }).click();
    await expect.poll(() => drawn(page, 'dotted')).toEqual(['Sea kale']);
    await selects(page.locator('[data-text$="|part-a"]').filter({ visible: true }).first(), 'Which');
    await own.getByRole('button', { name: 'Violet, dashed line' }).click();
    await expect(own.getByText('2 highlights here')).toBeVisible();
    await own.getByRole('button', { name: 'Remove the highlight: Which' }).click();
    await expect.poll(() => drawn(page, 'dashed')).toEqual([]);
    // Whole words, the tints at what is selected, and taken back by a press on it.
    await selects(page.locator('[data-text$="|part-a"]').filter({ visible: true }).first(), 'hich');
    await expect(own.getByRole('status')).toHaveText('Chosen: Which');
    const nearby = page.locator('[data-kit][aria-hidden]');
    await nearby.getByTitle('Yellow, solid line').click();
    await expect.poll(() => drawn(page, 'solid')).toEqual(['Which']);
    await expect(nearby).toHaveCount(0);
    const word = await page
      .locator('[data-text$="|part-a"]')
      .filter({ visible: true })
      .first()
      .evaluate(() => {
        const [range] = [...CSS.highlights.get('solid')!] as Range[];
        const { x, y, width, height } = range!.getBoundingClientRect();
        return { x: x + width / 2, y: y + height / 2 };
      });
    await page.mouse.click(word.x, word.y);
    await nearby.getByTitle('Clear').click();
    await expect.poll(() => drawn(page, 'solid')).toEqual([]);
  });

  await test.step('a slot that dims all but a few lines, and lets every press through', async () => {
    await tool(page, 'Reading slot').click();
    const slot = page.getByRole('group', { name: 'Reading slot' });
    const before = await boxOf(slot);
    await drags(page, slot.getByRole('button', { name: /^Move/ }), 0, 70);
    await expect.poll(async () => Math.round((await boxOf(slot)).y - before.y)).toBe(70);
    await drags(page, slot.getByRole('button', { name: /^Height/ }), 0, 40);
    await expect(slot.getByRole('button', { name: /124 pixels high/ })).toBeVisible();
    await page.getByRole('tab', { name: 'Sea holly' }).click();
    await expect(page.getByRole('cell', { name: '82 %' })).toBeVisible();
    await page.getByRole('tab', { name: 'Sea kale' }).click();
  });

  await test.step('a lens that shows the place of the pointer, larger', async () => {
    await tool(page, 'Lens').click();
    const own = panel(page, 'Lens');
    await own.getByRole('button', { name: 'Zoom in' }).click();
    await expect(own.getByRole('status')).toHaveText('3 times as large');
    const heading = await boxOf(amadou.heading('Question 3'));
    await page.mouse.move(heading.x + 20, heading.y + 10);
    const shown = () =>
      own
        .locator('[inert]')
        .first()
        .evaluate((glass) => {
          const copy = glass.querySelector('h1')!.getBoundingClientRect();
          const frame = glass.getBoundingClientRect();
          return { large: copy.height, inside: copy.top < frame.bottom && copy.bottom > frame.top };
        });
    await expect.poll(async () => (await shown()).inside).toBe(true);
    expect((await shown()).large).toBeGreaterThan(heading.height * 2.8);
    await own.getByRole('button', { name: 'Close: Lens' }).click();
  });

  await test.step('rough work in words and lines', async () => {
    await tool(page, 'Rough work').click();
    const own = panel(page, 'Rough work');
    await own.getByRole('textbox', { name: 'Your notes' }).fill('65 of 80, so 81 %');
    await own.getByRole('button', { name: 'Drawing', exact: true }).click();
    const pad = own.getByRole('application');
    await drags(page, pad, 60, 40);
    await expect(own.getByRole('status')).toHaveText('1 line');
  });

  await test.step('all of it is there after a reload', async () => {
    await amadou.isSaved();
    await page.reload();
    await expect.poll(() => drawn(page, 'dotted')).toEqual(['Sea kale']);
    await expect(panel(page, 'Rough work').getByRole('status')).toHaveText('1 line');
    await expect(page.getByRole('button', { name: /124 pixels high/ })).toBeVisible();
    await hasNoBarriers(page, 'aids after a reload');
  });

  await test.step('and on another device', async () => {
    const phone = await (await browser.newContext({ viewport: { width: 360, height: 740 } })).newPage();
    const again = candidate(phone, AMADOU);
    await again.opensLink();
    await phone.getByRole('button', { name: 'Continue here' }).click();
    await expect(again.heading('Question 3')).toBeVisible();
    const own = panel(phone, 'Rough work');
    await own.getByRole('button', { name: 'Text', exact: true }).click();
    await expect(own.getByRole('textbox', { name: 'Your notes' })).toHaveValue('65 of 80, so 81 %');
    await phone.getByRole('tab', { name: 'Source' }).click();
    await expect.poll(() => drawn(phone, 'dotted')).toEqual(['Sea kale']);
    await noSidewaysScroll(phone, 'a sheet of rough work');
    await hasNoBarriers(phone, 'a sheet of rough work');
    await phone.context().close();
  });
});

test('measuring and calculating, and a section that closes behind one', async ({ page, app, candidate }) => {
  const heard: string[] = [];
  page.on('response', (response) => {
    if (response.url().includes('/api/'))
      void response.text().then(
        (text) => heard.push(text),
        () => undefined,
      );
  });
  const bettina = candidate(page, BETTINA);
  await bettina.arrives();

  await test.step('what a section does not allow is not there, and no key opens it', async () => {
    await bettina.goesTo(3);
    for (const name of ['Calculator', 'Ruler', 'Protractor', 'Read aloud'])
      await expect(tool(page, name)).toHaveCount(0);
    await page.keyboard.press('?');
    await expect(panel(page, 'Keys for the desk')).toBeVisible();
    await page.keyboard.press('?');
    await expect(panel(page, 'Keys for the desk')).toBeHidden();
    expect(heard.join('')).not.toContain('read-aloud');
  });

  await test.step('entering a forward-only section is told first', async () => {
    const rail = page.getByRole('navigation', { name: 'Questions' });
    await rail.getByRole('button', { name: /^Question 9,/ }).click();
    await expect(panel(page, 'Question 9 is not open yet')).toBeVisible();
    await page.keyboard.press('Escape');
    await rail.getByRole('button', { name: /^Question 8,/ }).click();
    const door = panel(page, 'Section D is forward only');
    await hasNoBarriers(page, 'entering a forward-only section');
    await door.getByRole('button', { name: 'Enter section D' }).click();
    await expect(bettina.heading('Question 8')).toBeVisible();
    await expect(
      page.getByText(/^Section B has \d questions that are not done\. You can come back/),
    ).toBeVisible();
  });

  await test.step('the calculator by keyboard: worked out, kept, put into the answer', async () => {
    await page.keyboard.press('F7');
    await tool(page, 'Calculator').press('Enter');
    const own = panel(page, 'Calculator');
    const entry = own.getByRole('textbox', { name: 'Calculation' });
    await entry.fill('sin(30)×4');
    await entry.press('Enter');
    await expect(own.getByRole('status')).toHaveText('2');
    await entry.fill('1/0');
    await entry.press('Enter');
    await expect(own.getByRole('status')).toHaveText('Nothing can be divided by 0.');
    await own.getByText('History').click();
    await own.getByRole('button', { name: 'Clear', exact: true }).click();
    await own.getByRole('button', { name: 'Use 2 again' }).click();
    for (const key of ['+', '5', '='])
      await own.getByRole('button', { name: key === '=' ? 'Equals' : key, exact: true }).click();
    await expect(own.getByRole('status')).toHaveText('7');
    await entry.press('Escape');
    await expect(own).toBeHidden();
    await expect(tool(page, 'Calculator')).toBeFocused();
  });

  await test.step('ruler and protractor by their handles and by keys', async () => {
    await tool(page, 'Ruler').click();
    const ruler = page.getByRole('region', { name: 'Ruler' });
    const mark = ruler.getByRole('slider');
    await expect(mark).toHaveAttribute('aria-valuetext', '5.0 cm');
    await mark.press('ArrowRight');
    await expect(mark).toHaveAttribute('aria-valuetext', '5.1 cm');
    await ruler.getByRole('button', { name: /^Turn/ }).press('ArrowRight');
    await expect(ruler.getByRole('button', { name: /^Turn.* 5°$/ })).toBeVisible();
    await ruler.getByRole('button', { name: 'Calibrate' }).click();
    await page.getByRole('slider', { name: 'Size of the outline' }).fill('428');
    await page.getByRole('button', { name: 'The outline is as large as the card' }).click();
    await expect(ruler.getByText('calibrated', { exact: true })).toBeVisible();
    await tool(page, 'Protractor').click();
    const arm = page.getByRole('region', { name: 'Protractor' }).getByRole('slider');
    await expect(arm).toHaveAttribute('aria-valuetext', '45°');
    await arm.press('ArrowUp');
    await expect(arm).toHaveAttribute('aria-valuetext', '50°');
    const { x, y } = await boxOf(page.getByRole('region', { name: 'Protractor' }));
    const handle = await boxOf(arm);
    // Straight above the middle: a right angle.
    await drags(page, arm, x - (handle.x + handle.width / 2), y - 180 - (handle.y + handle.height / 2));
    await expect(arm).toHaveAttribute('aria-valuetext', '90°');
    await hasNoBarriers(page, 'ruler and protractor');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name: 'Protractor' })).toBeHidden();
  });

  await test.step('a question is passed for good, and the section with it', async () => {
    await page.getByRole('button', { name: 'Question 9', exact: true }).click();
    const passing = panel(page, 'Continue without finishing question 8?');
    await passing.getByRole('button', { name: 'Stay here' }).click();
    await expect(bettina.heading('Question 8')).toBeVisible();
    await page.getByRole('button', { name: 'Question 9', exact: true }).click();
    await passing.getByRole('button', { name: 'Continue to question 9' }).click();
    await expect(bettina.heading('Question 9')).toBeVisible();
    const rail = page.getByRole('navigation', { name: 'Questions' });
    await expect(rail.getByRole('button', { name: /^Question 8,.*, closed$/ })).toHaveAttribute(
      'aria-disabled',
      'true',
    );
    await rail.getByRole('button', { name: /^Question 8,/ }).click({ force: true });
    await expect(panel(page, 'Question 8 is closed')).toBeVisible();
    await page.keyboard.press('Escape');
    await bettina.isSaved();
    await page.reload();
    await expect(bettina.heading('Question 9')).toBeVisible();
    await rail.getByRole('button', { name: /^Question 11,/ }).click();
    const leaving = panel(page, 'Leave section D? You cannot come back');
    await expect(leaving).toContainText('3 questions of this section are not done');
    await leaving.getByRole('button', { name: 'Leave section D' }).click();
    await expect(bettina.heading('Question 11')).toBeVisible();
    await expect(page.getByText('Section D is closed.')).toBeVisible();
    await expect(rail.getByRole('button', { name: /^Question 10,.*, closed$/ })).toBeVisible();
    await expect(tool(page, 'Calculator')).toHaveCount(0);
    await bettina.isSaved();
    const outOfTurn = () => app.rows("select id from observations where kind = 'out of turn'").length;
    expect(outOfTurn()).toBe(0);
    // A client that is not the desk answers what was passed: it is kept, and does not count.
    await page.goto('about:blank');
    const forged = new ForgedClient(page, app);
    const value = { version: 1, response: { latex: 'x' } };
    await forged.says([{ about: 'answer', target: 'fenced-bed/A', value, at: Date.now() }]);
    expect(outOfTurn()).toBe(1);
    const current = "select value from current_answers where about = 'answer' and target = 'fenced-bed/A'";
    expect(app.rows(current)).toEqual([]);
  });
});

test('reading aloud where it is arranged, by the simulated voice', async ({ page, app, candidate }) => {
  app.change(
    `update invitations set arrangements = json_set(arrangements, '$.aids', json('["read-aloud"]'))
     where person_id = (select id from people where email = ?)`,
    ILSE,
  );
  const ilse = candidate(page, ILSE);
  await ilse.arrives();
  await ilse.goesTo(5);
  await expect(source(page)).toBeVisible();
  await tool(page, 'Read aloud').click();
  const own = panel(page, 'Read aloud');
  await own.getByLabel('Speed').selectOption({ label: '2 times' });
  await own.getByRole('button', { name: 'Read from the start' }).click();
  await expect.poll(async () => (await drawn(page, 'spoken')).join()).toMatch(/\w/);
  const first = (await drawn(page, 'spoken')).join();
  await expect.poll(async () => (await drawn(page, 'spoken')).join()).not.toBe(first);
  await own.getByRole('button', { name: 'Pause' }).click();
  expect(await drawn(page, 'spoken')).toEqual([]);
  await own.getByRole('button', { name: 'Next sentence' }).click();
  await own.getByRole('button', { name: 'Stop' }).click();
  await expect(own.getByText('Not reading')).toBeVisible();
  await hasNoBarriers(page, 'read aloud');
  // From a pressed place.
  const words = source(page).getByText(/\w/).first();
  await words.click({ position: { x: 30, y: 10 } });
  await expect(own.getByText(/^Reading:/)).toBeVisible();
  await own.getByRole('button', { name: 'Close: Read aloud' }).click();
  await expect.poll(() => drawn(page, 'spoken')).toEqual([]);
});

test('three panels at once by keys alone, in every colour, in forced colours and at 400 %', async ({
  page,
  candidate,
}) => {
  const amadou = candidate(page, AMADOU);
  await amadou.arrives();
  await amadou.goesTo(3);
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: 'Text', exact: true })).toBeFocused();
  for (const name of ['Highlight', 'Rough work']) {
    await tool(page, name).focus();
    await page.keyboard.press('Enter');
    await expect(panel(page, name)).toBeVisible();
  }
  const own = panel(page, 'Highlight');
  await own.getByText('Choose words by keys').press('Enter');
  for (const name of ['Next sentence', 'One word less']) {
    await own.getByRole('button', { name }).focus();
    await page.keyboard.press('Enter');
  }
  await expect(own.getByRole('status')).toContainText('Chosen: ');
  await own.getByRole('button', { name: 'Yellow, solid line' }).focus();
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await drawn(page, 'solid')).length).toBe(1);
  const pad = panel(page, 'Rough work');
  await pad.getByRole('button', { name: 'Drawing', exact: true }).press('Enter');
  await pad.getByRole('application').focus();
  for (const key of ['Space', 'ArrowRight', 'ArrowDown', 'Space']) await page.keyboard.press(key);
  await expect(pad.getByRole('status')).toContainText('1 line');
  await page.keyboard.press('Escape');
  await expect(pad).toBeHidden();

  await test.step('single keys are switched off', async () => {
    await amadou.heading('Question 3').focus();
    await page.keyboard.press('?');
    const keys = panel(page, 'Keys for the desk');
    await keys.getByRole('checkbox', { name: 'Single keys' }).uncheck();
    await keys.press('Escape');
    await amadou.heading('Question 3').focus();
    await page.keyboard.press('?');
    await expect(keys).toBeHidden();
  });

  await test.step('a panel steps aside of the field in use', async () => {
    await tool(page, 'Rough work').click();
    const field = page.getByRole('main').getByRole('textbox').filter({ visible: true }).first();
    const own = panel(page, 'Rough work');
    const grip = own.getByRole('button', { name: /^Rough work\. Move/ });
    const [of, at] = [await boxOf(field), await boxOf(grip)];
    await drags(page, grip, of.x - at.x, of.y - at.y - 40);
    const covers = async () => {
      const [a, b] = [await boxOf(own), await boxOf(field)];
      return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
    };
    expect(await covers()).toBe(true);
    await field.focus();
    await expect.poll(covers).toBe(false);
    await hasNoBarriers(page, 'three panels');
  });

  for (const colours of ['Dusk', 'White on black', 'Cream on navy', 'Black on cream', 'Black on white'])
    await test.step(colours, async () => {
      await page.getByRole('button', { name: 'Colours', exact: true }).click();
      await page.getByRole('radio', { name: colours }).click();
      await page.keyboard.press('Escape');
      await hasNoBarriers(page, colours);
    });

  await test.step('forced colours, no motion, and 1280 × 800 at 400 %', async () => {
    await page.emulateMedia({ forcedColors: 'active', reducedMotion: 'reduce' });
    await hasNoBarriers(page, 'forced colours');
    await page.emulateMedia({ forcedColors: 'none' });
    await page.setViewportSize({ width: 320, height: 200 });
    await noSidewaysScroll(page, '400 %');
    await page.setViewportSize({ width: 360, height: 740 });
    await noSidewaysScroll(page, 'a phone');
    await hasNoBarriers(page, 'a phone');
  });
});

test('every aid in the rehearsal, by keys and on a phone', async ({ page }) => {
  await page.goto('/r/gallery/rehearsal');
  await page.getByRole('button', { name: 'Without the clock' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Question 1' })).toBeVisible();
  const names = [
    'Reading slot',
    'Lens',
    'Highlight',
    'Rough work',
    'Calculator',
    'Ruler',
    'Protractor',
    'Read aloud',
    'Keys',
  ];
  const shown = (name: string): Locator =>
    ['Ruler', 'Protractor'].includes(name)
      ? // The region has no size of its own: what stands in it has.
        page.getByRole('region', { name }).getByRole('slider')
      : name === 'Reading slot'
        ? page.getByRole('group', { name })
        : panel(page, name === 'Keys' ? 'Keys for the desk' : name);
  /** Those that have no room in one row, beside the handout, wait behind *Kit*. */
  const behind = names.slice(-3);
  const inView = page.locator('[data-kit] button[aria-pressed]').filter({ visible: true });
  expect(await inView.allInnerTexts()).toEqual(names.slice(0, -3));
  await opensKit(page);
  const rest = page.getByRole('dialog', { name: 'More aids' });
  await expect(rest.locator('button[aria-pressed]')).toHaveText(behind);
  await page.keyboard.press('Escape');
  await expect(rest).toBeHidden();

  await test.step('by keys: opened by Enter, closed by Esc, and back to where one was', async () => {
    for (const name of names) {
      const opener = behind.includes(name) ? page.getByRole('button', { name: 'Kit' }) : tool(page, name);
      await opener.press('Enter');
      if (behind.includes(name)) await tool(page, name).press('Enter');
      await expect(shown(name)).toBeVisible();
      await page.keyboard.press('Escape');
      await expect(shown(name)).toBeHidden();
      await expect(opener).toBeFocused();
    }
    await tool(page, 'Reading slot').press('Enter');
    const mover = page.getByRole('button', { name: /^Move the reading slot/ });
    const before = (await boxOf(mover)).y;
    await mover.press('ArrowDown');
    await expect.poll(async () => (await boxOf(mover)).y).toBeGreaterThan(before);
    await mover.press('Escape');
    await expect(mover).toBeHidden();
  });

  await test.step('without dragging: one press takes up, the next one puts down', async () => {
    await tool(page, 'Calculator').press('Enter');
    const grip = panel(page, 'Calculator').locator('[data-grip]');
    const start = await boxOf(grip);
    await grip.click();
    await page.mouse.move(start.x + start.width / 2 - 120, start.y + start.height / 2 - 60);
    await page.mouse.click(start.x + start.width / 2 - 120, start.y + start.height / 2 - 60);
    await expect
      .poll(async () => {
        const now = await boxOf(grip);
        return [Math.round(now.x - start.x), Math.round(now.y - start.y)];
      })
      .toEqual([-120, -60]);
    // Put down, it stays where it is.
    await page.mouse.move(300, 300);
    expect(Math.round((await boxOf(grip)).x - start.x)).toBe(-120);
    await page.keyboard.press('Escape');
    await expect(panel(page, 'Calculator')).toBeHidden();
    await tool(page, 'Ruler').press('Enter');
    const mark = page.getByRole('slider', { name: /^Reading mark/ });
    const from = await boxOf(mark);
    const read = async () => Number(await mark.getAttribute('aria-valuenow'));
    const before = await read();
    await mark.click();
    // 38 pixels are a centimetre: an inch is 96 pixels for CSS.
    await page.mouse.click(from.x + from.width / 2 + 38, from.y + from.height / 2);
    await expect.poll(read).toBeCloseTo(before + 1, 1);
    await mark.click();
    await page.mouse.move(from.x + from.width / 2 + 120, from.y + from.height / 2);
    await page.keyboard.press('Escape');
    await expect.poll(read).toBeCloseTo(before + 1, 1);
    await page.getByRole('button', { name: 'Close the ruler' }).click();
  });

  await test.step('on a phone: one sheet at a time, which leaves room for the question', async () => {
    await page.setViewportSize({ width: 360, height: 740 });
    const heading = page.getByRole('heading', { level: 1, name: 'Question 1' });
    for (const name of names) {
      await page.getByRole('button', { name: 'Kit' }).click();
      await tool(page, name).click();
      await expect(shown(name)).toBeVisible();
      await expect(heading).toBeInViewport();
      await noSidewaysScroll(page, name);
      await hasNoBarriers(page, `${name} on a phone`);
      const close = page.getByRole('button', { name: /^Close/ }).filter({ visible: true });
      await close.click();
      await expect(shown(name)).toBeHidden();
    }
  });
});
