import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import type { Page } from '@playwright/test';
import { expect } from './testApp';

type WithAxe = typeof globalThis & { readonly axe?: typeof axe };

/** Without what people read in it: half as much to send to each page and to compile there. */
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/**
 * What axe finds in the way of people with a keyboard, a screen reader or weak eyes: nothing. In a part of the page alone
 * where all around it was looked at already.
 */
export async function hasNoBarriers(page: Page, where: string, within = 'html'): Promise<void> {
  // A page that has nothing on it yet is in nobody's way.
  await page.locator('h1').first().waitFor({ state: 'attached' });
  // A button that just became usable is between two colours for a moment. Asked for again and again: the promise of an
  // animation whose element has gone may never be kept.
  await page.waitForFunction(() =>
    document.getAnimations().every((one) => one.effect?.getComputedTiming().endTime === Infinity),
  );
  // Brought once a page: it is half a megabyte of program.
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(AXE);
  const told = await page.evaluate(async (part) => {
    // Only what is wrong is described in full: the same findings in half the time.
    const options = { resultTypes: ['violations' as const] };
    const { violations } = await (globalThis as WithAxe).axe!.run(part, options);
    return violations.map(
      ({ id, nodes }) => `${id}: ${nodes.map((node) => node.target.join(' ')).join(', ')}`,
    );
  }, within);
  expect(told, where).toEqual([]);
}
