import type { EngineName } from '../engines/engine';
import type { CaseJob } from '../../../core/programs/engine';
import { CASES_A_FORK } from '../processes/messages';
import { BoxProcess } from './boxProcess';
import type { Lane, Run } from './lane';
import { commandLine, DEEP_FLAG, type Walls } from './walls';

const FLAGS = ['--single-threaded', '--v8-pool-size=1', '--expose-gc', '--no-warnings'];

export interface LaneOptions {
  readonly folder: string;
  readonly engine: EngineName;
  readonly walls: Walls;
  /** Programs that may run beside each other. */
  readonly slots: number;
}

/** Linux on x86-64: one process boots the engine once and forks for each case or program. */
export const canFork = process.platform === 'linux' && process.arch === 'x64';

export class ForkLane implements Lane {
  readonly name = 'fork';
  readonly atOnce: number;
  private readonly options: LaneOptions;
  private zygote: BoxProcess | null = null;
  private closed = false;

  constructor(options: LaneOptions) {
    this.options = options;
    this.atOnce = CASES_A_FORK[options.engine];
  }

  async start(): Promise<void> {
    await this.process().ready;
  }

  async run(cases: readonly CaseJob[]): Promise<Run> {
    try {
      const zygote = this.process();
      await zygote.ready;
      const run = await zygote.run(cases);
      // The one that forks has ended, not the fork: no program can have done that.
      if (!zygote.alive && run.end.is === 'crashed')
        return { replies: [], end: { is: 'trouble', why: 'the process that forks has ended' } };
      // Of the whole fork: what the cases before took is not the last one's.
      if (run.end.is !== 'stopped') return run;
      const before = run.replies.reduce((sum, reply) => sum + reply.cpuMs, 0);
      return { ...run, end: { ...run.end, cpuMs: Math.max(0, run.end.cpuMs - before) } };
    } catch (error) {
      return { replies: [], end: { is: 'trouble', why: String(error) } };
    }
  }

  close(): void {
    this.closed = true;
    this.zygote?.kill();
  }

  private process(): BoxProcess {
    if (this.closed) throw new Error('the sandbox is closed');
    if (!this.zygote?.alive) {
      const { walls, slots } = this.options;
      const flags = [...FLAGS, ...(walls.deepStack ? [DEEP_FLAG] : [])];
      this.zygote = new BoxProcess(commandLine({ ...this.options, script: 'zygote.cjs', flags }), slots);
    }
    return this.zygote;
  }
}
