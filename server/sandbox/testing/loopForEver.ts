/* Programs that loop in both lanes, until this process is killed: a test looks whether anything of them is left. */
import path from 'node:path';
import { findWalls } from '../lanes/walls';
import { Sandbox } from '../sandbox';

const limits = { milliseconds: 20_000, megabytes: 64, outputBytes: 1000 };
const loop = {
  language: 'python',
  program: 'def f(n):\n    while True: pass',
  functionName: 'f',
  limits,
} as const;
const walls = { ...findWalls(), bubblewrap: null };
for (const rule of ['best', 'portable'] as const) {
  const box = new Sandbox(path.resolve('dist/sandbox'), { rule, walls });
  await box.warmUp();
  void box.run({ ...loop, cases: [{ key: 'a', arguments: [1] }] });
}
setTimeout(() => console.log('begun'), 500);
