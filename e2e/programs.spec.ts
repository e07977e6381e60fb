import { readdirSync } from 'node:fs';
import path from 'node:path';
import { expect } from '@playwright/test';
import type { ProgramRun } from '../core/kinds/evidence';
import type { CaseJob, EngineReply } from '../core/programs/engine';
import { outcomeOf } from '../core/programs/outcomeOf';
import { Sandbox } from '../server/sandbox/sandbox';
import { ROOT } from './paths';
import { JAVASCRIPT, PYTHON } from './programs';
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
const withoutTime = (outcome: object): object => ({ ...outcome, milliseconds: null });

for (const [language, programs] of [
  ['python', PYTHON],
  ['javascript', JAVASCRIPT],
] as const)
  test(`in ${language} the browser and the sandbox come to the same, program by program`, async ({
    app,
    page,
  }) => {
    expect(programs.length).toBeGreaterThanOrEqual(60);
    await page.goto(app.url);
    const jobs = programs.map((program) => ({
      program,
      functionName: 'f',
      arguments: JSON.stringify([GIVEN]),
      ...limits,
      seed: 1,
    }));
    await page.evaluate(startEngine, worker(language));
    // From here on without a network: an engine that runs needs nothing more.
    await page.context().setOffline(true);
    const replies = await page.evaluate(runAll, jobs);
    const box = new Sandbox(path.join(ROOT, 'dist/sandbox'));
    for (const [i, program] of programs.entries()) {
      const run: ProgramRun = {
        language,
        program,
        functionName: 'f',
        limits,
        cases: [{ key: 'a', arguments: [GIVEN] }],
      };
      const [outcome] = await box.run(run);
      const inBrowser = outcomeOf('a', replies[i]!, limits.milliseconds);
      expect.soft(withoutTime(inBrowser), program).toEqual(withoutTime(outcome!));
    }
    box.close();
    if (language !== 'python') return;
    // Where the line is too slow for the snapshot, Python starts all the same, and comes to the same.
    await page.context().setOffline(false);
    let refused = 0;
    await page.route('**/python.snapshot', (route) => {
      refused++;
      return route.abort();
    });
    await page.evaluate(startEngine, worker(language));
    expect(refused).toBe(1);
    const again = await page.evaluate(runAll, jobs.slice(0, AGAIN));
    const outcomes = (some: readonly EngineReply[]) =>
      some.map((reply) => withoutTime(outcomeOf('a', reply, limits.milliseconds)));
    expect(outcomes(again)).toEqual(outcomes(replies.slice(0, AGAIN)));
  });
