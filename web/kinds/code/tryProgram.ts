import type { Language } from '../../../core/kinds/code/response';
import type { HarnessReply } from '../../../core/kinds/code/harness';
import type { CaseOutcome, CaseRun, Json } from '../../../core/kinds/evidence';

export interface WorkerCase {
  readonly program: string;
  readonly functionName: string;
  readonly argumentsJson: string;
  readonly outputBytes: number;
}

interface Reply {
  readonly reply: string;
  readonly printed: string;
  readonly milliseconds: number;
}

const make: Record<Language, () => Worker> = {
  python: () => new Worker(new URL('./pythonWorker.ts', import.meta.url), { type: 'module' }),
  javascript: () => new Worker(new URL('./javascriptWorker.ts', import.meta.url), { type: 'module' }),
};

/** Room beyond a case's own limit for a busy device, as in the server's sandbox. */
const ROOM_MS = 1500;
const OUTPUT_BYTES = 64 * 1024;

/** The engine of one language in a worker; a case that takes too long ends the worker, and the next starts anew. */
export class Engine {
  private readonly language: Language;
  private worker: Worker | null = null;
  private ready: Promise<void> | null = null;
  private last: Promise<unknown> = Promise.resolve();

  constructor(language: Language) {
    this.language = language;
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
  run(program: string, functionName: string, one: CaseRun, limitMs: number): Promise<CaseOutcome> {
    const result = this.last.then(() => this.runNow(program, functionName, one, limitMs));
    this.last = result.catch(() => undefined);
    return result;
  }

  private async runNow(
    program: string,
    functionName: string,
    one: CaseRun,
    limitMs: number,
  ): Promise<CaseOutcome> {
    await this.warm();
    const worker = this.worker!;
    const argumentsJson = JSON.stringify(one.arguments);
    return new Promise((resolve) => {
      const timer = setTimeout(() => {
        this.end();
        resolve({ key: one.key, result: 'too-slow', milliseconds: limitMs, printed: '' });
      }, limitMs + ROOM_MS);
      worker.onmessage = ({ data }: MessageEvent<Reply>) => {
        clearTimeout(timer);
        resolve(outcomeOf(one.key, data));
      };
      worker.postMessage({
        program,
        functionName,
        argumentsJson,
        outputBytes: OUTPUT_BYTES,
      } satisfies WorkerCase);
    });
  }
}

function outcomeOf(key: string, { reply, printed, milliseconds }: Reply): CaseOutcome {
  const said = JSON.parse(reply) as HarnessReply;
  const common = { key, printed, milliseconds };
  if ('memory' in said) return { ...common, result: 'too-much-memory' };
  if ('error' in said)
    return said.error.includes('output limit')
      ? { ...common, result: 'too-much-output' }
      : { ...common, result: 'error', message: said.error };
  return { ...common, result: 'returned', value: said.value as Json };
}

const engines: Record<Language, Engine> = {
  python: new Engine('python'),
  javascript: new Engine('javascript'),
};
export const engineOf = (language: Language): Engine => engines[language];
