import { ApiError, type Said } from '../http/errors';

export interface Question {
  readonly task: string;
  readonly input: unknown;
}

export type Answer =
  | { readonly is: 'done'; readonly value: unknown }
  | {
      readonly is: 'refused';
      readonly status: number;
      readonly code: string;
      readonly said: Said;
    }
  /** Told by `Helper` itself, never by the script. */
  | { readonly is: 'too long' }
  | { readonly is: 'trouble'; readonly text: string };

export type Tasks = Readonly<Record<string, (input: never) => unknown>>;

async function answerTo(tasks: Tasks, { task, input }: Question): Promise<Answer> {
  const work = tasks[task];
  if (!work) return { is: 'trouble', text: `there is no task ${task}` };
  try {
    return { is: 'done', value: await work(input as never) };
  } catch (error) {
    if (error instanceof ApiError) {
      const { status, code, said } = error;
      return { is: 'refused', status, code, said };
    }
    return { is: 'trouble', text: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
}

/** To the server, unless it has gone meanwhile: then this process ends too. */
function tell(what: unknown): void {
  if (process.connected) process.send!(what, undefined, undefined, (error) => error && process.exit(0));
  else process.exit(0);
}

// What breaks because the server has gone, and its folder with it, is nobody's concern.
process.on('uncaughtException', (error) => {
  if (process.connected) console.error(error);
  process.exit(1);
});

/** What a helper was told at its start. */
export const helperData = <T>(): T => JSON.parse(process.argv[2] ?? '{}') as T;

/** The other side of `Helper`: answers each question by one of these tasks, until the server goes. */
export function serveTasks(tasks: Tasks): void {
  process.on('message', (question: Question) => {
    void answerTo(tasks, question).then(tell);
  });
  process.on('disconnect', () => process.exit(0));
  // Ctrl C in a terminal reaches every process of the group; the server ends its helpers itself.
  process.on('SIGINT', () => undefined);
  tell('ready');
}
