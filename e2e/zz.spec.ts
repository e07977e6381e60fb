import { test } from './testApp';
const sizes = process.env.ZZ_SIZES?.split(',') ?? ['1280x800', '360x740'];
for (const size of sizes) {
  const [width, height] = size.split('x').map(Number) as [number, number];
  test(`pictures ${size}`, async ({ page, app }) => {
    await page.setViewportSize({ width, height });
    await page.goto(app.url + '/r/gallery/rehearsal');
    await page.getByRole('button', { name: 'Without the clock' }).click();
    await page.getByRole('heading', { level: 1, name: 'Question 1' }).waitFor();
    const from = Number(process.env.ZZ_FROM ?? 7),
      to = Number(process.env.ZZ_TO ?? 15);
    for (let n = 1; n <= to; n++) {
      if (n >= from) {
        await page.waitForTimeout(300);
        await page.screenshot({ path: `/tmp/pics/q${n}-${width}.png` });
      }
      await page.keyboard.press('Alt+PageDown');
      await page.waitForTimeout(150);
    }
  });
}
