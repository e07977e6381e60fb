import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { hasNoBarriers } from './barriers';
import { Answering, type Way } from './people/Answering';
import type { Candidate } from './people/Candidate';
import { expect, MIRELA, PAVEL, RUNA, test } from './testApp';

const QUESTIONS = 21;

const next = (page: Page) => page.keyboard.press('Alt+PageDown');

/** Answers one question after the other, and looks at each before and when it is answered. */
async function answersAll(
  page: Page,
  who: Candidate,
  way: Way,
  look: (question: number, state: 'empty' | 'answered') => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  const { all } = new Answering(page, way);
  expect(all).toHaveLength(QUESTIONS);
  for (const [i, answer] of all.entries()) {
    await expect(who.heading(`Question ${i + 1}`)).toBeVisible();
    await look(i + 1, 'empty');
    await answer();
    await look(i + 1, 'answered');
    if (i < all.length - 1) await next(page);
  }
  await who.isSaved();
}

/** All is there after the page was loaded again, and the last look misses nothing. */
async function survivesReload(page: Page, who: Candidate): Promise<void> {
  await page.reload();
  await expect(who.heading(/^Question/)).toBeVisible();
  // The key is heard a moment after the heading is there.
  await expect(async () => {
    await page.keyboard.press('F9');
    await expect(who.heading('Last look')).toBeVisible({ timeout: 2000 });
  }).toPass();
  await expect(page.getByText('All questions are done.')).toBeVisible();
}

async function fits(page: Page, where: string): Promise<void> {
  const beyond = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(beyond, where).toBeLessThanOrEqual(0);
}

test('every kind by pointer, to the result sheet and its PDF', async ({
  page,
  app,
  candidate,
  staff,
  browser,
}) => {
  const runa = candidate(page, RUNA);
  await runa.arrives();
  await answersAll(page, runa, 'pointer', (question, state) =>
    hasNoBarriers(page, `question ${question}, ${state}`, question === 1 ? 'html' : 'main'),
  );
  await survivesReload(page, runa);
  await runa.handsInFromLastLook();
  await app.doJobs();

  const office = await browser.newContext();
  const assessor = await staff(await office.newPage(), 'assessor');
  await assessor.opensPile('Mark item 5');
  await assessor.marksByKeys([0], '');
  await expect(assessor.page.getByText('This item is done')).toBeVisible();
  await assessor.opensPile('Mark item 16');
  await assessor.marksByKeys([0], '');
  await expect(assessor.page.getByText('This item is done')).toBeVisible();
  await assessor.opensPile('Mark item 17');
  await expect(assessor.page.getByRole('img', { name: 'Page 1' })).toBeVisible();
  await assessor.marksByKeys([1], '');
  await expect(assessor.page.getByText('This item is done')).toBeVisible();
  const lead = await staff(await (await browser.newContext()).newPage(), 'lead');
  await lead.goesTo('Sign-off');
  await lead.confirms('Sign off the marks');
  const coordinator = await staff(await (await browser.newContext()).newPage(), 'coordinator');
  await coordinator.opensRound('Every kind of question, trial');
  await coordinator.confirms('Release the results');

  await page.reload();
  await expect(runa.heading('Runa Aldercott')).toBeVisible();
  // The picture of the bean, the plane and the line are drawn; what followed from a slip is told as that.
  await expect(page.getByRole('img', { name: /^A bean, cut open/ })).toBeVisible();
  await expect(page.getByText('half-plane r on the side of (8, 10)')).toBeVisible();
  await expect(page.getByText('more than 0, up to and including 5')).toBeVisible();
  await expect(page.getByText('It follows from your number.')).toBeVisible();
  await hasNoBarriers(page, 'the result sheet');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /PDF/ }).click(),
  ]);
  const pdf = readFileSync(await download.path());
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  expect(pdf.length).toBeGreaterThan(20_000);
});

test('every kind by keyboard alone', async ({ page, candidate }) => {
  const pavel = candidate(page, PAVEL);
  await pavel.arrives();
  await answersAll(page, pavel, 'keys');
  await survivesReload(page, pavel);
});

test.describe('at 360 × 740', () => {
  test.use({ viewport: { width: 360, height: 740 }, hasTouch: true });

  test('every kind by touch, and nothing is lost when enlarged', async ({ page, candidate }) => {
    const mirela = candidate(page, MIRELA);
    await mirela.arrives();
    await answersAll(page, mirela, 'touch', (question) => fits(page, `question ${question}`));
    await survivesReload(page, mirela);
    await page.emulateMedia({ reducedMotion: 'reduce' });
    // 1280 pixels enlarged to 400 per cent, from the last question to the first; then to 200, back again.
    await page.setViewportSize({ width: 320, height: 400 });
    await page.getByText('Duties and facts').click();
    for (let question = QUESTIONS; question >= 1; question--) {
      await expect(mirela.heading(`Question ${question}`)).toBeVisible();
      await fits(page, `question ${question} at 320 pixels`);
      if (question > 1) await page.keyboard.press('Alt+PageUp');
    }
    await page.setViewportSize({ width: 640, height: 400 });
    for (let question = 1; question <= QUESTIONS; question++) {
      await expect(mirela.heading(`Question ${question}`)).toBeVisible();
      await fits(page, `question ${question} at 640 pixels`);
      await next(page);
    }
  });
});
