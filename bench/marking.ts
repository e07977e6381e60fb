/*
 * Marking at size: `node --import tsx bench/marking.ts`. Pure computation is timed in this process; the table is the real
 * one in Chromium, on the main sitting of the demo, at a processor four times slower.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { allocate } from '../core/marking/allocate';
import { intraclass } from '../core/marking/intraclass';
import {
  adjacentAgreement,
  exactAgreement,
  fleissKappa,
  meanDifference,
  weightedKappa,
  type Pair,
} from '../core/marking/agreement';
import { similarResponses } from '../core/marking/similar';
import { seededRandom } from '../core/random';
import { essayLevels } from '../demo/cohort/answers';
import { writeEssay } from '../demo/cohort/essays';
import { staffMembers } from '../demo/people';
import { richAsText } from '../core/kinds/shared/richText';
import { Staff } from '../e2e/people/Staff';
import { CHROMIUM, ROOT } from '../e2e/paths';
import { measureExports } from './exports';
import { TestApp } from '../e2e/testApp';
import { freePort } from '../server/testing/freePort';

const SLOW_DOWN = 4;
/** Decisions before those that are told: an assessor makes hundreds on one page. */
const WARM_UP = 4;
const random = seededRandom('bench of marking');

function timed<T>(work: () => T): { readonly ms: number; readonly result: T } {
  const from = performance.now();
  const result = work();
  return { ms: Math.round(performance.now() - from), result };
}

const scripts = Array.from({ length: 5000 }, (_, i) => i + 1);
const assessors = Array.from({ length: 12 }, (_, i) => i + 1);
const allocation = timed(() =>
  [1, 2, 3].map((item) =>
    allocate({ scripts, assessors, doublePercent: 30, kept: [], seed: `item ${item}` }),
  ),
);

const pairs = Array.from({ length: 10_000 }, (): Pair => {
  const first = Math.floor(random() * 25) * 50;
  return [first, Math.max(0, Math.min(1200, first + Math.floor(random() * 9 - 4) * 50))];
});
const agreement = timed(() => [
  exactAgreement(pairs),
  adjacentAgreement(pairs),
  weightedKappa(pairs),
  fleissKappa(pairs),
  meanDifference(pairs),
  ...(['1,1', '2,1', '3,1', '1,k', '2,k', '3,k'] as const).map((form) => intraclass(form, pairs)),
]);

const essays = Array.from({ length: 2000 }, (_, i) => ({
  script: i,
  form: 'words' as const,
  text: Array.from({ length: 3 }, () =>
    richAsText(writeEssay(essayLevels(random(), random), random).text),
  ).join('\n'),
}));
const similar = timed(() => similarResponses(essays, []));

/** From Enter to the next response painted, at the marking table. */
async function decisions(): Promise<readonly number[]> {
  const folder = mkdtempSync(path.join(tmpdir(), 'bench-marking-'));
  execFileSync(process.execPath, ['--import', 'tsx', 'demo/main.ts'], {
    cwd: ROOT,
    env: { ...process.env, CLEAR_SITTING_DATA: folder },
    stdio: 'pipe',
  });
  const app = new TestApp(await freePort(), folder);
  // Everything is open again, so that there is enough to mark.
  app.change("update marking_tasks set done_at = null where role in ('first', 'second')");
  await app.start();
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const page = await browser.newPage();
    // esbuild, through tsx, names functions with a helper that the page does not have.
    await page.addInitScript('globalThis.__name = (named) => named');
    await Staff.signInAs(
      page,
      app.url,
      staffMembers.find((one) => one.name === 'Tamsin Ebanks')!,
    );
    const round = app.rows<{ id: number }>("select id from rounds where key = 'technician-main'")[0]!.id;
    await page.goto(`${app.url}/staff/marking/${round}/incident-note/A`);
    await page.getByRole('region', { name: 'Response' }).waitFor();
    await (
      await page.context().newCDPSession(page)
    ).send('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
    const times: number[] = [];
    for (let n = 0; n < WARM_UP + 30; n++) {
      // A script with agreed marks may have told something.
      const goOn = page.getByRole('button', { name: 'Continue' });
      if (await goOn.isVisible()) await goOn.click();
      for (const mark of [2, 2, 2, 1]) await page.keyboard.press(String(mark));
      const own = (await page
        .getByText(/^script /)
        .filter({ visible: true })
        .textContent())!;
      const lookedAgain = page.waitForResponse((response) => response.url().includes('/marking/piles/'));
      times.push(
        await page.evaluate(
          (code) =>
            new Promise<number>((done) => {
              const from = performance.now();
              const isShown = () =>
                [...document.querySelectorAll('section p')].some((p) => p.textContent === code);
              window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
              // As at the desk: a frame, and the moment after it.
              const look = () =>
                requestAnimationFrame(
                  () => void setTimeout(() => (isShown() ? look() : done(performance.now() - from))),
                );
              look();
            }),
          own,
        ),
      );
      // The pile is looked at again behind it.
      await (await lookedAgain).finished();
    }
    return times.slice(WARM_UP).sort((a, b) => a - b);
  } finally {
    await browser.close();
    await app.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

const exported = await measureExports();
const times = await decisions();
const at = (share: number) =>
  Math.round(times[Math.min(times.length - 1, Math.floor(share * times.length))]!);
console.table({
  'allocation of 5,000 scripts × 3 items': { figure: `${allocation.ms} ms`, goal: '≤ 2 s' },
  'agreement over 20,000 marks': { figure: `${agreement.ms} ms`, goal: '≤ 200 ms' },
  'similar responses among 2,000': {
    figure: `${similar.ms} ms, ${similar.result.pairs.length} pairs told`,
    goal: '≤ 10 s',
  },
  [`results of ${exported.candidates} candidates as XLSX (CSV)`]: {
    figure: `${exported.xlsxMs} ms (${exported.csvMs} ms)`,
    goal: '≤ 5 s',
  },
  '… saves meanwhile, p99 (before)': {
    figure: `${exported.saves.meanwhile} ms (${exported.saves.before} ms)`,
    goal: 'undisturbed',
  },
  'decision to next response, p50 at 4× slower': { figure: `${at(0.5)} ms`, goal: '' },
  'decision to next response, p95 at 4× slower': { figure: `${at(0.95)} ms`, goal: '≤ 100 ms' },
});
process.exit(0);
