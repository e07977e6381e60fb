/*
 * A process of the portable lane: it runs the cases of one submission, each in a state of its own, and is then ended.
 * Its main thread only watches: the engine works in a thread of its own, so that a program can hold up neither the
 * watch nor the end of this process when the server goes. Nothing here is particular to one operating system.
 */
import { randomBytes } from 'node:crypto';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { becomeNobody } from './becomeNobody';
import {
  CONTROL,
  FIRST_DATA,
  MARKER_BYTES,
  type ControlMessage,
  type RunMessage,
  type Stopped,
} from './messages';
import { watchBoard } from './watchBoard';
import { giveWay } from './niceness';
import { writeAll } from './writeAll';

const [folder, engine, user] = process.argv.slice(2) as [string, string, string];

const WATCH_MS = 20;
const STACK_MEGABYTES = 64;
/** Memory beyond a case's own: a second state of the engine that is not collected yet, and its copies. */
const ENGINE_BYTES = 256 * 2 ** 20;

/** Making a state takes a second, and three on a busy machine: what takes longer is what a program has left behind. */
const BETWEEN_MS = 10_000;
const BETWEEN_WALL_MS = 60_000;

const board = watchBoard();
const tell = (message: ControlMessage) => writeAll(CONTROL, Buffer.from(`${JSON.stringify(message)}\n`));

let run: RunMessage | null = null;
let memoryBefore = 0;
let watched = 0;

function end(stopped: Stopped | null): void {
  const marker = randomBytes(MARKER_BYTES);
  const slot = run?.slot ?? 0;
  const cpuMs = board.spentMs();
  tell({ is: 'ended', slot, status: 0, cpuMs, stopped, marker: marker.toString('hex') });
  writeAll(FIRST_DATA, marker);
  run = null;
  if (stopped) process.kill(process.pid, 'SIGKILL');
}

function reasonToStop(): Stopped | null {
  if (run && board.between())
    return board.spentMs() > BETWEEN_MS || board.wallMs() > BETWEEN_WALL_MS ? 'between' : null;
  const index = board.running();
  if (!run || index === null) return null;
  if (index !== watched) [watched, memoryBefore] = [index, process.memoryUsage.rss()];
  const one = run.cases[index]!;
  const spent = board.spentMs();
  if (spent > one.milliseconds) return 'time';
  if (process.memoryUsage.rss() - memoryBefore > one.megabytes * 2 ** 20 + ENGINE_BYTES) return 'memory';
  const wall = board.wallMs();
  if (wall < one.milliseconds * 10 + 10_000) return null;
  return spent < wall / 50 ? 'asleep' : 'wall';
}

giveWay();
const worker = new Worker(path.join(folder, 'portableWorker.cjs'), {
  workerData: { folder, engine, board: board.memory },
  resourceLimits: { stackSizeMb: STACK_MEGABYTES },
  env: { TZ: 'UTC' },
});
worker.on('message', (said: 'ready' | 'done' | Uint8Array | { failed: string }) => {
  if (said === 'ready') {
    becomeNobody(Number(user));
    tell({ is: 'ready' });
  } else if (said === 'done') end(null);
  else if (said instanceof Uint8Array) writeAll(FIRST_DATA, said);
  else {
    tell({ is: 'failed', trouble: said.failed });
    process.exit(1);
  }
});
// Out of memory, or whatever else ends the thread: the server sees a process that ended without a verdict.
worker.on('error', () => process.exit(2));
worker.on('exit', () => process.exit(2));

let rest = '';
process.stdin.setEncoding('utf8');
process.stdin.on('data', (text: string) => {
  const lines = (rest + text).split('\n');
  rest = lines.pop()!;
  for (const line of lines) {
    run = JSON.parse(line) as RunMessage;
    watched = -1;
    worker.postMessage(run.cases);
  }
});
const leave = () => process.kill(process.pid, 'SIGKILL');
process.stdin.on('end', leave);
process.stdin.on('error', leave);
setInterval(() => {
  const reason = reasonToStop();
  if (reason) end(reason);
}, WATCH_MS);
