import type { BenchApp } from '../BenchApp';
import { measureBox } from './box';
import { handIn, looping, openDesk, right, scored, untilScored, writeProgram } from './handIns';

const HAND_INS = 200;
const WITHIN_MS = 120_000;
const LOOP_EVERY = 20;
const MOST_MS = 300_000;
const WRITERS = 50;

interface Delay {
  readonly p50: number;
  readonly p99: number;
  readonly most: number;
}

/** Two hundred hand-ins in two minutes, one in twenty of them looping, while others write. */
async function handInsOf(app: BenchApp) {
  const before = scored(app.db.$client);
  const cookies = app.openSittings(HAND_INS);
  const writers = app.openSittings(WRITERS);
  const delay = async () => (await (await fetch(`${app.url}/api/bench/delay`)).json()) as Delay;
  await delay();
  const saves: number[] = [];
  let writing = true;
  let refused = 0;
  const write = async (cookie: string) => {
    const device = await openDesk(app, cookie);
    for (let n = 0; writing; n++) {
      writeProgram(device, right(n));
      const from = performance.now();
      if ((await device.save()).status !== 200) refused++;
      saves.push(performance.now() - from);
      await new Promise((again) => setTimeout(again, 1000));
    }
  };
  const others = writers.map(write);
  const from = performance.now();
  for (const [n, cookie] of cookies.entries()) {
    const due = (n * WITHIN_MS) / HAND_INS - (performance.now() - from);
    if (due > 0) await new Promise((go) => setTimeout(go, due));
    await handIn(app, [cookie], n % LOOP_EVERY === 0 ? () => looping(n) : () => right(n));
  }
  const rest = await untilScored(app, before.sittings + HAND_INS, MOST_MS);
  writing = false;
  await Promise.all(others);
  const loop = await delay();
  const now = scored(app.db.$client);
  return {
    handIns: HAND_INS,
    scored: now.sittings - before.sittings,
    scoredAfterTheLastMs: rest === null ? null : Math.round(rest),
    twice: now.runTwice + now.markedTwice,
    loopP99Ms: Math.round(loop.p99 * 10) / 10,
    loopMostMs: Math.round(loop.most),
    refused,
    saveP99Ms: Math.round(saves.sort((a, b) => a - b)[Math.floor(saves.length * 0.99)] ?? 0),
  };
}

export async function measurePrograms(app: BenchApp) {
  const handIns = await handInsOf(app);
  return { handIns, ...(await measureBox()) };
}
