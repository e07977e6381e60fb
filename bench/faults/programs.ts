import { readdirSync, readFileSync } from 'node:fs';
import type { BenchApp } from '../BenchApp';
import { handIn, looping, right, scored, untilScored, type Scored } from '../programs/handIns';

const CANDIDATES = 20;
const LOOPING = 6;
const SCORED_MS = 180_000;

/** The living processes, with their parents. */
function parents(): Map<number, number> {
  const found = new Map<number, number>();
  for (const name of readdirSync('/proc').filter((entry) => /^\d+$/.test(entry)))
    try {
      const [state, parent] = readFileSync(`/proc/${name}/stat`, 'latin1').split(') ')[1]!.split(' ');
      if (state !== 'Z') found.set(Number(name), Number(parent));
    } catch {
      // It has ended meanwhile.
    }
  return found;
}

/** Everything below a process that belongs to the code box. */
function boxOf(pid: number): number[] {
  const all = parents();
  const below = (of: number): number[] =>
    [...all.keys()].filter((one) => all.get(one) === of).flatMap((one) => [one, ...below(one)]);
  return below(pid).filter((one) => {
    try {
      return /zygote\.cjs|portableChild\.cjs/.test(readFileSync(`/proc/${one}/cmdline`, 'latin1'));
    } catch {
      return false;
    }
  });
}

export interface ProgramsReport extends Scored {
  readonly processesAtTheKill: number;
  readonly processesLeft: number;
  readonly goneAfterMs: number | null;
  readonly scoredAll: boolean;
}

/**
 * The server is killed by `-9` with twenty programs handed in and some of them looping: nothing of the code box is left,
 * and after the restart every script is scored once.
 */
export async function killWithPrograms(app: BenchApp): Promise<ProgramsReport> {
  const before = scored(app.db.$client).sittings;
  const cookies = app.openSittings(CANDIDATES);
  await handIn(app, cookies.slice(0, LOOPING), looping);
  await handIn(app, cookies.slice(LOOPING), right);
  // The looping ones came first: they are being run when the server is killed.
  for (let tries = 0; tries < 200 && boxOf(app.pid).length < 4; tries++)
    await new Promise((again) => setTimeout(again, 25));
  const processes = boxOf(app.pid);
  await app.killHard();
  const from = performance.now();
  const left = () => processes.filter((pid) => parents().has(pid));
  while (left().length > 0 && performance.now() - from < 10_000)
    await new Promise((again) => setTimeout(again, 10));
  const goneAfterMs = left().length === 0 ? Math.round(performance.now() - from) : null;
  const processesLeft = left().length;
  await app.start();
  const took = await untilScored(app, before + CANDIDATES, SCORED_MS);
  return {
    processesAtTheKill: processes.length,
    processesLeft,
    goneAfterMs,
    scoredAll: took !== null,
    ...scored(app.db.$client),
  };
}
