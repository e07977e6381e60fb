import type { CaseJob } from '../../../core/programs/engine';
import { BoxProcess } from './boxProcess';
import type { LaneOptions } from './forkLane';
import type { Lane, Run } from './lane';
import { commandLine } from './walls';

/**
 * A process lives for the cases of one program, and the start of a state is most of what it does. Optimising what runs
 * only then took a third of its processor time: the engine's code is optimised once it has run some ten times longer
 * than usual, and the little JavaScript around it never.
 */
const OPTIMISE_LATER = ['--wasm-tiering-budget=30000000', '--no-opt'];

const FLAGS = [
  '--experimental-permission',
  '--allow-fs-read=BOX/*',
  '--allow-worker',
  '--disallow-code-generation-from-strings',
  '--expose-gc',
  ...OPTIMISE_LATER,
  '--no-warnings',
];

/** Then somebody else's program has its turn. */
const CASES_A_RUN = 16;

/**
 * Wherever Node runs: a process for each program, with a fresh state of the engine for each of its cases. One process
 * waits ready; the next is started when a program has ended, not beside it.
 */
export class PortableLane implements Lane {
  readonly name = 'portable';
  readonly atOnce = CASES_A_RUN;
  private readonly options: LaneOptions;
  private warm: BoxProcess | null = null;
  private readonly busy = new Set<BoxProcess>();
  private closed = false;

  constructor(options: LaneOptions) {
    this.options = options;
  }

  async start(): Promise<void> {
    await this.keepWarm().ready;
  }

  async run(cases: readonly CaseJob[]): Promise<Run> {
    if (this.closed) return { replies: [], end: { is: 'trouble', why: 'the sandbox is closed' } };
    // One that died while it waited is not used.
    const mine = this.warm?.alive ? this.warm : this.launch();
    this.warm = null;
    this.busy.add(mine);
    try {
      await mine.ready;
      return await mine.run(cases);
    } catch (error) {
      return { replies: [], end: { is: 'trouble', why: String(error) } };
    } finally {
      mine.kill();
      this.busy.delete(mine);
      if (!this.closed) this.keepWarm();
    }
  }

  close(): void {
    this.closed = true;
    for (const one of [this.warm, ...this.busy]) one?.kill();
  }

  private keepWarm(): BoxProcess {
    if (!this.warm?.alive) this.warm = this.launch();
    return this.warm;
  }

  private launch(): BoxProcess {
    return new BoxProcess(commandLine({ ...this.options, script: 'portableChild.cjs', flags: FLAGS }), 1);
  }
}
