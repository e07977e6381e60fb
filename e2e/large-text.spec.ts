import type { Page } from '@playwright/test';
import { Answering } from './people/Answering';
import { expect, PAVEL, test } from './testApp';

const SCREENS = [
  { width: 1280, height: 800 },
  { width: 768, height: 1024 },
  { width: 360, height: 740 },
  { width: 320, height: 568 },
] as const;
const SIZES = [90, 100, 150, 200] as const;

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
      const { left, right, top, bottom } = button.getBoundingClientRect();
      if (left < -1 || right > innerWidth + 1 || (!low && (top < 0 || bottom > innerHeight + 1)))
        found.push(`${button.textContent} of the foot is out of reach`);
    }
    const question = document.querySelector('[data-room]');
    const share = (question?.clientHeight ?? 0) / innerHeight;
    if (share < 0.5) found.push(`the question has ${Math.round(100 * share)} % of the height`);
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
  for (const [turn, size] of SIZES.entries()) {
    await page.evaluate(
      (chosen) =>
        localStorage.setItem('clear-sitting-reading', JSON.stringify({ size: chosen, spacing: 100 })),
      size,
    );
    await page.reload();
    const [way, key] = turn % 2 === 0 ? [there, 'Alt+PageDown'] : [there.toReversed(), 'Alt+PageUp'];
    for (const number of way) {
      await expect(pavel.heading(`Question ${number}`)).toBeVisible();
      for (const screen of SCREENS) {
        await page.setViewportSize(screen);
        const here = `${size} % at ${screen.width} × ${screen.height}, question ${number}`;
        found.push(...(await misfits(page)).map((one) => `${here}: ${one}`));
      }
      await page.keyboard.press(key);
    }
  }
  expect(found).toEqual([]);
});
