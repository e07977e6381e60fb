/* Many forks of one process: how many hung, or had to be run again for another reason, and whether all were right. */
import path from 'node:path';
import { plainOf, runOf } from '../../core/testing/programRuns';
import { findWalls } from '../../server/sandbox/lanes/walls';
import { Sandbox } from '../../server/sandbox/sandbox';

const FORKS = Number(process.argv[process.argv.indexOf('--forks') + 1] || 50_000);
const AT_ONCE = 50;
const again: Record<string, number> = {};
const box = new Sandbox(path.resolve('dist/sandbox'), {
  walls: findWalls(),
  log: {
    warn: (said: unknown) => {
      const { why = 'unknown' } = said as { why?: string };
      again[why] = (again[why] ?? 0) + 1;
    },
  },
});
await box.warmUp();
const from = performance.now();
let [done, wrong, slowestMs] = [0, 0, 0];
while (done < FORKS) {
  const numbers = Array.from({ length: AT_ONCE }, (_, i) => [done + i]);
  const run = runOf('python', 'def f(n):\n    return [n, sum(range(n % 1000))]', numbers);
  const { cases } = run;
  const halves = [cases.slice(0, AT_ONCE / 2), cases.slice(AT_ONCE / 2)];
  const outcomes = (
    await Promise.all(halves.map((half, i) => box.run({ ...run, cases: half }, `owner ${i}`)))
  ).flat();
  for (const [i, outcome] of outcomes.entries()) {
    const n = done + i;
    const right = JSON.stringify([n, ((n % 1000) * ((n % 1000) - 1)) / 2]);
    if (outcome.result !== 'returned' || JSON.stringify(plainOf(outcome.value)) !== right) wrong++;
    slowestMs = Math.max(slowestMs, outcome.milliseconds);
  }
  done += AT_ONCE;
}
const seconds = (performance.now() - from) / 1000;
console.log({
  forks: done,
  seconds: Math.round(seconds),
  perSecond: Math.round(done / seconds),
  wrong,
  again,
  slowestMs,
});
box.close();
