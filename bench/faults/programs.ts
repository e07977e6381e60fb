import { livingProcesses, processesBelow } from '../../server/testing/processes';
import type { BenchApp } from '../BenchApp';
import { handIn, looping, right, scored, untilScored, type Scored } from '../programs/handIns';

const CANDIDATES = 20;
const LOOPING = 6;
const SCORED_MS = 180_000;

const boxOf = (pid: number) => processesBelow(pid, ['zygote.cjs', 'portableChild.cjs']);

export interface ProgramsReport extends Scored {
  readonly processesAtTheKill: number;
  readonly processesLeft: number;
  readonly goneAfterMs: number | null;
  readonly scoredAll: boolean;
}

/**
 * The server is killed by `-9` with twenty programs handed in and some of them looping: nothing of the sandbox is left,
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
  const left = () => processes.filter((pid) => livingProcesses().has(pid));
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
