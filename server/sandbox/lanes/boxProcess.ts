import { spawn, type ChildProcess } from 'node:child_process';
import type { Readable } from 'node:stream';
import type { CaseJob } from '../../../core/programs/engine';
import { FrameReader, mostBytes } from '../processes/frames';
import { CONTROL, FIRST_DATA, MARKER_BYTES, readControl, type ControlMessage } from '../processes/messages';
import type { Run, RunEnd } from './lane';

const START_MS = 60_000;
/** A control line is some hundred bytes; a process that writes more without an end is not ours any more. */
const MOST_CONTROL = 64 * 1024;
const NOISE_KEPT = 2000;
const [SIGKILL, SIGTERM, SIGSYS] = [9, 15, 31];
const STOPPED = 'it was stopped';
const KILLED = 'its process was killed';
/** As a signal, or as the status by which a shell or bubblewrap tells of one. */
const isKill = (how: NodeJS.Signals | number | null): boolean =>
  how === 'SIGKILL' || how === 'SIGTERM' || how === 128 + SIGKILL || how === 128 + SIGTERM;

interface Asked {
  readonly cases: readonly CaseJob[];
  readonly pieces: Buffer[];
  bytes: number;
  ended: Extract<ControlMessage, { is: 'ended' }> | null;
  readonly settle: (run: Run) => void;
}

/** A process is its own watch; where that has failed too, the server waits no longer than this beyond all limits. */
const SPARE_MS = 60_000;
const deadlineOf = (cases: readonly CaseJob[]): number =>
  cases.reduce((all, { milliseconds }) => all + 10 * milliseconds, SPARE_MS);

type Ended = NonNullable<Asked['ended']>;

/** What the end of a process means. A kill that we did not ask for is the machine's or somebody's, not the program's. */
function endOf({ stopped, status, cpuMs }: Ended, complete: boolean): RunEnd {
  if (complete) return { is: 'finished' };
  if (stopped === 'wall') return { is: 'trouble', why: 'the machine gave it too little processor time' };
  if (stopped) return { is: 'stopped', by: stopped, cpuMs };
  const signal = status & 127;
  if (signal === SIGKILL || signal === SIGTERM) return { is: 'trouble', why: 'killed from outside' };
  return { is: 'crashed', forbidden: signal === SIGSYS, cpuMs };
}

/** One process of the box, seen from the server. It runs as many programs beside each other as it has slots. */
export class BoxProcess {
  readonly ready: Promise<void>;
  private readonly child: ChildProcess;
  private readonly slots: (Asked | null)[];
  private noise = '';
  private gone: string | null = null;

  constructor([command, ...args]: string[], slots: number) {
    const channels = Array.from({ length: slots + 1 }, () => 'pipe' as const);
    this.slots = Array.from({ length: slots }, () => null);
    this.child = spawn(command!, args, {
      cwd: '/',
      env: { TZ: 'UTC' },
      stdio: ['pipe', 'ignore', 'pipe', ...channels],
    });
    this.child.stdin!.on('error', () => undefined);
    this.child.stderr!.on('data', (chunk: Buffer) => {
      if (this.noise.length < NOISE_KEPT) this.noise += chunk.toString('latin1');
    });
    for (let slot = 0; slot < slots; slot++) {
      const stream = this.child.stdio[FIRST_DATA + slot] as Readable;
      stream.on('data', (bytes: Buffer) => this.hear(slot, bytes));
      stream.on('error', () => undefined);
    }
    this.ready = this.waitUntilReady();
    this.ready.catch(() => undefined);
  }

  /** Can it be given something to run? */
  get alive(): boolean {
    return this.gone === null;
  }

  run(cases: readonly CaseJob[]): Promise<Run> {
    const slot = this.slots.indexOf(null);
    const trouble = (why: string): Run => ({ replies: [], end: { is: 'trouble', why } });
    if (this.gone !== null) return Promise.resolve(trouble(this.gone));
    if (slot < 0) return Promise.resolve(trouble('no slot is free'));
    return new Promise((resolve) => {
      const timer = setTimeout(() => {
        this.kill();
        this.lose(slot, 'it did not come to an end in time');
      }, deadlineOf(cases));
      const settle = (run: Run) => {
        clearTimeout(timer);
        resolve(run);
      };
      this.slots[slot] = { cases, pieces: [], bytes: 0, ended: null, settle };
      this.child.stdin!.write(`${JSON.stringify({ slot, cases })}\n`);
    });
  }

  kill(): void {
    this.gone ??= STOPPED;
    this.child.stdin!.destroy();
    this.child.kill('SIGKILL');
  }

  private waitUntilReady(): Promise<void> {
    return new Promise((resolve, reject) => {
      const fail = (why: string) => {
        clearTimeout(timer);
        this.gone ??= why;
        reject(new Error(why));
        this.slots.forEach((_, slot) => this.lose(slot, KILLED));
      };
      const timer = setTimeout(() => {
        this.kill();
        fail('a process of the sandbox did not start in time');
      }, START_MS);
      let rest = '';
      const control = this.child.stdio[CONTROL] as Readable;
      control.setEncoding('utf8');
      control.on('error', () => undefined);
      control.on('data', (text: string) => {
        const lines = (rest + text).split('\n');
        rest = lines.pop()!;
        if (rest.length > MOST_CONTROL) this.kill();
        for (const message of lines.map(readControl)) {
          if (message === null) this.kill();
          else if (message.is === 'ready') {
            clearTimeout(timer);
            resolve();
          } else if (message.is === 'failed') fail(message.trouble);
          else this.noteEnd(message);
        }
      });
      this.child.once('error', (error) => fail(String(error)));
      // When all channels are closed too: what it wrote before its end is read first.
      this.child.once('close', (code, signal) => {
        const outside = isKill(signal ?? code) || this.gone === STOPPED;
        this.slots.forEach((_, slot) => this.lose(slot, outside ? KILLED : null));
        fail(`a process of the sandbox ended with ${signal ?? code}: ${this.noise.slice(0, 300)}`);
      });
      this.child.once('exit', (code, signal) => (this.gone ??= `it ended with ${signal ?? code}`));
    });
  }

  private noteEnd(message: Extract<ControlMessage, { is: 'ended' | 'refused' }>): void {
    const asked = this.slots[message.slot];
    if (!asked) return;
    if (message.is === 'refused') {
      this.slots[message.slot] = null;
      asked.settle({ replies: [], end: { is: 'trouble', why: 'the process could not fork' } });
      return;
    }
    asked.ended = message;
    (this.child.stdio[FIRST_DATA + message.slot] as Readable).resume();
    this.settleAtMarker(message.slot, asked);
  }

  private hear(slot: number, bytes: Buffer): void {
    const asked = this.slots[slot];
    if (!asked) return;
    asked.bytes += bytes.length;
    asked.pieces.push(bytes);
    const most = mostBytes(asked.cases.length);
    if (asked.bytes > most + MARKER_BYTES) {
      // Whoever writes on is left waiting until the one that watches ends it; only the last bytes matter any more.
      asked.pieces.splice(0, asked.pieces.length, Buffer.concat(asked.pieces).subarray(-MARKER_BYTES));
      if (!asked.ended) (this.child.stdio[FIRST_DATA + slot] as Readable).pause();
    }
    this.settleAtMarker(slot, asked);
  }

  /** Everything that a run wrote has been read when the last bytes are those that nobody in it could know. */
  private settleAtMarker(slot: number, asked: Asked): void {
    if (!asked.ended || asked.bytes < MARKER_BYTES) return;
    const all = Buffer.concat(asked.pieces);
    asked.pieces.splice(0, asked.pieces.length, all);
    if (all.subarray(-MARKER_BYTES).toString('hex') !== asked.ended.marker) return;
    this.slots[slot] = null;
    const frames = new FrameReader(asked.cases.length);
    if (asked.bytes <= mostBytes(asked.cases.length) + MARKER_BYTES)
      frames.push(all.subarray(0, -MARKER_BYTES));
    const complete = frames.replies.length === asked.cases.length && !frames.bad;
    const end = endOf(asked.ended, complete);
    asked.settle({ replies: frames.bad ? [] : frames.replies, end });
  }

  /** The process itself has ended while it ran something; `trouble` says why where the program has no part in it. */
  private lose(slot: number, trouble: string | null): void {
    const asked = this.slots[slot];
    this.slots[slot] = null;
    if (!asked) return;
    const frames = new FrameReader(asked.cases.length);
    frames.push(Buffer.concat(asked.pieces));
    const end: RunEnd =
      trouble === null ? { is: 'crashed', forbidden: false, cpuMs: 0 } : { is: 'trouble', why: trouble };
    asked.settle({ replies: frames.bad ? [] : frames.replies, end });
  }
}
