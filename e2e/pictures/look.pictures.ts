import { Candidate } from '../people/Candidate';
import { PERPETUA, test } from '../testApp';
test('look', async ({ page, app }) => {
  const perpetua = new Candidate(page, app.url + app.linkOf(PERPETUA, 'counting-check'));
  await perpetua.opensLink();
  await page.getByRole('button', { name: /Start attempt 2/ }).waitFor();
  await page.getByText('counts at present').waitFor();
  for (const [n, w, h] of [
    ['l', 1280, 800],
    ['p', 360, 740],
  ] as const) {
    await page.setViewportSize({ width: w, height: h });
    await page.screenshot({ path: `/tmp/look/between-${n}.png`, fullPage: true });
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('link', { name: /Sheet of attempt 1/ }).click();
  await page.getByText('While you have').waitFor();
  await page.screenshot({ path: `/tmp/look/sheet-l.png` });
  await page.getByRole('link', { name: 'Back to all attempts' }).click();
  await page.getByRole('button', { name: /Start attempt 2/ }).click();
  await page.getByRole('button', { name: 'These are my details' }).waitFor();
  await page.screenshot({ path: `/tmp/look/details-l.png` });
  await page.getByRole('button', { name: 'These are my details' }).click();
  await perpetua.acceptsRules();
  await page.screenshot({ path: `/tmp/look/cover-l.png` });
});
