import type { Language } from '../../../core/kinds/code/response';
import type { CaseOutcome, CaseRun, ProgramRun } from '../../../core/kinds/evidence';
import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import { PYTHON_FOLDER, PYTHON_NAMES, PYTHON_SNAPSHOT } from './pythonFiles';
import { outcomeOf, tooSlow } from '../../../core/programs/outcomeOf';

const make: Record<Language, () => Worker> = {
  python: () => new Worker(new URL('./pythonWorker.ts', import.meta.url), { type: 'module' }),
  javascript: () => new Worker(new URL('./javascriptWorker.ts', import.meta.url), { type: 'module' }),
};

/** What an engine starts from beside the scripts of the desk, which are kept on the device as they are. */
const files: Record<Language, readonly string[]> = {
  python: [...PYTHON_NAMES, PYTHON_SNAPSHOT].map((name) => PYTHON_FOLDER + name),
  javascript: [],
};

/** The limits of a case, and what is run. */
export type TrialRun = Pick<ProgramRun, 'program' | 'functionName'> & {
  readonly limits: Pick<ProgramRun['limits'], 'milliseconds' | 'megabytes'>;
};

/** Room beyond a case's own limit for a busy device: here the clock decides, on the server processor time does. */
const ROOM_MS = 1500;
const OUTPUT_BYTES = 64 * 1024;

/** The engine of one language in a worker; a case that takes too long ends the worker, and the next starts again. */
export class Engine {
  private readonly language: Language;
  private worker: Worker | null = null;
  private ready: Promise<void> | null = null;
  private last: Promise<unknown> = Promise.resolve();

  constructor(language: Language) {
    this.language = language;
  }

  /**
   * Lets the service worker keep what the engine starts from, for runs without a network. It is not started: that takes
   * a processor, while somebody reads or writes something else.
   */
  bring(): void {
    if (!navigator.serviceWorker?.controller) return;
    // What does not come now is fetched where it is wanted.
    for (const file of files[this.language])
      void fetch(file, { priority: 'low' }).then(
        (answer) => answer.body?.cancel(),
        () => undefined,
      );
  }

  warm(): Promise<void> {
    if (this.ready) return this.ready;
    const worker = make[this.language]();
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

  /** Runs one case after the other, however many are asked for at once: the worker answers one at a time. */
  run(asked: TrialRun, one: CaseRun): Promise<CaseOutcome> {
    const result = this.last.then(() => this.runNow(asked, one));
    this.last = result.catch(() => undefined);
    return result;
  }

  private async runNow({ program, functionName, limits }: TrialRun, one: CaseRun): Promise<CaseOutcome> {
    await this.warm();
    const worker = this.worker!;
    const limitMs = limits.milliseconds;
    const [seed] = crypto.getRandomValues(new Uint32Array(1));
    return new Promise((resolve) => {
      const timer = setTimeout(() => {
        this.end();
        resolve(tooSlow(one.key, limitMs));
      }, limitMs + ROOM_MS);
      worker.onmessage = ({ data }: MessageEvent<EngineReply>) => {
        clearTimeout(timer);
        const outcome = outcomeOf(one.key, data, limitMs);
        // An engine that has grown does not shrink again.
        if (outcome.result === 'too-much-memory') this.end();
        resolve(outcome);
      };
      worker.postMessage({
        program,
        functionName,
        arguments: JSON.stringify(one.arguments),
        ...limits,
        outputBytes: OUTPUT_BYTES,
        seed: seed!,
      } satisfies CaseJob);
    });
  }
}

const engines: Record<Language, Engine> = {
  python: new Engine('python'),
  javascript: new Engine('javascript'),
};
export const engineOf = (language: Language): Engine => engines[language];
