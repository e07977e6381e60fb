/*
 * The process that forks (fork lane, Linux). It boots one engine, runs a program of ours, and then none but by a fork
 * of itself, which writes its replies and ends. It watches the forks: processor time and memory as the kernel counts
 * them decide. It ends when the server does, and its forks with it.
 */
import { randomBytes } from 'node:crypto';
import type { EngineName, RunCase } from '../engines/engine';
import { becomeNobody } from './becomeNobody';
import { encodeFrame } from './frames';
import * as linux from './linux';
import { DEEP_STACK, loadEngine, ORDINARY_STACK } from './loadEngine';
import {
  CASES_A_FORK,
  CONTROL,
  FIRST_DATA,
  MARKER_BYTES,
  type ControlMessage,
  type RunMessage,
  type Stopped,
} from './messages';
import { giveWay } from './niceness';
import { writeAll } from './writeAll';

const [folder, engineName, user] = process.argv.slice(2) as [string, EngineName, string];
const deep = process.execArgv.some((flag) => flag.startsWith('--stack-size'));

const WATCH_MS = 20;
/** Memory beyond a case's own that a fork may touch: its copies of the engine's pages. */
const ENGINE_BYTES = 96 * 2 ** 20;
/** What the kernel refuses at once; what is below is noticed by looking. Above the 256 MiB of an engine's memory. */
const REFUSED_BYTES = 512 * 2 ** 20;
/** Beyond its limit a case may still say by itself that it is over. */
const SAYING_MS = 20;
const ASLEEP_MS = 1000;
const MOST_WAITS = 400;
const COLLECTIONS = 4;

interface Running {
  readonly slot: number;
  readonly cases: RunMessage['cases'];
  readonly since: number;
  /** Memory in use when it began. */
  readonly from: number;
  stopped: Stopped | null;
  cpuMs: number;
  sleepsSince: number | null;
}

const tell = (message: ControlMessage) => writeAll(CONTROL, Buffer.from(`${JSON.stringify(message)}\n`));
const running = new Map<number, Running>();
const waiting: RunMessage[] = [];
let states: RunCase[] = [];
let cutDescriptors: (kept: number) => void;

const sum = (cases: RunMessage['cases']) => cases.reduce((total, one) => total + one.milliseconds, 0);

/** In the fork, and never back: the program runs, the frames are written outside of its realm, the process ends. */
function runAndEnd({ slot, cases }: RunMessage, parent: number): never {
  try {
    linux.dieWith(parent);
    linux.limitSelf(Math.ceil((sum(cases) * 1.5) / 1000) + 2, REFUSED_BYTES);
    const own = FIRST_DATA + slot;
    cutDescriptors(own);
    linux.allowLittle();
    for (const [i, one] of cases.entries()) {
      const before = process.cpuUsage();
      const spentMs = () => {
        const { user: u, system } = process.cpuUsage(before);
        return (u + system) / 1000;
      };
      // One call of the engine may take as long as it likes otherwise: nothing in it looks at a clock.
      linux.endAfter(one.milliseconds + SAYING_MS);
      const reply = states[i]!(one, spentMs);
      linux.endAfter(0);
      writeAll(own, encodeFrame({ ...reply, cpuMs: spentMs() }));
    }
  } catch {
    return linux.exitNow(1);
  }
  return linux.exitNow(0);
}

let waits = 0;
function forkNext(): void {
  const next = waiting[0];
  if (!next) return;
  if (!linux.otherThreadsRest()) {
    if (++waits < MOST_WAITS) return void setTimeout(forkNext, 1);
    tell({ is: 'refused', slot: next.slot });
  } else {
    const parent = process.pid;
    const pid = linux.fork();
    if (pid === 0) runAndEnd(next, parent);
    if (pid < 0) tell({ is: 'refused', slot: next.slot });
    else {
      const from = linux.lookAt(pid)?.bytes ?? 0;
      const { slot, cases } = next;
      const since = performance.now();
      running.set(pid, { slot, cases, since, from, stopped: null, cpuMs: 0, sleepsSince: null });
    }
  }
  waits = 0;
  waiting.shift();
  if (waiting.length > 0) setImmediate(forkNext);
}

function collect(): void {
  for (let ended = linux.nextEnded(); ended; ended = linux.nextEnded()) {
    const { pid, status, cpuMs } = ended;
    const one = running.get(pid);
    if (!one) continue;
    running.delete(pid);
    const marker = randomBytes(MARKER_BYTES);
    // The channel may be full of what the fork wrote: the server reads on once it knows that this is the end.
    const { slot } = one;
    const stopped = (status & 127) === linux.SIGPROF ? 'time' : one.stopped;
    tell({ is: 'ended', slot, status, cpuMs, stopped, marker: marker.toString('hex') });
    writeAll(FIRST_DATA + slot, marker);
  }
}

function reasonToStop(one: Running, seen: { cpuMs: number; bytes: number; asleep: boolean }): Stopped | null {
  const now = performance.now();
  const limitMs = sum(one.cases) + SAYING_MS * one.cases.length;
  const most = Math.max(...one.cases.map((c) => c.megabytes)) * 2 ** 20;
  const idle = seen.asleep && seen.cpuMs === one.cpuMs;
  one.sleepsSince = idle ? (one.sleepsSince ?? now) : null;
  one.cpuMs = seen.cpuMs;
  if (seen.cpuMs > limitMs) return 'time';
  if (seen.bytes - one.from > most + ENGINE_BYTES) return 'memory';
  if (one.sleepsSince !== null && now - one.sleepsSince > ASLEEP_MS) return 'asleep';
  return now - one.since > limitMs * 10 + 10_000 ? 'wall' : null;
}

function watch(): void {
  for (const [pid, one] of running) {
    const seen = linux.lookAt(pid);
    const reason = seen && reasonToStop(one, seen);
    if (!reason) continue;
    one.stopped ??= reason;
    process.kill(pid, 'SIGKILL');
  }
}

function listen(): void {
  let rest = '';
  process.stdin.setEncoding('utf8');
  process.stdin.on('data', (text: string) => {
    const lines = (rest + text).split('\n');
    rest = lines.pop()!;
    waiting.push(...lines.map((line) => JSON.parse(line) as RunMessage));
    forkNext();
  });
  // The server has gone: so does everything here.
  process.stdin.on('end', () => linux.exitNow(0));
  process.stdin.on('error', () => linux.exitNow(0));
  process.on('SIGCHLD', collect);
  // A signal may come for several, or be lost beside others.
  setInterval(() => {
    watch();
    collect();
  }, WATCH_MS);
}

async function prepareStates(): Promise<void> {
  const engine = loadEngine(engineName, folder, deep ? DEEP_STACK : ORDINARY_STACK);
  states = [await engine.fresh()];
  if (becomeNobody(Number(user))) linux.makeReadable();
  const { reply } = states[0]!(engine.warmUp, () => 0);
  if (!reply.startsWith('{"value"')) throw new Error(`the warm-up gave ${reply.slice(0, 300)}`);
  const count = CASES_A_FORK[engineName];
  if (count > 1) states = await Promise.all(Array.from({ length: count }, () => engine.fresh()));
}

async function start(): Promise<void> {
  giveWay();
  linux.keepMemoryInForks();
  await prepareStates();
  // What was only needed for the start is given back: less memory makes cheaper forks.
  for (let n = 0; n < COLLECTIONS; n++) {
    globalThis.gc?.();
    await new Promise((go) => setTimeout(go, 20));
  }
  linux.takeMemoryIntoForks();
  listen();
  cutDescriptors = linux.descriptorsToCut();
  tell({ is: 'ready' });
}

start().catch((error: unknown) => {
  tell({ is: 'failed', trouble: String(error).slice(0, 500) });
  process.exit(1);
});
