/* Runs of small programs in the browser, by the workers that the desk uses. */
import { readdirSync } from 'node:fs';
import path from 'node:path';
import type { Browser } from '@playwright/test';
import type { CaseJob } from '../../core/programs/engine';
import type { ProgramLanguage } from '../../core/programs/languages';
import { jobOf, runOf } from '../../core/testing/programRuns';

const ENGINES: readonly (readonly [ProgramLanguage, string, string, unknown])[] = [
  ['python', 'python', 'def f(n):\n    return sum(range(n))', 100],
  ['javascript', 'javascript', 'const f = (n) => n + 1', 100],
  ['typescript', 'javascript', 'const f = (n: number): number => n + 1', 100],
  ['sql', 'sql', 'select count(*) from t', 'create table t (x); insert into t values (1);'],
];
const LATER = 20;

export interface BrowserRuns {
  /** From the start of the engine to the first outcome. */
  readonly firstMs: number;
  /** The middle one of twenty later runs, with the way to the worker and back. */
  readonly laterMs: number;
}

/** In the page, as text: what compiles this file would put names of its own into a function. */
const measure = (address: string, job: CaseJob): string => `(async () => {
  const from = performance.now();
  const engine = new Worker(${JSON.stringify(address)}, { type: 'module' });
  const next = () => new Promise((done) => { engine.onmessage = done; });
  await next();
  const run = async () => {
    const begun = performance.now();
    engine.postMessage(${JSON.stringify(job)});
    await next();
    return performance.now() - begun;
  };
  await run();
  const firstMs = performance.now() - from;
  const times = [];
  for (let i = 0; i < ${LATER}; i++) times.push(await run());
  engine.terminate();
  return { firstMs, laterMs: times.sort((a, b) => a - b)[${LATER / 2}] };
})()`;

/** Language by language, in a page of the running application. */
export async function measureInBrowser(browser: Browser, url: string): Promise<Record<string, BrowserRuns>> {
  const page = await (await browser.newContext()).newPage();
  await page.goto(url);
  const assets = readdirSync(path.resolve('dist/web/assets'));
  const found: Record<string, BrowserRuns> = {};
  for (const [language, engine, program, given] of ENGINES) {
    const file = assets.find((name) => name.startsWith(`${engine}Worker-`) && name.endsWith('.js'))!;
    const job = jobOf(runOf(language, program, [[given as number]]));
    found[language] = await page.evaluate<BrowserRuns>(measure(`/assets/${file}`, job));
  }
  await page.context().close();
  return found;
}
