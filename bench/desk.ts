import { gzipSync } from 'node:zlib';
import { chromium, type Browser, type Page } from '@playwright/test';
import { measureInBrowser, type BrowserRuns } from './programs/inBrowser';
import { CAMERA_CLIP, CHROMIUM } from '../e2e/paths';
import { Candidate } from '../e2e/people/Candidate';
import { gallery } from '../demo/items/gallery';
import type { BenchApp } from './BenchApp';

export interface DeskFigures {
  /** Runs of small programs in the browser, language by language. */
  readonly programs: Record<string, BrowserRuns>;
  /** Everything the first question needs, each thing once, as gzip, but the fonts: page, scripts, styles, paper and answers so far. */
  readonly firstLoadKb: number;
  /** The fonts come behind the text (`font-display: swap`), and from the cache for whoever came by the arrival. */
  readonly fontsKb: number;
  /** From the press of a key to the next question painted, at a processor four times slower. */
  readonly plain: Moves;
  /** As `plain`, to questions with an editor. */
  readonly editors: Moves;
  /** As `plain`, to questions about charts, films, pictures, sound and documents, all warmed. */
  readonly media: Moves;
  /** As `media`, with highlights drawn, and lens and rough work open. */
  readonly mediaWithAids: Moves;
  /** To one question of each kind with text and plain controls, all warmed, with the same aids in use. */
  readonly withAids: Moves;
  /** From the press of an aid's button to its panel painted, at a processor four times slower. */
  readonly opening: Moves;
  /** As `plain`, to the questions of each kind, all warmed. */
  readonly kinds: Readonly<Record<string, Moves>>;
}

interface Moves {
  readonly p50Ms: number;
  readonly p95Ms: number;
  readonly mostMs: number;
  readonly moves: number;
}

/** esbuild, through tsx, names functions with a helper that the page does not have. */
const NAMES = 'globalThis.__name = (named) => named';
const SLOW_DOWN = 4;
const ROUNDS = 3;

async function firstLoad(page: Page, desk: string) {
  const sizes = new Map<string, Promise<number>>();
  page.on('response', (response) => {
    // The line of events has no end.
    if (/event-stream/.test(response.headers()['content-type'] ?? '')) return;
    const font = /woff2/.test(response.url());
    const size = response.body().then(
      (body) => (font ? body.length : gzipSync(body).length),
      () => 0,
    );
    sizes.set(response.url(), size);
  });
  await page.goto(desk);
  // The first window still holds the desk; taking it over opens the page once more.
  await page.getByRole('button', { name: 'Continue here' }).click();
  await page.getByRole('heading', { level: 1, name: 'Question 1' }).waitFor();
  await page.evaluate(() => document.fonts.ready.then(() => undefined));
  page.removeAllListeners('response');
  const sum = async (fonts: boolean) => {
    const counted = [...sizes].filter(([url]) => /woff2/.test(url) === fonts).map(([, size]) => size);
    return Math.round((await Promise.all(counted)).reduce((all, bytes) => all + bytes, 0) / 102.4) / 10;
  };
  return { firstLoadKb: await sum(false), fontsKb: await sum(true) };
}

/** Presses the key for the next question and measures until the frame after the new heading is painted. */
const move = (page: Page, key: 'PageDown' | 'PageUp') =>
  page.evaluate(async (name) => {
    // Nobody turns the page while it is still being laid out: as a reader would, wait until the browser rests.
    await new Promise((rested) => requestIdleCallback(rested));
    const heading = () => document.querySelector('h1')!.textContent;
    const before = heading();
    const from = performance.now();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: name, altKey: true, bubbles: true }));
    const painted = () => new Promise<void>((done) => requestAnimationFrame(() => void setTimeout(done)));
    do await painted();
    while (heading() === before);
    const ms = performance.now() - from;
    // Questions laid out beforehand are on the page too, but not to be seen.
    const fields = [...document.querySelectorAll('main [contenteditable=true]')];
    return {
      ms,
      heading: heading(),
      editor: fields.some((field) => field.checkVisibility({ visibilityProperty: true })),
    };
  }, key);

function summary(times: readonly number[]): Moves {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) =>
    Math.round(sorted[Math.min(Math.floor(sorted.length * share), sorted.length - 1)]!);
  return { p50Ms: at(0.5), p95Ms: at(0.95), mostMs: at(1), moves: sorted.length };
}

interface Moved {
  readonly ms: number;
  readonly heading: string | null;
  readonly editor: boolean;
}

/** The moves between the questions of a desk, there and back again. */
async function moves(page: Page, upTo = Infinity): Promise<Moved[]> {
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
  const bars = await page.getByRole('navigation', { name: 'Questions' }).getByRole('button').count();
  const questions = Math.min(bars, upTo);
  const times = [];
  for (let round = 0; round < ROUNDS; round++)
    for (const key of ['PageDown', 'PageUp'] as const)
      for (let i = 1; i < questions; i++) times.push(await move(page, key));
  return times;
}

/** A page in a window of its own, so that the browser does not take it for one in the background. */
async function newPage(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addInitScript(NAMES);
  return context.newPage();
}

/** A desk whose questions were all seen once: their editors are open, their charts drawn. */
async function warmedDesk(browser: Browser, link: string, upTo?: number): Promise<Page> {
  const page = await newPage(browser);
  await new Candidate(page, link).arrives();
  await moves(page, upTo);
  return page;
}

/** The questions before the section that is gone through forward only. */
const FREE = 7;
const AIDS = ['Highlight', 'Lens', 'Rough work'] as const;
const toolOf = (page: Page, name: string) =>
  page.locator('[data-kit]').getByRole('button', { name, exact: true });

/** Kinds with an editor, a field for mathematics or a plane: warmed, they have longer. */
export const HEAVY: readonly string[] = ['code', 'writing', 'expression', 'plot', 'number-line'];

/** Highlights the first sentences in view, and leaves the other aids open. */
async function usesAids(page: Page): Promise<void> {
  const [highlight, ...others] = AIDS;
  await toolOf(page, highlight).click();
  // The first sentences of every text in view, in tints.
  await page.getByText('Choose words by keys').click();
  for (let i = 0; i < 3; i++) {
    await page.getByRole('button', { name: 'Next sentence' }).click();
    await page.getByRole('button', { name: 'Blue, dotted line' }).click();
  }
  for (const name of others) await toolOf(page, name).click();
}

async function measureMedia(browser: Browser, link: string) {
  const page = await warmedDesk(browser, link, FREE);
  const media = await moves(page, FREE);
  await usesAids(page);
  const mediaWithAids = await moves(page, FREE);
  await page.context().close();
  return { media: all(media), mediaWithAids: all(mediaWithAids) };
}

/** Opens and closes every aid by its button, three times. */
async function measureOpening(page: Page): Promise<Moves> {
  const times: number[] = [];
  const names = await page.locator('[data-kit] button[aria-pressed]').allInnerTexts();
  for (let round = 0; round < ROUNDS; round++)
    for (const name of names) {
      times.push(
        await page.evaluate(async (label) => {
          await new Promise((rested) => requestIdleCallback(rested));
          const buttons = [...document.querySelectorAll<HTMLElement>('[data-kit] button[aria-pressed]')];
          const button = buttons.find((one) => one.innerText.trim() === label)!;
          const panels = () =>
            [...document.querySelectorAll('[role=dialog], [role=region], [data-slot]')].filter((one) =>
              one.checkVisibility(),
            ).length;
          const before = panels();
          const from = performance.now();
          button.click();
          const painted = () =>
            new Promise<void>((done) => requestAnimationFrame(() => void setTimeout(done)));
          do await painted();
          while (panels() === before);
          return performance.now() - from;
        }, name.trim()),
      );
      await toolOf(page, name.trim()).click();
    }
  return summary(times);
}

const all = (times: readonly Moved[]): Moves => summary(times.map((one) => one.ms));

/** The gallery has a question of each kind, in this order. */
const KINDS = gallery.map(({ parts: [part] }) => part!.kind);

function byKind(times: readonly Moved[]): Record<string, Moves> {
  return Object.fromEntries(
    KINDS.map((kind, i) => [kind, all(times.filter(({ heading }) => heading === `Question ${i + 1}`))]),
  );
}

const plainAmong = (times: readonly Moved[]): Moves =>
  all(
    times.filter(({ heading }) =>
      KINDS.some((kind, i) => heading === `Question ${i + 1}` && !HEAVY.includes(kind)),
    ),
  );

export async function measureDesk(app: BenchApp): Promise<DeskFigures> {
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${CAMERA_CLIP}`,
    ],
  });
  try {
    // As a candidate comes to it, from the cover, where everything is brought; the first look at each question counts.
    const page = await newPage(browser);
    await new Candidate(page, app.link).arrives();
    const times = await moves(page);
    // As on a device that takes it over: nothing is here yet.
    const fresh = await newPage(browser);
    const sizes = await firstLoad(fresh, `${app.link}/desk`);
    for (const one of [page, fresh]) await one.context().close();
    const own = (editor: boolean) =>
      summary(times.filter((one) => one.editor === editor).map((one) => one.ms));
    const media = await measureMedia(browser, app.mediaLink);
    const every = await warmedDesk(browser, app.kindsLink);
    const kinds = byKind(await moves(every));
    const opening = await measureOpening(every);
    await usesAids(every);
    const withAids = plainAmong(await moves(every));
    const programs = await measureInBrowser(browser, app.url);
    return { ...sizes, programs, plain: own(false), editors: own(true), ...media, withAids, opening, kinds };
  } finally {
    await browser.close();
  }
}
