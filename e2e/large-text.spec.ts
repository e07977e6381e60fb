import type { Locator, Page } from '@playwright/test';
import { Answering } from './people/Answering';
import { Candidate } from './people/Candidate';
import { expect, PAVEL, PERPETUA, test } from './testApp';

const SCREENS = [
  { width: 1280, height: 800 },
  { width: 768, height: 1024 },
  { width: 360, height: 740 },
  { width: 320, height: 568 },
  // What is left of 1280 × 1024 at a browser zoom of 400 %.
  { width: 320, height: 256 },
] as const;
const SIZES = [90, 100, 150, 200] as const;

/** The spacing that every text must bear (WCAG 2.2, 1.4.12). */
const TEXT_SPACING = `* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important }
  p { margin-bottom: 2em !important }`;

/** What does not fit on the page in view; empty where all does. */
const misfits = (page: Page) =>
  page.evaluate(async () => {
    // The page hears of its new size with the next frame, and is laid out in the one after.
    for (let frames = 0; frames < 2; frames += 1) await new Promise(requestAnimationFrame);
    const found: string[] = [];
    const beyond = document.documentElement.scrollWidth - innerWidth;
    if (beyond > 0) found.push(`${beyond} px wider than the window`);
    // In a low window the page scrolls, and the foot is below.
    const low = document.documentElement.hasAttribute('data-low');
    const foot = document.querySelector('[data-foot]')!;
    for (const button of foot.querySelectorAll('button')) {
      // Aids that wait behind others keep their place, to be measured.
      if (!button.checkVisibility({ visibilityProperty: true })) continue;
      const { left, right, top, bottom } = button.getBoundingClientRect();
      if (left < -1 || right > innerWidth + 1 || (!low && (top < 0 || bottom > innerHeight + 1)))
        found.push(`${button.textContent} of the foot is out of reach`);
    }
    const question = document.querySelector('[data-room]')!;
    const share = question.clientHeight / innerHeight;
    if (share < 0.5) found.push(`the question has ${Math.round(100 * share)} % of the height`);
    for (const own of question.querySelectorAll('[data-scroller]')) {
      if (own.closest('[data-waiting]') || own.scrollWidth <= own.clientWidth + 1) continue;
      const wide = [...own.querySelectorAll('*')].filter(
        (one) => one.getBoundingClientRect().right > own.getBoundingClientRect().right + 1,
      );
      found.push(
        `slides ${own.scrollWidth - own.clientWidth} px sideways by ${wide.at(-1)?.outerHTML.slice(0, 200)}`,
      );
    }
    const kit = document.querySelector('[data-foot] [data-kit]');
    if (kit && kit.clientHeight > 1.5 * kit.querySelector('button')!.clientHeight)
      found.push('the aids take more than one row');
    if (low)
      for (const element of question.querySelectorAll<HTMLElement>('*')) {
        const { overflowY, visibility } = getComputedStyle(element);
        const scrolls = /auto|scroll/.test(overflowY) && element.scrollHeight > element.clientHeight + 1;
        // The field of a program scrolls by itself everywhere.
        if (scrolls && visibility === 'visible' && !element.closest('[inert], [data-waiting], .cm-editor'))
          found.push(`${element.className} scrolls within the page`);
      }
    return found;
  });

test('at every size of text and screen nothing slides sideways and the question has its room', async ({
  page,
  candidate,
}) => {
  const pavel = candidate(page, PAVEL);
  await pavel.arrives();
  const questions = new Answering(page, 'keys').all.length;
  const found: string[] = [];
  // There and back again: the page opens where the candidate was.
  const there = Array.from({ length: questions }, (_, i) => i + 1);
  for (const [turn, size] of [...SIZES, 'spaced' as const].entries()) {
    const isSpaced = size === 'spaced';
    await page.evaluate(
      (chosen) =>
        localStorage.setItem('clear-sitting-reading', JSON.stringify({ size: chosen, spacing: 100 })),
      isSpaced ? 100 : size,
    );
    await page.reload();
    if (isSpaced) await page.addStyleTag({ content: TEXT_SPACING });
    const [way, key] = turn % 2 === 0 ? [there, 'Alt+PageDown'] : [there.toReversed(), 'Alt+PageUp'];
    for (const number of way) {
      await expect(pavel.heading(`Question ${number}`)).toBeVisible();
      for (const screen of SCREENS) {
        await page.setViewportSize(screen);
        const here = `${size} at ${screen.width} × ${screen.height}, question ${number}`;
        found.push(...(await misfits(page)).map((one) => `${here}: ${one}`));
      }
      await page.keyboard.press(key);
    }
  }
  expect(found).toEqual([]);
});

test('a long essay keeps its tools and its count in view, and a plane to draw on has half of the room', async ({
  page,
  candidate,
}) => {
  const pavel = candidate(page, PAVEL);
  await page.setViewportSize({ width: 1280, height: 800 });
  await pavel.arrives();
  await pavel.goesTo(12);
  const plane = page.getByRole('main').getByRole('application').filter({ visible: true });
  await expect(plane).toBeInViewport({ ratio: 1 });
  const [drawn, room] = [(await plane.boundingBox())!, (await page.locator('[data-room]').boundingBox())!];
  // Its cells are squares: one of 8 by 12 lines is as wide as its height leaves room for.
  expect(drawn.height / room.height).toBeGreaterThanOrEqual(0.5);
  const undo = (await page.getByRole('button', { name: 'Undo', exact: true }).boundingBox())!;
  expect(undo.x).toBeGreaterThan(drawn.x + drawn.width);

  await page.setViewportSize({ width: 360, height: 740 });
  for (let number = 12; number > 5; number -= 1) await page.keyboard.press('Alt+PageUp');
  await expect(pavel.heading('Question 5')).toBeVisible();
  const more = page.getByText('More below').filter({ visible: true });
  await expect(more).toHaveCount(0);
  await page.getByRole('main').getByRole('textbox').click();
  await page.keyboard.insertText('A kind word. '.repeat(150));
  await expect(page.getByRole('toolbar')).toBeInViewport({ ratio: 1 });
  await expect(page.getByText('450 words')).toBeInViewport({ ratio: 1 });
  await page
    .locator('[data-scroller]')
    .filter({ visible: true })
    .evaluate((own) => own.scrollTo(0, 0));
  await expect(more).toBeInViewport();
  await more.click();
  await expect(page.getByRole('toolbar')).toBeInViewport({ ratio: 1 });
  await expect(page.getByText('450 words')).toBeInViewport({ ratio: 1 });
  await page
    .locator('[data-scroller]')
    .filter({ visible: true })
    .evaluate((own) => own.scrollTo(0, 1e6));
  await expect(more).toHaveCount(0);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 360, height: 740 } });

  test('with text at 200 %, by keys alone, from the link to the receipt', async ({ page, app }) => {
    await page.addInitScript(() =>
      localStorage.setItem('clear-sitting-reading', JSON.stringify({ size: 200, spacing: 100 })),
    );
    const perpetua = new Candidate(page, app.url + app.linkOf(PERPETUA, 'counting-check'));
    /** Goes there by Tab; whatever has the focus on the way is in view, and nothing slides sideways. */
    const tabsTo = async (target: Locator) => {
      await expect(target).toBeEnabled();
      const handle = await target.elementHandle();
      for (let presses = 0; presses < 80; presses += 1) {
        await page.keyboard.press('Tab');
        const [isThere, trouble] = await handle.evaluate((element) => {
          const own = document.activeElement!;
          const { top, bottom, left, right } = (own.closest('label') ?? own).getBoundingClientRect();
          const out = bottom < 1 || top > innerHeight - 1 || right < 1 || left > innerWidth - 1;
          const wide = document.documentElement.scrollWidth > innerWidth;
          const what = own === document.body ? '' : own.outerHTML.slice(0, 120);
          return [
            element === own,
            out && what ? `out of view: ${what}` : wide ? 'slides sideways' : '',
          ] as const;
        });
        expect(trouble).toBe('');
        if (isThere) return;
      }
      throw new Error(`${target.toString()} cannot be reached with Tab`);
    };
    const presses = async (role: 'button' | 'link', name: string | RegExp) => {
      await tabsTo(page.getByRole(role, { name }).filter({ visible: true }).first());
      await page.keyboard.press('Enter');
    };

    await perpetua.opensLink();
    await presses('link', 'Go to the test');
    await presses('button', 'These are my details');
    await expect(perpetua.heading('Rules and confidentiality')).toBeVisible();
    for (const line of await page.getByRole('checkbox').all()) {
      await tabsTo(line);
      await page.keyboard.press('Space');
      await expect(line).toBeChecked();
    }
    await presses('button', 'I accept these rules');
    await presses('button', 'Start – the clock begins');
    await expect(perpetua.heading('Question 1')).toBeVisible();
    // The options stand in another order for each candidate; the arrows go from one to the next.
    await tabsTo(page.getByRole('radio').filter({ visible: true }).first());
    await page.keyboard.press('Space');
    const right = perpetua.field('The young root');
    for (let n = 0; n < 8 && !(await right.isChecked()); n += 1) await page.keyboard.press('ArrowDown');
    await expect(right).toBeChecked();
    const lastLook = page.getByRole('button', { name: 'Last look' }).filter({ visible: true });
    for (let number = 1; !(await lastLook.isVisible()); number += 1) {
      await presses('button', 'Next');
      await expect(perpetua.heading(`Question ${number + 1}`)).toBeVisible();
    }
    await presses('button', 'Last look');
    await expect(perpetua.heading('Last look')).toBeVisible();
    await presses('button', 'Hand in my paper');
    const sure = page.getByRole('alertdialog').getByRole('button', { name: 'Hand in my paper' });
    await tabsTo(sure);
    await page.keyboard.press('Enter');
    await expect(perpetua.heading('Attempt 1 of 3 is handed in')).toBeFocused();
    await expect(page.getByText('1 of 5 parts')).toBeVisible();
  });
});
