/* Programs that loop in both lanes, until this process is killed: a test looks whether anything of them is left. */
import path from 'node:path';
import { runOf } from '../../../core/testing/programRuns';
import { findWalls } from '../lanes/walls';
import { Sandbox } from '../sandbox';

const loop = runOf('python', 'def f(n):\n    while True: pass', [[1]], { milliseconds: 20_000 });
const walls = { ...findWalls(), bubblewrap: null };
for (const rule of ['best', 'portable'] as const) {
  const box = new Sandbox(path.resolve('dist/sandbox'), { rule, walls });
  await box.warmUp();
  void box.run(loop);
}
setTimeout(() => console.log('begun'), 500);
