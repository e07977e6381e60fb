import { randomInt } from 'node:crypto';
import type { Logger } from 'pino';
import type { CaseOutcome, ProgramRun } from '../../core/kinds/evidence';
import { faultOutcome, outcomeOf, tooSlow } from '../../core/programs/outcomeOf';
import type { CodeRule } from '../config';
import { ENGINE_OF, type EngineName, type ProcessCase } from './engines/engine';
import { FairQueue } from './fairQueue';
import { canFork, ForkLane } from './lanes/forkLane';
import type { Lane, RunEnd } from './lanes/lane';
import { PortableLane } from './lanes/portableLane';
import { findWalls, type Walls } from './lanes/walls';
import { processorTime } from './processorTime';

/** How often a case is run before its end without a verdict is believed, or given up. */
const TRIES = 3;
/**
 * While the host gives so much of the processors to others, a program is charged more than its work takes: four times as
 * much was seen. Too slow is believed the second time only.
 */
const MOST_TAKEN = 0.1;
/** All values that one program returns may take this many bytes: they are kept, and given to who scores. */
const MOST_KEPT = 2 * 1024 * 1024;
const HELD_UP = 'a case before it held up the process';
const HOST_TOOK = 'too slow, while the host took the processors';
const KEPT_WARM: readonly EngineName[] = ['python', 'javascript'];
const MOST_SEED = 2 ** 32;

/** Trouble of the machine. No case is judged by it: what was asked for has to be asked for again. */
export class MachineTrouble extends Error {}

export interface SandboxHealth {
  /** By engine, as far as they have been started. */
  readonly lanes: Partial<Record<EngineName, Lane['name']>>;
  /** What stands around a program besides its engine. */
  readonly walls: readonly ('system calls' | 'name space' | 'own user')[];
  readonly isolated: boolean;
  /** Programs whose turn has not come. */
  readonly waiting: number;
  readonly ran: number;
  readonly stopped: number;
  readonly triedAgain: number;
  /** The last trouble of the machine, if nothing has gone well since. */
  readonly trouble: string | null;
}

export interface SandboxOptions {
  readonly rule?: CodeRule;
  readonly walls?: Walls;
  /** Whether this machine can run programs by forks. */
  readonly forks?: boolean;
  /** Programs that may run beside each other. */
  readonly slots?: number;
  /** That of this machine, unless another is given. */
  readonly processorTime?: typeof processorTime;
  readonly log?: Pick<Logger, 'warn'>;
}

type Judged = { readonly outcome: CaseOutcome } | { readonly again: string };

interface Case {
  readonly key: string;
  readonly limitMs: number;
  readonly tries: number;
  /** Other cases have run in the same process before it. */
  readonly inCompany: boolean;
  /** The host took the processors meanwhile, and the case was not found too slow before. */
  readonly doubtful: boolean;
}

/**
 * What the end of a process means for the case that it left without a reply. The machine's part in it has to be ruled
 * out first: where it is not, the case is run again, and in the end the box gives up rather than judge.
 */
function judgeEnd(end: RunEnd, { key, limitMs, tries, inCompany, doubtful }: Case): Judged {
  if (end.is === 'stopped' && end.by === 'memory')
    return inCompany
      ? { again: 'memory, in company' }
      : { outcome: { key, result: 'too-much-memory', milliseconds: end.cpuMs, printed: '' } };
  if (end.is === 'stopped' && end.by === 'time')
    return doubtful ? { again: HOST_TOOK } : { outcome: tooSlow(key, Math.max(end.cpuMs, limitMs)) };
  // What held it up was the program, and not this case of it.
  if (end.is === 'stopped' && end.by === 'between') return { again: HELD_UP };
  if (end.is === 'crashed' && end.forbidden) return { outcome: faultOutcome(key, 'forbidden', end.cpuMs) };
  const last = tries >= TRIES;
  // A fork may hang by chance, an engine may be hit by something else: three times in a row it is the program.
  if (end.is === 'stopped' && end.by === 'asleep')
    return last ? { outcome: tooSlow(key, limitMs) } : { again: 'it slept' };
  if (end.is === 'crashed')
    return last ? { outcome: faultOutcome(key, 'ended', end.cpuMs) } : { again: 'it crashed' };
  const why = end.is === 'trouble' ? end.why : 'no reply';
  if (last) throw new MachineTrouble(why);
  return { again: why };
}

/**
 * The sandbox: one program and its cases in, an outcome for each case out. Every case runs in a state in which nothing
 * else has run; expected values never enter it; processor time and memory as the kernel counts them decide.
 */
export class Sandbox {
  private readonly folder: string;
  private readonly walls: Walls;
  private readonly slots: number;
  private readonly rule: CodeRule;
  private readonly log: SandboxOptions['log'];
  /** Whether forks are used: until one engine cannot be started that way. */
  private forks: boolean;
  private readonly lanes = new Map<EngineName, Promise<Lane>>();
  private readonly names: Partial<Record<EngineName, Lane['name']>> = {};
  private readonly queue: FairQueue;
  private readonly processorTime: typeof processorTime;
  private readonly counts = { ran: 0, stopped: 0, triedAgain: 0 };
  private trouble: string | null = null;
  private closed = false;

  constructor(
    folder: string,
    {
      rule = 'best',
      walls = findWalls(),
      forks = canFork,
      slots = 2,
      log,
      processorTime: time = processorTime,
    }: SandboxOptions = {},
  ) {
    this.folder = folder;
    this.walls = walls;
    this.slots = slots;
    this.log = log;
    this.processorTime = time;
    this.rule = rule;
    this.forks = forks && rule !== 'portable';
    this.queue = new FairQueue(slots);
  }

  /** Starts the engines that are used most; throws where one of them cannot be. */
  async warmUp(): Promise<void> {
    await Promise.all(KEPT_WARM.map((engine) => this.laneFor(engine)));
  }

  /** Is there a second wall, should an engine have a hole? */
  get isolated(): boolean {
    return this.walls.bubblewrap !== null || this.forks;
  }

  /** False where the rule asks for a second wall and this machine has none: nothing is run then. */
  get allowed(): boolean {
    return this.rule !== 'require-isolation' || this.isolated;
  }

  /** How many others have their turn before the next run of this owner. */
  before(owner: string): number {
    return this.queue.before(owner);
  }

  health(): SandboxHealth {
    const forks = Object.values(this.names).includes('fork');
    return {
      lanes: { ...this.names },
      walls: [
        ...(forks ? (['system calls'] as const) : []),
        ...(this.walls.bubblewrap ? (['name space'] as const) : []),
        ...(this.walls.ownUser || this.walls.bubblewrap ? (['own user'] as const) : []),
      ],
      isolated: this.isolated,
      waiting: this.queue.waiting,
      ...this.counts,
      trouble: this.trouble,
    };
  }

  /**
   * Runs a program, in turn with those of other `owner`s. Throws `MachineTrouble` where a case cannot be judged, which
   * is never a matter of the program.
   */
  async run(run: ProgramRun, owner = ''): Promise<CaseOutcome[]> {
    if (!this.allowed)
      throw new MachineTrouble('this machine has no second wall, which CLEAR_SITTING_CODE asks for');
    const outcomes: CaseOutcome[] = [];
    let [kept, tries, alone] = [0, 1, false];
    /** Whether cases of this program hold up others of it: none is run beside another from then on. */
    let each = false;
    /** The place of the case that was too slow while the host took the processors. */
    let slowAt = -1;
    while (outcomes.length < run.cases.length) {
      const left = run.cases.slice(outcomes.length);
      const { cases, found, hostTook } = await this.queue.add(owner, () =>
        this.runSome(run, left, alone || each),
      );
      const judged: CaseOutcome[] = [];
      for (const [i, reply] of found.replies.entries()) {
        kept += reply.reply.length;
        const said = kept > MOST_KEPT ? ({ ...reply, limit: 'output' } as const) : reply;
        judged.push(outcomeOf(cases[i]!.key, said, run.limits.milliseconds));
      }
      // Cases before it in the same process have taken memory too: only what a case takes by itself is held against it.
      const unsure = judged.findIndex(
        ({ result }, i) =>
          (result === 'too-much-memory' && i > 0) ||
          (result === 'too-slow' && hostTook && outcomes.length + i !== slowAt),
      );
      const sure = unsure < 0 ? judged : judged.slice(0, unsure);
      outcomes.push(...sure);
      const next = cases[sure.length];
      [alone, tries] = [false, sure.length > 0 ? 1 : tries];
      if (!next) continue;
      const inCompany = sure.length > 0;
      const doubtful = hostTook && outcomes.length !== slowAt;
      const of = { key: next.key, limitMs: run.limits.milliseconds, tries, inCompany, doubtful };
      const why = judged[unsure]?.result === 'too-slow' ? HOST_TOOK : 'memory, in company';
      const end = unsure < 0 ? this.judge(found.end, of) : this.again(why);
      if ('outcome' in end) outcomes.push(end.outcome);
      else {
        // A case that has gone wrong is tried again by itself.
        alone = true;
        if (end.again === HOST_TOOK) slowAt = outcomes.length;
        if (end.again === HELD_UP) each = true;
      }
      tries = 'outcome' in end || inCompany ? 1 : tries + 1;
    }
    this.counts.ran++;
    this.trouble = null;
    return outcomes;
  }

  close(): void {
    this.closed = true;
    for (const lane of this.lanes.values()) void lane.then((one) => one.close()).catch(() => undefined);
  }

  private again(why: string): Judged {
    this.counts.triedAgain++;
    this.log?.warn({ why }, 'a case is run again');
    return { again: why };
  }

  private judge(end: RunEnd, of: Case): Judged {
    if (this.closed) throw new MachineTrouble('the server is stopping');
    try {
      const judged = judgeEnd(end, of);
      if ('again' in judged) return this.again(judged.again);
      this.counts.stopped++;
      return judged;
    } catch (error) {
      this.trouble = String(error);
      throw error;
    }
  }

  private async runSome(run: ProgramRun, left: ProgramRun['cases'], alone: boolean) {
    const { language, program, functionName, limits } = run;
    try {
      const lane = await this.laneFor(ENGINE_OF[language]);
      const cases = left.slice(0, alone ? 1 : lane.atOnce);
      const jobs = cases.map((one): ProcessCase => {
        const seed = randomInt(MOST_SEED);
        return { language, program, functionName, arguments: JSON.stringify(one.arguments), ...limits, seed };
      });
      const from = this.processorTime();
      const found = await lane.run(jobs);
      const to = this.processorTime();
      const hostTook = to.taken - from.taken > MOST_TAKEN * (to.all - from.all);
      return { cases, found, hostTook };
    } catch (error) {
      const end: RunEnd = { is: 'trouble', why: String(error) };
      return { cases: left.slice(0, 1), found: { replies: [], end }, hostTook: false };
    }
  }

  private laneFor(engine: EngineName): Promise<Lane> {
    const known = this.lanes.get(engine);
    if (known) return known;
    const starting = this.startLane(engine);
    this.lanes.set(engine, starting);
    // Whoever asks next tries again.
    starting.catch(() => this.lanes.delete(engine));
    return starting;
  }

  /** By forks where that works, else the portable way; the verdicts are the same. */
  private async startLane(engine: EngineName): Promise<Lane> {
    if (this.closed) throw new MachineTrouble('the sandbox is closed');
    const options = { folder: this.folder, engine, walls: this.walls, slots: this.slots };
    if (!this.forks) return this.started(new PortableLane(options), engine);
    try {
      return await this.started(new ForkLane(options), engine);
    } catch (error) {
      this.log?.warn({ err: error, engine }, 'programs could not be run by forks');
      if (this.rule === 'require-isolation' && this.walls.bubblewrap === null) throw error;
      const portable = await this.started(new PortableLane(options), engine);
      // The portable way works where forks do not: they are not tried any more.
      this.forks = false;
      return portable;
    }
  }

  private async started(lane: Lane, engine: EngineName): Promise<Lane> {
    try {
      await lane.start();
    } catch (error) {
      lane.close();
      this.trouble = String(error);
      throw error;
    }
    this.names[engine] = lane.name;
    return lane;
  }
}

export interface HasSandbox {
  readonly sandbox: Sandbox;
}
