import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { zipSync } from 'fflate';
import { hasNoBarriers } from './barriers';
import { ROOT } from './paths';
import { leftBehind, readableOf } from './stored';
import { Staff } from './people/Staff';
import { AMADOU, expect, LUDO, test } from './testApp';

test.use({ serviceWorkers: 'allow' });

const player = (page: Page) => page.getByRole('region', { name: /^Recording:/ });
const status = (page: Page) => player(page).getByRole('status');
const playButton = (page: Page) => player(page).getByRole('button', { name: 'Play – counts as one time' });

async function hearsTone(page: Page): Promise<void> {
  await player(page).getByRole('button', { name: 'Play a test tone' }).click();
  await player(page).getByRole('button', { name: 'I hear the tone' }).click();
}

async function plays(page: Page): Promise<void> {
  await playButton(page).click();
  await expect(player(page).getByRole('button', { name: 'Playing' })).toBeVisible();
}

test('plays cannot be won back: by loading again, without a connection, by the clock, a second device or a made-up request', async ({
  page,
  browser,
  app,
  candidate,
}) => {
  await page.clock.install();
  const amadou = candidate(page, AMADOU);
  await amadou.arrives();
  await expect(status(page)).toContainText('You can play it two more times (limit: two)');
  await hearsTone(page);
  await plays(page);
  await expect(status(page)).toContainText('You can play it one more time (limit: two)');

  await test.step('loaded again in the middle of it', async () => {
    await page.reload();
    await expect(status(page)).toContainText('You can play it one more time (limit: two)');
    await expect(player(page).getByRole('alert')).toContainText(
      'The recording stopped early. It counts as played.',
    );
    await hasNoBarriers(page, 'a recording that broke off');
  });

  await test.step('without a connection there is one, and no more', async () => {
    await hearsTone(page);
    await expect(playButton(page)).toBeEnabled();
    await page.context().setOffline(true);
    await plays(page);
    await expect(status(page)).toContainText('You have played it two times, which is the limit');
    await page.reload();
    await expect(status(page)).toContainText('You have played it two times, which is the limit');
    await expect(playButton(page)).toBeDisabled();
  });

  await test.step('nor by a changed clock', async () => {
    await page.clock.setSystemTime(Date.now() + 24 * 3_600_000);
    await page.context().setOffline(false);
    await page.reload();
    await expect(status(page)).toContainText('You have played it two times, which is the limit');
    await page.clock.setSystemTime(Date.now() - 24 * 3_600_000);
    await page.reload();
    await expect(status(page)).toContainText('You have played it two times, which is the limit');
    await expect(playButton(page)).toBeDisabled();
  });

  await test.step('nor by another device, nor by what it makes up', async () => {
    const second = await (await browser.newContext()).newPage();
    await second.goto(amadou.link);
    await second
      .getByRole('link', { name: 'Go to the questions' })
      .or(second.getByRole('button', { name: 'Continue here' }))
      .first()
      .click();
    await second
      .getByRole('button', { name: 'Continue here' })
      .click({ timeout: 15_000 })
      .catch(() => undefined);
    await expect(status(second)).toContainText('You have played it two times, which is the limit');
    await expect(playButton(second)).toBeDisabled();
    const answered = await second.evaluate(async () => {
      const db = await new Promise<IDBDatabase>((done) => {
        const opening = indexedDB.open('clear-sitting-desk');
        opening.onsuccess = () => done(opening.result);
      });
      const all = <T>(store: string) =>
        new Promise<T[]>((done) => {
          const rows = db.transaction(store).objectStore(store).getAll();
          rows.onsuccess = () => done(rows.result as T[]);
        });
      const [sitting] = await all<{ hold: { hold: number; token: string }; plays: Record<string, unknown> }>(
        'sittings',
      );
      const file = Object.keys(sitting!.plays)[0]!;
      const head = { ...sitting!.hold, number: 1e6, chain: '0'.repeat(64), heard: Date.now() };
      const forged = { number: 1e6, about: 'play', target: file, at: 1, value: 0 };
      const body = { head, opening: 'made-up-opening', entries: [forged], file };
      const init = {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      };
      const reply = (await (await fetch('/api/sitting/play', init)).json()) as { number: number | null };
      // A device that throws away what it knows.
      db.close();
      indexedDB.deleteDatabase('clear-sitting-desk');
      return reply.number;
    });
    expect(answered).toBeNull();
    await second.evaluate(() => sessionStorage.clear());
    await second.reload();
    await second
      .getByRole('button', { name: 'Continue here' })
      .click({ timeout: 15_000 })
      .catch(() => undefined);
    await expect(status(second)).toContainText('You have played it two times, which is the limit');

    await test.step('one more is asked for in one press', async () => {
      await second.getByRole('button', { name: 'Ask for one more play' }).filter({ visible: true }).click();
      await expect(player(second).getByText('You asked the invigilator.')).toBeVisible();
    });

    await test.step('an invigilator gives one back', async () => {
      const bram = await Staff.signIn(await (await browser.newContext()).newPage(), app.url, 'invigilator');
      await bram.watches('Field School, entrance');
      const row = bram.page.getByRole('row').filter({ hasText: 'Amadou' });
      await expect(row).toContainText('Please let me play “Morning briefing” once more.');
      await row.getByRole('button', { name: 'More for Amadou Ferrante' }).click();
      await expect(bram.page.getByText('Morning briefing: 2 of 2 plays granted')).toBeVisible();
      await bram.page.keyboard.press('Escape');
      await bram.does('Allow one more play', 'Amadou Ferrante', 'The sound broke off.');
      await expect(status(second)).toContainText('You can play it one more time (limit: two)');
      await hearsTone(second);
      await expect(playButton(second)).toBeEnabled();
      await plays(second);
    });
  });
});

/** A minute of silence in which a device could find words: 40 million bytes, as WAV. */
function longRecording(words: string): Uint8Array {
  const size = 40_000_000;
  const wav = Buffer.alloc(size, words.padEnd(64, '.'), 'latin1');
  wav.write('RIFF', 0, 'latin1');
  wav.writeUInt32LE(size - 8, 4);
  wav.write('WAVEfmt ', 8, 'latin1');
  // PCM, two channels, 44,100 a second, 16 bits.
  for (const [at, value] of [
    [16, 16],
    [24, 44_100],
    [28, 176_400],
  ] as const)
    wav.writeUInt32LE(value, at);
  for (const [at, value] of [
    [20, 1],
    [22, 2],
    [32, 4],
    [34, 16],
  ] as const)
    wav.writeUInt16LE(value, at);
  wav.write('data', 36, 'latin1');
  wav.writeUInt32LE(size - 44, 40);
  return wav;
}

test('a paper with 40 MB of sound is ready before the start, goes on after a cut, and leaves nothing behind', async ({
  page,
  browser,
  app,
  candidate,
}) => {
  const SECRET = 'Wendlebury spoken words';
  const paper = JSON.parse(readFileSync(path.join(ROOT, 'docs/paper-example.json'), 'utf8')) as {
    sections: { items: { parts: { prompt: string }[] }[] }[];
  };
  paper.sections[0]!.items[0]!.parts[0]!.prompt =
    ':::audio{file=long.wav title="Long recording"}\nWendlebury transcript.\n:::\n\nWhat is done first, Wendlebury?';
  const zip = zipSync(
    { 'paper.json': new TextEncoder().encode(JSON.stringify(paper)), 'long.wav': longRecording(SECRET) },
    { level: 1 },
  );
  const office = await Staff.signIn(await (await browser.newContext()).newPage(), app.url, 'coordinator');
  const report = (await (
    await office.page.request.post(`${app.url}/api/papers/import/publish`, {
      data: Buffer.from(zip),
      headers: { 'Content-Type': 'application/octet-stream' },
      timeout: 120_000,
    })
  ).json()) as { published: number; issues: unknown[] };
  expect(report.issues).toEqual([]);
  app.change("update rounds set paper_version_id = ? where key = 'field-school-entrance'", report.published);

  /** Every part that came, by where it begins. */
  const came: string[] = [];
  const cut = { after: 25 };
  await page.context().route('**/api/sitting/media/**', async (route) => {
    if (came.length >= cut.after) return route.abort('connectionreset');
    came.push(route.request().headers().range!);
    await route.continue();
  });
  const ludo = candidate(page, LUDO);
  const atCover = ludo.comesToCover().catch((error: unknown) => error);
  const bar = page.getByRole('progressbar', { name: 'Recordings, videos and pictures' });
  await expect(page.getByText('The download continues automatically.')).toBeVisible({
    timeout: 60_000,
  });
  await expect(bar).toHaveAttribute('aria-valuetext', /^13\.1 of 40\.0 MB/);
  await expect(page.getByRole('button', { name: 'Start – the clock begins' })).toBeDisabled();
  await hasNoBarriers(page, 'a paper on its way');
  // Loaded again meanwhile: what has come is not fetched again.
  cut.after = 40;
  await page.reload();
  await expect.poll(() => came.length, { timeout: 60_000 }).toBe(40);
  cut.after = Infinity;
  await expect(page.getByRole('button', { name: 'Start – the clock begins' })).toBeEnabled({
    timeout: 120_000,
  });
  await atCover;
  // 40,000,000 bytes and 28 of the seal in parts of 512 KiB: 77, and few of them twice.
  expect(new Set(came).size).toBe(77);
  expect(came.length).toBeLessThan(81);
  // Nothing of it can be read on the device before the clock runs.
  expect(await readableOf(page, ['Wendlebury'])).toEqual([]);
  await ludo.starts();
  await expect(page.getByText('What is done first, Wendlebury?')).toBeVisible();
  await player(page).getByRole('button', { name: 'Play' }).click();
  await expect(player(page).getByRole('button', { name: 'Pause' })).toBeVisible();
  expect(await readableOf(page, ['Wendlebury'])).toEqual([]);
  await ludo.isSaved();
  await ludo.handsIn();
  await expect.poll(() => leftBehind(page)).toEqual([]);
});

test('without a connection from the start of a section to its end, with sound, a film and a document', async ({
  page,
  candidate,
}) => {
  const amadou = candidate(page, AMADOU);
  await amadou.arrives();
  await expect(status(page)).toContainText('You can play it two more times (limit: two)');
  await amadou.isSaved();
  await hearsTone(page);
  // The play that is possible without a connection has been granted.
  await expect(playButton(page)).toBeEnabled();
  await page.context().setOffline(true);
  await plays(page);
  await amadou.chooses('At the seed store');
  await page.reload();
  await amadou.goesTo(3);
  await page.getByRole('button', { name: 'Handouts' }).click();
  await page.getByRole('button', { name: /^Rules for collecting/ }).click();
  const rules = page.getByRole('dialog', { name: 'Handout: Rules for collecting' });
  await expect(rules.getByText('Take no more than 20 %')).toBeVisible();
  await rules.getByRole('button', { name: 'Close' }).click();
  await amadou.goesTo(4);
  await expect(page.getByRole('img', { name: /^Germination of three lots/ })).toBeVisible();
  await amadou.goesTo(7);
  // Its key has not come: nothing of it can be read, the film included.
  await page.getByRole('button', { name: 'Enter section C' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'cannot be reached' })).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Enter section C' }).click();
  const film = page.getByRole('region', { name: 'Video: A tray of sea kale' });
  await expect(film).toBeVisible();
  await amadou.isSaved();
  await page.context().setOffline(true);
  await page.reload();
  await film.getByRole('button', { name: 'Play' }).click();
  const video = film.locator('video');
  await expect.poll(() => video.evaluate((one: HTMLVideoElement) => one.currentTime)).toBeGreaterThan(0.3);
  await amadou.entersFigure('7');
  await expect(page.locator('[data-saved="kept"]')).toBeVisible();
  await page.context().setOffline(false);
  await amadou.isSaved();
  await amadou.handsIn();
  await expect.poll(() => leftBehind(page)).toEqual([]);
});
