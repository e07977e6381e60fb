import { readdirSync } from 'node:fs';
import path from 'node:path';
import { expect } from '@playwright/test';
import type { ProgramLanguage } from '../core/programs/languages';
import type { CaseJob, EngineReply } from '../core/programs/engine';
import { outcomeOf } from '../core/programs/outcomeOf';
import { JAVASCRIPT, PYTHON, SET_UP, SQL, TYPESCRIPT } from '../core/testing/programs';
import { jobOf, runOf } from '../core/testing/programRuns';
import { Sandbox } from '../server/sandbox/sandbox';
import { ROOT } from './paths';
import { test } from './testApp';

test.use({ serviceWorkers: 'allow' });

const limits = { milliseconds: 5000, megabytes: 64, outputBytes: 20_000 };
const GIVEN = 6;
/** So many programs are run a second time, where an engine starts in another way. */
const AGAIN = 10;
const worker = (name: string): string => {
  const file = readdirSync(path.join(ROOT, 'dist/web/assets')).find((one) =>
    one.startsWith(`${name}Worker-`),
  );
  return `/assets/${file!}`;
};

interface WithEngine extends Window {
  engine?: Worker;
}

/* The two below run in the page: the worker that the desk uses, one program after the other. */
function startEngine(address: string): Promise<void> {
  const engine = new Worker(address, { type: 'module' });
  (window as WithEngine).engine = engine;
  return new Promise((resolve, reject) => {
    engine.onmessage = ({ data }: MessageEvent<{ failed?: string }>) =>
      data.failed === undefined ? resolve() : reject(new Error(data.failed));
    engine.onerror = () => reject(new Error('the engine did not start'));
  });
}
async function runAll(jobs: CaseJob[]): Promise<EngineReply[]> {
  const engine = (window as WithEngine).engine!;
  const replies: EngineReply[] = [];
  for (const job of jobs)
    replies.push(
      await new Promise<EngineReply>((resolve) => {
        engine.onmessage = ({ data }: MessageEvent<EngineReply>) => resolve(data);
        engine.postMessage(job);
      }),
    );
  return replies;
}

/* What a program takes differs from device to device, and is no part of what it came to. */
const withoutTime = (outcome: object): object => ({ ...outcome, milliseconds: null, memoryBytes: null });

const LISTS: readonly (readonly [string, readonly (readonly [ProgramLanguage, readonly string[]])[]])[] = [
  ['python', [['python', PYTHON]]],
  [
    'javascript',
    [
      ['javascript', JAVASCRIPT],
      ['typescript', TYPESCRIPT],
    ],
  ],
  ['sql', [['sql', SQL]]],
];

for (const [engine, lists] of LISTS)
  test(`${lists.map(([language]) => language).join(' and ')}: browser and sandbox agree, program by program`, async ({
    app,
    page,
  }) => {
    await page.goto(app.url);
    const runs = lists.flatMap(([language, programs]) =>
      programs.map((program) => runOf(language, program, [[language === 'sql' ? SET_UP : GIVEN]], limits)),
    );
    const jobs = runs.map(jobOf);
    await page.evaluate(startEngine, worker(engine));
    // From here on without a network: an engine that runs needs nothing more.
    await page.context().setOffline(true);
    const replies = await page.evaluate(runAll, jobs);
    const box = new Sandbox(path.join(ROOT, 'dist/sandbox'));
    for (const [i, run] of runs.entries()) {
      const [outcome] = await box.run(run);
      const inBrowser = outcomeOf('c0', replies[i]!, limits.milliseconds);
      expect.soft(withoutTime(inBrowser), run.files[0]!.text).toEqual(withoutTime(outcome!));
    }
    box.close();
    if (engine !== 'python') return;
    // Where the line is too slow for the snapshot, Python starts all the same, and comes to the same.
    await page.context().setOffline(false);
    let refused = 0;
    await page.route('**/python.snapshot', (route) => {
      refused++;
      return route.abort();
    });
    await page.evaluate(startEngine, worker(engine));
    expect(refused).toBe(1);
    const again = await page.evaluate(runAll, jobs.slice(0, AGAIN));
    const outcomes = (some: readonly EngineReply[]) =>
      some.map((reply) => withoutTime(outcomeOf('c0', reply, limits.milliseconds)));
    expect(outcomes(again)).toEqual(outcomes(replies.slice(0, AGAIN)));
  });
