import type { CaseOutcome, CaseRun, ProgramRun } from '../../../core/kinds/evidence';
import type { Language } from '../../../core/kinds/code/response';
import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import { outcomeOf, tooSlow } from '../../../core/programs/outcomeOf';
import { PYTHON_FOLDER, PYTHON_NAMES, PYTHON_SNAPSHOT } from './pythonFiles';

type EngineName = 'python' | 'script' | 'sql';

const ENGINE_OF: Record<Language, EngineName> = {
  python: 'python',
  javascript: 'script',
  typescript: 'script',
  sql: 'sql',
};

const make: Record<EngineName, () => Worker> = {
  python: () => new Worker(new URL('./pythonWorker.ts', import.meta.url), { type: 'module' }),
  script: () => new Worker(new URL('./javascriptWorker.ts', import.meta.url), { type: 'module' }),
  sql: () => new Worker(new URL('./sqlWorker.ts', import.meta.url), { type: 'module' }),
};

/** What an engine starts from beside the scripts of the desk, which are kept on the device as they are. */
const files: Record<EngineName, readonly string[]> = {
  python: [...PYTHON_NAMES, PYTHON_SNAPSHOT].map((name) => PYTHON_FOLDER + name),
  script: [],
  sql: [],
};

/** Room beyond a case's own limit for a busy device: here the clock decides, on the server processor time does. */
const ROOM_MS = 1500;
/** An engine that holds so much more than at its start is not used again. */
const MOST_GROWN = 32 * 2 ** 20;

/** A run was stopped by whoever asked for it. */
export class Stopped extends Error {}

type Asked = Omit<ProgramRun, 'cases'>;

/** An engine in a worker; what holds it up, or makes it grow, ends the worker, and the next run has a fresh one. */
export class Engine {
  private readonly name: EngineName;
  private worker: Worker | null = null;
  private ready: Promise<void> | null = null;
  private last: Promise<unknown> = Promise.resolve();
  /** Of the case that runs. */
  private giveUp: (() => void) | null = null;
  /** Counts the stops: what was asked for before the last one does not run any more. */
  private stops = 0;

  constructor(name: EngineName) {
    this.name = name;
  }

  /**
   * Lets the service worker keep what the engine starts from, for runs without a network. It is not started: that takes
   * a processor, while somebody reads or writes something else.
   */
  bring(): void {
    if (!navigator.serviceWorker?.controller) return;
    // What does not come now is fetched where it is wanted.
    for (const file of files[this.name])
      void fetch(file, { priority: 'low' }).then(
        (answer) => answer.body?.cancel(),
        () => undefined,
      );
  }

  warm(): Promise<void> {
    if (this.ready) return this.ready;
    const worker = make[this.name]();
    this.worker = worker;
    this.ready = new Promise((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<{ ready?: true; failed?: string }>) =>
        data.ready ? resolve() : reject(new Error(data.failed ?? 'the engine did not start'));
      worker.onerror = () => reject(new Error('the engine did not start'));
    });
    this.ready.catch(() => this.end());
    return this.ready;
  }

  end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.ready = null;
  }

  /** Ends what runs now, and everything that waits behind it. */
  stop(): void {
    this.stops++;
    this.giveUp?.();
  }

  /** Runs one case after the other, however many are asked for at once: the worker answers one at a time. */
  run(asked: Asked, one: CaseRun): Promise<CaseOutcome> {
    const { stops } = this;
    const result = this.last.then(() => {
      if (stops !== this.stops) throw new Stopped();
      return this.runNow(asked, one);
    });
    this.last = result.catch(() => undefined);
    return result;
  }

  private async runNow(
    { language, files: own, functionName, limits }: Asked,
    one: CaseRun,
  ): Promise<CaseOutcome> {
    await this.warm();
    const worker = this.worker!;
    const limitMs = limits.milliseconds;
    const [seed] = crypto.getRandomValues(new Uint32Array(1));
    return new Promise((resolve, reject) => {
      const settle = (work: () => void) => {
        clearTimeout(timer);
        this.giveUp = null;
        work();
      };
      const timer = setTimeout(() => {
        this.end();
        settle(() => resolve(tooSlow(one.key, limitMs)));
      }, limitMs + ROOM_MS);
      this.giveUp = () => {
        this.end();
        settle(() => reject(new Stopped()));
      };
      worker.onmessage = ({ data }: MessageEvent<EngineReply>) => {
        const outcome = outcomeOf(one.key, data, limitMs);
        if (outcome.result === 'too-much-memory' || data.memoryBytes > MOST_GROWN) this.end();
        settle(() => resolve(outcome));
      };
      worker.postMessage({
        language,
        files: own,
        functionName,
        input: one.input,
        inputFiles: one.files,
        ...limits,
        seed: seed!,
      } satisfies CaseJob);
    });
  }
}

const engines: Record<EngineName, Engine> = {
  python: new Engine('python'),
  script: new Engine('script'),
  sql: new Engine('sql'),
};
/** Stops a program and its checker, which may be in another language. */
export const stopAll = (): void => Object.values(engines).forEach((engine) => engine.stop());
export const engineOf = (language: Language): Engine => engines[ENGINE_OF[language]];
