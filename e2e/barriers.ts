import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './testApp';

/** What axe finds in the way of people with a keyboard, a screen reader or weak eyes: nothing. */
export async function hasNoBarriers(page: Page, where: string): Promise<void> {
  // A button that just became usable is between two colours for a moment. Asked for again and again: the promise of an
  // animation whose element has gone may never be kept.
  await page.waitForFunction(() =>
    document.getAnimations().every((one) => one.effect?.getComputedTiming().endTime === Infinity),
  );
  // Only what is wrong is described in full, and the page itself is asked: half the time, and the same findings.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .analyze();
  const told = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
  expect(told, where).toEqual([]);
}
