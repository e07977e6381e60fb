/* The thread of a portable process in which the engine works. */
import { parentPort, workerData } from 'node:worker_threads';
import type { EngineName, RunCase } from '../engines/engine';
import type { CaseJob } from '../../../core/programs/engine';
import { encodeFrame } from './frames';
import { DEEP_STACK, loadEngine } from './loadEngine';
import { watchBoard } from './watchBoard';

const given = workerData as { folder: string; engine: EngineName; board: SharedArrayBuffer };
const board = watchBoard(given.board);

/** So many states may wait to be collected: a collection costs a twelfth of a state. */
const STATES_HELD = 3;

async function serve(): Promise<void> {
  const engine = loadEngine(given.engine, given.folder, DEEP_STACK);
  // The first state waits for its program; every later case has one made for it.
  let next: RunCase | null = await engine.fresh();
  const runAll = async (cases: readonly CaseJob[]) => {
    for (const [i, one] of cases.entries()) {
      const state = next ?? (await engine.fresh());
      next = null;
      if (i % STATES_HELD === STATES_HELD - 1) globalThis.gc?.();
      board.begin(i);
      const reply = state(one, board.spentMs);
      const cpuMs = board.spentMs();
      // From here to the next case whatever the used realm has left waiting may run: it is watched all the same.
      if (i + 1 < cases.length) board.pause();
      else board.finish();
      parentPort!.postMessage(encodeFrame({ ...reply, cpuMs }));
    }
    parentPort!.postMessage('done');
  };
  parentPort!.on('message', (cases: readonly CaseJob[]) => void runAll(cases));
  parentPort!.postMessage('ready');
}

serve().catch((error: unknown) => parentPort!.postMessage({ failed: String(error).slice(0, 500) }));
