import type { Page } from '@playwright/test';
import { hasNoBarriers } from './barriers';
import { expect, MATTIS, test } from './testApp';

test.use({ serviceWorkers: 'allow' });

async function fitsTheScreen(page: Page): Promise<void> {
  const [content, view] = await page.evaluate(() => [
    document.documentElement.scrollWidth,
    window.innerWidth,
  ]);
  expect(content).toBeLessThanOrEqual(view);
}

test.describe('at 360 × 740', () => {
  test.use({ viewport: { width: 360, height: 740 } });

  test('the path on a phone', async ({ page, candidate }) => {
    const mattis = candidate(page, MATTIS);
    await mattis.opensLink();
    await expect(mattis.heading('Are these your details?')).toBeVisible();
    await fitsTheScreen(page);
    await mattis.confirmsDetails();
    await mattis.passesChecks();
    await fitsTheScreen(page);
    await mattis.takesPicture();
    await mattis.acceptsRules();
    await fitsTheScreen(page);
    await mattis.starts();
    await mattis.chooses('The young root');
    await page.getByRole('button', { name: 'Next' }).click();
    await expect(mattis.heading('Question 2')).toBeVisible();
    await fitsTheScreen(page);
    await page.getByRole('button', { name: 'Show all questions' }).click();
    await mattis.goesTo(5);
    await page.getByRole('tab', { name: 'Source' }).click();
    await expect(page.getByText('Tray 14 holds four lots')).toBeVisible();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('tabpanel', { name: 'Answer' })).toBeVisible();
    await mattis.chooses('K-2');
    await fitsTheScreen(page);
    await hasNoBarriers(page, 'desk on a phone');
    await page.getByRole('button', { name: 'Show all questions' }).click();
    await mattis.goesTo(9);
    await page.getByRole('tab', { name: 'Program' }).click();
    await mattis.programs('JavaScript', 'const strongest = () => "";');
    await page.getByRole('tab', { name: 'Program' }).press('ArrowRight');
    await mattis.triesAllCases();
    await expect(page.getByText('1 of 3 as expected')).toBeVisible();
    await fitsTheScreen(page);
    await page.getByRole('button', { name: 'Show all questions' }).click();
    await mattis.handsIn();
    await fitsTheScreen(page);
  });
});

/** Presses Tab until the thing of this role and name has the focus. */
async function tabsTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 80; i++) {
    await page.keyboard.press('Tab');
    const label = await page.evaluate(() => {
      const active = document.activeElement as HTMLElement | null;
      return (
        active?.getAttribute('aria-label') ??
        active?.closest('label')?.textContent ??
        active?.textContent ??
        ''
      );
    });
    if (name.test(label.trim())) return;
  }
  throw new Error(`${String(name)} cannot be reached with Tab`);
}

test('the path by keyboard alone', async ({ page, candidate }) => {
  const ilse = candidate(page);
  await ilse.opensLink();
  const press = async (name: RegExp, key = 'Enter') => {
    await tabsTo(page, name);
    await page.keyboard.press(key);
  };
  await expect(ilse.heading('Are these your details?')).toBeVisible();
  await press(/^These are my details/);
  await expect(page.getByRole('main').getByText('Your face is in view')).toBeVisible({ timeout: 45_000 });
  await expect(page.getByRole('button', { name: /^Continue/ })).toBeEnabled({ timeout: 60_000 });
  await press(/^Continue/);
  await expect(page.getByRole('button', { name: 'Take the picture' })).toBeEnabled({ timeout: 45_000 });
  await press(/^Take the picture/);
  await press(/^Use this picture/);
  await expect(ilse.heading('Rules and confidentiality')).toBeVisible();
  for (const line of [/I work alone/, /I will not share the questions/]) await press(line, 'Space');
  await press(/^I accept/);
  await expect(page.getByRole('button', { name: 'Start – the clock begins' })).toBeEnabled();
  await press(/^Start/);
  await expect(ilse.heading('Question 1')).toBeVisible();
  await tabsTo(page, /The young root|The first leaf|The seed coat|The shoot tip/);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('F8');
  await expect(page.getByRole('button', { name: 'Flagged', exact: true })).toBeVisible();
  for (const number of [2, 3, 4]) {
    await page.keyboard.press('Alt+PageDown');
    await expect(ilse.heading(`Question ${number}`)).toBeVisible();
  }
  await press(/^Drag Take the tray out/, 'Space');
  // As somebody who listens: the next key comes after what the last one did was said.
  const said = page.locator('[data-announcer] p');
  await expect(said.filter({ hasText: 'selected, position 2 of' }).first()).toBeAttached();
  // What is taken up hears keys a moment after it says so: pressed again where one came too early.
  await expect(async () => {
    await page.keyboard.press('ArrowUp');
    await expect(said.filter({ hasText: 'now at position 1 of' }).first()).toBeAttached({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect(page.getByRole('listitem').filter({ hasText: 'Take the tray' }).last()).toContainText('1');
  await page.keyboard.press('Alt+PageUp');
  await expect(ilse.heading('Question 3')).toBeVisible();
  await tabsTo(page, /^$/);
  await page.keyboard.type('-19');
  await page.keyboard.press('F9');
  await expect(ilse.heading('Last look')).toBeVisible();
  await press(/^Hand in my paper/);
  await expect(page.getByRole('alertdialog')).toBeVisible();
  await press(/^Hand in my paper/);
  await expect(ilse.heading('Your paper is handed in')).toBeVisible();
});

test('links that lead nowhere yet, no more, or not at all say so in a sentence', async ({ page, app }) => {
  // The second one as a mail program may have cut it, in the middle of a sign.
  for (const link of ['x'.repeat(27), 'xxxx%E2%8']) {
    await page.goto(`${app.url}/i/${link}`);
    await expect(page.getByRole('alert')).toContainText('This link does not lead to a test.');
  }
  await page.goto(app.url + app.linkOf('tove.abernathy.ruiz@example.org'));
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Your test opens on');
  await hasNoBarriers(page, 'too early');
  await page.goto(app.url + app.linkOf('benedikt.aumont@example.org'));
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'The time for taking this test has ended',
  );
  await page.goto(`${app.url}/nowhere`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('There is no page at this web address');
  await page.goto(app.url + app.linkOf(MATTIS));
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Are these your details?');
  await app.killHard();
  await page.getByRole('button', { name: 'These are my details' }).click();
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached.');
  await app.start();
  await page.getByRole('button', { name: 'These are my details' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Is everything ready?');
});

test.describe('without a service worker', () => {
  test.use({ serviceWorkers: 'block' });

  test('a browser that keeps nothing, refuses cookies or does not get a piece is told so, and never left with an empty page', async ({
    page,
    app,
  }) => {
    const heading = page.getByRole('heading', { level: 1 });
    await page.addInitScript(() => {
      for (const name of ['localStorage', 'sessionStorage', 'indexedDB'])
        Object.defineProperty(window, name, {
          get() {
            throw new DOMException('denied', 'SecurityError');
          },
        });
    });
    await page.goto(app.url + app.linkOf(MATTIS));
    await expect(heading).toContainText('Are these your details?');
    await page.getByRole('button', { name: 'These are my details' }).click();
    await expect(
      page.getByRole('main').getByText('Your answers cannot be saved on this device'),
    ).toBeVisible();
    // A piece does not come, however often it is asked for.
    await page.route('**/assets/Welcome-*.js', (route) => route.abort());
    await page.goto(app.url);
    await expect(async () => {
      // As it would be asked for in the end: a browser that is online again does not wait.
      await page.evaluate(() => window.dispatchEvent(new Event('online')));
      await expect(heading).toContainText('This page cannot be shown', { timeout: 200 });
    }).toPass();
    await hasNoBarriers(page, 'a page that cannot be shown');
    await page.unroute('**/assets/Welcome-*.js');
    await page.getByRole('button', { name: 'Reload the page' }).click();
    await expect(heading).toContainText('Open your personal link');
    await page.addInitScript(() => Object.defineProperty(navigator, 'cookieEnabled', { value: false }));
    await page.goto(app.url + app.linkOf(MATTIS));
    await expect(heading).toContainText('This browser blocks cookies');
    await hasNoBarriers(page, 'no cookies');
    // Without its first script the page says after a while, by itself, that it has not opened.
    await page.route('**/assets/*.js', (route) => route.abort());
    await page.reload();
    const told = page.getByText('This page has not opened');
    await expect(told).toBeHidden();
    await page.evaluate(() => document.getAnimations().forEach((wait) => wait.finish()));
    await expect(told).toBeVisible();
  });
});
