import { parseDocument } from '../server/documents/parseDocument';
import { hasNoBarriers } from './barriers';
import { expect, test } from './testApp';

test.use({ serviceWorkers: 'allow' });

const BODY = `# Night of 9 March

The :meaning[reserve cooler]{says="the second machine, for when the first one stops"} did not take over. Cost: $5 to $6 at 10:30.

:::lines{start=12}
Supply dips at twenty to ten,
nobody is there again.

Early shift at ten to seven.
:::

$$
w = \\frac{m_1 - m_2}{m_1}
$$

:::language{of=ar}
بقيت البذور **باردة** حتى الفجر، ثم أحصيت 12 منها.
:::

| Lot | :formula{tex="\\sqrt{n}" says="root of n"} |
|---|--:|
| K-1 | 15 |`;

test('a source with formulas, a meaning, numbered lines and another script is read online and offline', async ({
  page,
  app,
  candidate,
}) => {
  const body = parseDocument(BODY);
  expect(body.issues).toEqual([]);
  // As if it had been published so: nobody has opened this paper yet.
  app.change(
    `update item_versions set document = json_set(document, '$.source.tabs[0].body', json(?))
     where json_extract(document, '$.key') = 'tray-14'`,
    JSON.stringify(body.document),
  );
  const ilse = candidate(page);
  await ilse.arrives();
  await ilse.goesTo(5);
  const source = page.getByRole('tabpanel');
  const isDrawn = async () => {
    await expect(source.getByRole('heading', { name: 'Night of 9 March' })).toBeVisible();
    await expect(source.locator('.katex')).toHaveCount(2);
    // A formula is set in its own typeface, which has to be on the device.
    const face = () => page.evaluate(() => document.fonts.check('16px KaTeX_Math'));
    await expect.poll(face).toBe(true);
  };
  await isDrawn();
  await expect(source).toContainText('Cost: $5 to $6 at 10:30.');
  await expect(source.getByLabel('Line 14')).toBeVisible();
  const arabic = source.locator('[lang=ar]');
  await expect(arabic).toHaveCSS('direction', 'rtl');
  await expect(arabic.locator('strong')).toHaveText('باردة');
  await source.getByRole('button', { name: 'reserve cooler' }).press('Enter');
  await expect(page.getByRole('dialog')).toContainText('the second machine');
  await hasNoBarriers(page, 'a source with everything');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await app.killHard();
  await page.reload();
  await isDrawn();
  // On a phone nothing scrolls sideways.
  await page.setViewportSize({ width: 360, height: 740 });
  const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
  expect(await wide()).toBe(360);
});
