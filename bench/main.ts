/* Speed lives here: measures the running product, writes bench/results.json and prints a table. */
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import path from 'node:path';
import { BenchHouse } from './BenchHouse';
import { measureDesk } from './desk';
import { measureSaves } from './saves';
import { drawClip } from '../e2e/prepare';

await drawClip();
const house = await BenchHouse.open();
try {
  const desk = await measureDesk(house);
  const { save, echo } = await measureSaves(house);
  const results = {
    at: new Date().toISOString(),
    machine: { cores: cpus().length, processor: cpus()[0]!.model, node: process.version },
    saves: { save, echo, ofEcho: Math.round((100 * save.perSecond) / echo.perSecond) / 100 },
    desk,
  };
  writeFileSync(path.join(import.meta.dirname, 'results.json'), `${JSON.stringify(results, null, 2)}\n`);
  const ms = (n: number) => `${n} ms`;
  console.table({
    'durable saves': {
      figure: `${Math.round(save.perSecond)}/s`,
      p50: ms(save.p50Ms),
      p99: ms(save.p99Ms),
      goal: '',
    },
    'bare echo': {
      figure: `${Math.round(echo.perSecond)}/s`,
      p50: ms(echo.p50Ms),
      p99: ms(echo.p99Ms),
      goal: '',
    },
    'saves of echo': { figure: results.saves.ofEcho, p50: '', p99: '', goal: '≥ 0.5' },
    'desk, its fonts': { figure: `${desk.fontsKb} kB`, p50: '', p99: '', goal: '' },
    'desk, first load': { figure: `${desk.firstLoadKb} kB`, p50: '', p99: '', goal: '≤ 200 kB' },
    'question to question, p95 at 4× slower (most)': {
      figure: ms(desk.questionP95Ms),
      p50: ms(desk.questionP50Ms),
      p99: ms(desk.questionMostMs),
      goal: '≤ 100 ms',
    },
  });
} finally {
  await house.close();
}
