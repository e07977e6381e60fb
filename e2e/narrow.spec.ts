import type { Page } from '@playwright/test';
import { Answering } from './people/Answering';
import { expect, PAVEL, test } from './testApp';

/** What has the focus, and by how many pixels its box is out of sight; null where the focus is not in the question. */
const focusOut = (page: Page) =>
  page.evaluate(() => {
    const element = document.activeElement as HTMLElement | null;
    if (!element || !document.querySelector('main')?.contains(element)) return null;
    // Of a text that is being written the line of the cursor is in sight, not all of the field.
    if (element.isContentEditable) return { what: 'text', out: 0 };
    // A control that is drawn by its label is seen where the label is.
    const drawn = element.closest('label') ?? element;
    const { top, bottom, left, right, width, height } = drawn.getBoundingClientRect();
    // One that is larger than the window can only be seen in part.
    const across = width > innerWidth ? 0 : Math.max(0, -left, right - innerWidth);
    const down = height > innerHeight ? 0 : Math.max(0, -top, bottom - innerHeight);
    return { what: drawn.outerHTML.slice(0, 160), out: Math.round(Math.max(across, down)) };
  });

test.use({ viewport: { width: 320, height: 568 } });

test('at 320 × 568 what has the focus is always in sight, in every kind of question', async ({
  page,
  candidate,
}) => {
  const pavel = candidate(page, PAVEL);
  await pavel.arrives();
  const questions = new Answering(page, 'keys').all.length;
  const hidden: string[] = [];
  for (let number = 1; number <= questions; number += 1) {
    await expect(pavel.heading(`Question ${number}`)).toBeVisible();
    let inside = 0;
    for (let presses = 0; presses < 60; presses += 1) {
      await page.keyboard.press('Tab');
      const focus = await focusOut(page);
      if (focus === null && inside > 0) break;
      if (focus === null) continue;
      inside += 1;
      if (focus.out > 1) hidden.push(`question ${number}: ${focus.out} px of ${focus.what}`);
    }
    expect(inside, `question ${number}`).toBeGreaterThan(0);
    if (number < questions) await page.keyboard.press('Alt+PageDown');
  }
  expect(hidden).toEqual([]);
});

test('in colours that the system has chosen, the rail tells every state, and what is pressed has an edge', async ({
  page,
  candidate,
}) => {
  const pavel = candidate(page, PAVEL);
  await page.setViewportSize({ width: 1280, height: 800 });
  await pavel.arrives();
  await pavel.goesTo(2);
  await pavel.entersFigure('44');
  await page.getByRole('button', { name: 'Flag', exact: true }).click();
  await page.emulateMedia({ forcedColors: 'active' });
  const looks = await page.evaluate(() => {
    const styleOf = (element: Element | null) => getComputedStyle(element!);
    const bar = document.querySelector("nav [data-bar='done']")!;
    return {
      ground: styleOf(bar).backgroundColor,
      fill: styleOf(bar.querySelector('[data-bar-fill]')).backgroundColor,
      number: styleOf(bar.querySelector('[data-bar-text]')).color,
      corner: styleOf(bar.querySelector('[data-bar-flag]')).borderLeftColor,
      fold: styleOf(bar.querySelector('[data-bar-flag]')).borderTopColor,
      pressed: styleOf(document.querySelector("button[aria-pressed='true']")).borderTopWidth,
    };
  });
  // Filled against the ground, and its number against the fill; the folded corner is a corner.
  expect(looks.fill).not.toBe(looks.ground);
  expect(looks.number).not.toBe(looks.fill);
  expect(looks.fold).not.toBe(looks.corner);
  expect(looks.pressed).toBe('2px');
});
