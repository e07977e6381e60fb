import type { CaseOutcome, CaseRun, ProgramRun } from '../../core/kinds/evidence';
import { findWrapping, startChild, type Language, type SandboxChild, type Wrapping } from './child';
import type { CaseMessage } from './child/protocol';
import { parseReply } from './parseReply';

/** Wall-clock room beyond a case's own limit, for a busy machine; past it the child is killed. */
const ROOM_MS = 1500;

export interface SandboxHealth {
  readonly warm: Record<Language, number>;
  readonly wrapping: Wrapping;
  readonly ran: number;
  readonly killed: number;
}

/** Asks one child about one case; resolves to null when the child died or had to be killed. */
function ask(child: SandboxChild, message: CaseMessage, key: string): Promise<CaseOutcome | null> {
  const from = performance.now();
  return new Promise((resolve) => {
    const finish = (outcome: CaseOutcome | null) => {
      clearTimeout(timer);
      child.process.off('message', hear);
      child.process.off('exit', die);
      resolve(outcome);
    };
    const elapsed = () => performance.now() - from;
    const timer = setTimeout(() => {
      child.kill();
      finish({ key, result: 'too-slow', milliseconds: elapsed(), printed: '' });
    }, message.milliseconds + ROOM_MS);
    const hear = (reply: unknown) => {
      const outcome = parseReply(reply, message.index, key, elapsed());
      const slow = outcome.result === 'returned' && outcome.milliseconds > message.milliseconds;
      finish(slow ? { key, result: 'too-slow', milliseconds: outcome.milliseconds, printed: '' } : outcome);
    };
    const die = () => finish(null);
    child.process.on('message', hear);
    child.process.on('exit', die);
    child.process.send(message, (trouble) => trouble && finish(null));
  });
}

/**
 * The code box. One pre-warmed child per submission, never used again; expected outputs never enter it; each case has
 * its own limits; a child that does not answer is killed and the cases left go to a fresh one.
 */
export class Sandbox {
  private readonly folder: string;
  private readonly wrapping: Wrapping;
  private readonly warm: Record<Language, SandboxChild[]> = { python: [], javascript: [] };
  private readonly queue: (() => void)[] = [];
  private running = 0;
  private ran = 0;
  private killed = 0;
  private closed = false;

  constructor(folder: string, wrapping: Wrapping = findWrapping()) {
    this.folder = folder;
    this.wrapping = wrapping;
  }

  /** Starts a warm child of each language; resolves when both can run. */
  async warmUp(): Promise<void> {
    await Promise.all((['python', 'javascript'] as const).map((language) => this.keepWarm(language).ready));
  }

  health(): SandboxHealth {
    const warm = { python: this.warm.python.length, javascript: this.warm.javascript.length };
    return { warm, wrapping: this.wrapping, ran: this.ran, killed: this.killed };
  }

  async run(program: ProgramRun): Promise<CaseOutcome[]> {
    await this.turn();
    try {
      return await this.runCases(program);
    } finally {
      this.ran++;
      this.running--;
      this.queue.shift()?.();
    }
  }

  close(): void {
    this.closed = true;
    for (const children of Object.values(this.warm)) for (const child of children.splice(0)) child.kill();
  }

  /** One submission at a time: the measured times stay honest on two cores. */
  private async turn(): Promise<void> {
    if (this.running > 0) await new Promise<void>((go) => this.queue.push(go));
    this.running++;
  }

  private keepWarm(language: Language): SandboxChild {
    const child = startChild(this.folder, language, this.wrapping);
    this.warm[language].push(child);
    return child;
  }

  private async take(language: Language): Promise<SandboxChild> {
    const child = this.warm[language].shift() ?? startChild(this.folder, language, this.wrapping);
    await child.ready;
    if (!this.closed) this.keepWarm(language);
    return child;
  }

  private async runCases(program: ProgramRun): Promise<CaseOutcome[]> {
    const outcomes: CaseOutcome[] = [];
    let child = await this.take(program.language);
    for (const [index, one] of program.cases.entries()) {
      const outcome = await ask(child, this.messageFor(program, one, index), one.key);
      outcomes.push(
        outcome ?? {
          key: one.key,
          result: 'error',
          message: 'the program ended its own run',
          milliseconds: 0,
          printed: '',
        },
      );
      const alive = outcome !== null && outcome.result !== 'too-slow' && outcome.result !== 'too-much-memory';
      if (!alive) {
        this.killed++;
        child.kill();
        if (index < program.cases.length - 1) child = await this.take(program.language);
      }
    }
    child.kill();
    return outcomes;
  }

  private messageFor(program: ProgramRun, one: CaseRun, index: number): CaseMessage {
    const { functionName, limits } = program;
    return {
      program: program.program,
      functionName,
      index,
      arguments: JSON.stringify(one.arguments),
      ...limits,
    };
  }
}
