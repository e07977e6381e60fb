import { fork, type ChildProcess } from 'node:child_process';
import { setPriority } from 'node:os';
import { ApiError } from '../http/errors';
import { FairQueue } from './fairQueue';
import { processorTimeOf } from './processorTime';
import { runnable } from './runnable';
import type { Answer, Question } from './serveTasks';

/** Below the server itself: whoever writes comes before whoever reads, prints or looks at pictures. */
const NICENESS = 10;
const START_MS = 60_000;
const MOST_WAITING = 500;
const LOOK_MS = 200;

interface Waiting {
  readonly task: string;
  readonly input: unknown;
  readonly settle: (answer: Answer) => void;
}

export interface HelperOptions {
  /** A script that calls `serveTasks`. */
  readonly script: URL;
  /** What the script is told at its start. */
  readonly data?: object;
  /** How long one task may take. */
  readonly limitMs: number;
  /** How much processor time one task may take, where the system tells it: what a busy machine does not change. */
  readonly limitProcessorMs?: number;
  /** How many tasks may wait; more are refused, to be asked again. */
  readonly mostWaiting?: number;
}

const trouble = (text: string): Answer => ({ is: 'trouble', text });

/** A task took more than its limit: what it was given is at fault, and would be again. */
export class TookTooLong extends Error {}

/**
 * A process of its own for one sort of heavy work, kept warm and of low priority: neither its processor time, nor its
 * memory, nor its end touches the server. It does one task after the other; one that takes too long, or ends the
 * process, fails alone.
 */
export class Helper {
  private readonly options: HelperOptions;
  private child: Promise<ChildProcess> | null = null;
  private readonly waiting = new FairQueue<Waiting>();
  private busy = false;
  private closed = false;
  /** Of the task that is being done. */
  private hear: (answer: Answer) => void = () => undefined;

  constructor(options: HelperOptions) {
    this.options = options;
  }

  /** How many tasks wait. */
  get queued(): number {
    return this.waiting.length;
  }

  /** Starts the process before it is needed. */
  async warmUp(): Promise<void> {
    await (this.child ??= this.start());
  }

  /**
   * Does a task; what the script refused with an error of the API is thrown as that error here. Tasks of several owners
   * are done in turns.
   */
  async ask<T>(task: string, input: unknown, owner = ''): Promise<T> {
    if (this.waiting.length >= (this.options.mostWaiting ?? MOST_WAITING))
      throw new ApiError(503, 'busy', { key: 'busyReading' });
    const answer = await new Promise<Answer>((settle) => {
      this.waiting.add(owner, { task, input, settle });
      void this.work();
    });
    if (answer.is === 'done') return answer.value as T;
    if (answer.is === 'refused') throw new ApiError(answer.status, answer.code, answer.said);
    if (answer.is === 'too long') throw new TookTooLong(`helper, ${task}: took more than its limit`);
    throw new Error(`helper, ${task}: ${answer.text}`);
  }

  close(): void {
    this.closed = true;
    for (const { settle } of this.waiting.clear()) settle(trouble('the server is stopping'));
    this.discard();
  }

  private discard(): void {
    void this.child?.then((child) => child.kill('SIGKILL')).catch(() => undefined);
    this.child = null;
  }

  private async work(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    for (let next = this.waiting.next(); next; next = this.waiting.next()) {
      const { task, input, settle } = next;
      settle(await this.doOne({ task, input }).catch((error: unknown) => trouble(String(error))));
    }
    this.busy = false;
  }

  private async doOne(question: Question): Promise<Answer> {
    if (this.closed) return trouble('the server is stopping');
    const child = await (this.child ??= this.start());
    const answer = await new Promise<Answer>((resolve) => {
      const stopWatching = this.watch(child, () => {
        this.discard();
        resolve({ is: 'too long' });
      });
      this.hear = (heard) => {
        stopWatching();
        resolve(heard);
      };
      child.send(question, (error) => error && this.hear(trouble(String(error))));
    });
    this.hear = () => undefined;
    return answer;
  }

  /** Watches one task; `over` is called once when it takes more than it may. */
  private watch({ pid }: ChildProcess, over: () => void): () => void {
    const { limitMs, limitProcessorMs } = this.options;
    const usedBefore = limitProcessorMs === undefined ? null : processorTimeOf(pid!);
    const endAt = performance.now() + limitMs;
    const isOver = () => {
      if (performance.now() >= endAt) return true;
      const used = usedBefore === null ? null : processorTimeOf(pid!);
      return used !== null && used - usedBefore! >= limitProcessorMs!;
    };
    const timer = setInterval(
      () => {
        if (!isOver()) return;
        clearInterval(timer);
        over();
      },
      usedBefore === null ? limitMs : LOOK_MS,
    );
    return () => clearInterval(timer);
  }

  private start(): Promise<ChildProcess> {
    const { file, execArgv } = runnable(this.options.script);
    const child = fork(file, [JSON.stringify(this.options.data ?? {})], {
      execArgv: [...execArgv],
      serialization: 'advanced',
      // Nothing of the server's settings or secrets.
      env: {
        PATH: process.env.PATH,
        NODE_ENV: process.env.NODE_ENV,
        CLEAR_SITTING_BUNDLED: process.env.CLEAR_SITTING_BUNDLED,
      },
    });
    const started = new Promise<ChildProcess>((resolve, reject) => {
      const timer = setTimeout(() => child.kill('SIGKILL'), START_MS);
      child.once('message', () => {
        clearTimeout(timer);
        child.on('message', (answer) => this.hear(answer as Answer));
        if (child.pid !== undefined) setPriority(child.pid, NICENESS);
        resolve(child);
      });
      child.once('exit', (code, signal) => {
        clearTimeout(timer);
        if (this.child === started) this.child = null;
        reject(new Error(`a helper ended with ${code ?? signal}`));
        this.hear(trouble(`the helper ended with ${code ?? signal}`));
      });
    });
    started.catch(() => undefined);
    child.on('error', (error) => this.hear(trouble(String(error))));
    // The server may end while a helper waits for work.
    child.unref();
    child.channel?.unref();
    return started;
  }
}
