import { Candidate } from '../people/Candidate';
import { PERPETUA, test } from '../testApp';

test('look', async ({ page, app }) => {
  await page.addInitScript(() =>
    localStorage.setItem('clear-sitting-reading', JSON.stringify({ size: 200, spacing: 100 })),
  );
  const pavel = new Candidate(page, app.url + app.linkOf(PERPETUA, 'counting-check'));
  await page.setViewportSize({ width: 360, height: 740 });
  const wide = async (name: string) => {
    await page.waitForTimeout(500);
    console.log(
      name,
      await page.evaluate(() =>
        [
          document.documentElement.scrollWidth,
          ...[...document.querySelectorAll('body *')]
            .filter((e) => e.getBoundingClientRect().right > innerWidth + 1)
            .slice(-4)
            .map((e) => e.outerHTML.slice(0, 160)),
        ].join('\n   '),
      ),
    );
    await page.screenshot({ path: `/tmp/look/w-${name}.png`, fullPage: true });
  };
  await pavel.opensLink();
  await wide('own');
  await page.getByRole('link', { name: /^Go to / }).click();
  await wide('details');
  await page.getByRole('button', { name: 'These are my details' }).click();
  await wide('rules');
  for (const line of await page.getByRole('checkbox').all()) await line.check();
  await page.getByRole('button', { name: 'I accept these rules' }).click();
  await wide('cover');
  await page.getByRole('button', { name: 'Start – the clock begins' }).click();
  await wide('desk');
  for (let i = 0; i < 6; i += 1) {
    await page.keyboard.press('Alt+PageDown');
    await page.waitForTimeout(100);
  }
  await page.getByRole('button', { name: 'Last look' }).filter({ visible: true }).click();
  await wide('lastlook');
  await page.getByRole('button', { name: 'Hand in my paper' }).click();
  await wide('dialog');
  await page.getByRole('alertdialog').getByRole('button', { name: 'Hand in my paper' }).click();
  await wide('receipt');
});
