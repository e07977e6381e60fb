import { randomInt } from 'node:crypto';
import type { Logger } from 'pino';
import type { CaseOutcome, ProgramRun } from '../../core/kinds/evidence';
import { faultOutcome, outcomeOf, tooSlow } from '../../core/programs/outcomeOf';
import type { CodeRule } from '../config';
import type { CaseJob } from '../../core/programs/engine';
import { ENGINE_OF, type EngineName } from './engines/engine';
import { FairQueue } from './fairQueue';
import { canFork, ForkLane } from './lanes/forkLane';
import type { Lane, RunEnd } from './lanes/lane';
import { PortableLane } from './lanes/portableLane';
import { findWalls, type Walls } from './lanes/walls';
import { processorTime } from './processorTime';

/** How often a case is run before its end without a verdict is believed, or given up. */
const TRIES = 3;
/**
 * While the host gives so much of the processors to others, or another program runs beside it, a program is charged more
 * than its work takes: three times as much was seen. Too slow is believed once it has run alone.
 */
const MOST_TAKEN = 0.1;
/** A program of which so many cases were too slow by themselves is too slow at once in the others. */
const SLOW_BELIEVED = 3;
/** All values that one program returns may take this many bytes: they are kept, and given to who scores. */
const MOST_KEPT = 2 * 1024 * 1024;
const HELD_UP = 'a case before it held up the process';
const SHARED = 'too slow, while others had the processors too';
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
  /** Others had the processors too meanwhile, and the case was not found too slow before. */
  readonly doubtful: boolean;
}

/** How far a program has come. */
interface Course {
  readonly run: ProgramRun;
  readonly outcomes: CaseOutcome[];
  /** Bytes of all values so far. */
  kept: number;
  /** Of the case that is next. */
  tries: number;
  /** Whether the next case is run by itself. */
  alone: boolean;
  /** Whether every case is, from now on. */
  each: boolean;
  /** The place of the case that was too slow while others had the processors too. */
  slowAt: number;
  /** Cases that are too slow. */
  slow: number;
  /** How often a case was run again. */
  again: number;
}

/**
 * What the end of a process means for the case that it left without a reply. The machine's part in it has to be ruled
 * out first: where it is not, the case is run again, and in the end the box gives up rather than judge.
 */
function judgeEnd(end: RunEnd, { key, limitMs, tries, inCompany, doubtful }: Case): Judged {
  if (end.is === 'stopped' && end.by === 'memory')
    return inCompany
      ? { again: 'memory, in company' }
      : { outcome: { key, result: 'too-much-memory', milliseconds: end.cpuMs, memoryBytes: 0, printed: '' } };
  if (end.is === 'stopped' && end.by === 'time')
    return doubtful ? { again: SHARED } : { outcome: tooSlow(key, Math.max(end.cpuMs, limitMs)) };
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
    const course: Course = {
      run,
      outcomes: [],
      kept: 0,
      tries: 1,
      alone: false,
      each: false,
      slowAt: -1,
      slow: 0,
      again: 0,
    };
    while (course.outcomes.length < run.cases.length) await this.goOn(course, owner);
    this.counts.ran++;
    this.trouble = null;
    return course.outcomes;
  }

  /** Runs some of the cases that are left, and judges them as far as they can be. */
  private async goOn(course: Course, owner: string): Promise<void> {
    const { run, outcomes } = course;
    const limitMs = run.limits.milliseconds;
    const at = outcomes.length;
    // A case that was too slow is judged by a run beside which nothing else runs.
    const quiet = course.slowAt === at;
    const work = () => this.runSome(run, run.cases.slice(at), course.alone || course.each);
    const { cases, found, shared } = await this.queue.add(owner, work, { alone: quiet });
    const judged: CaseOutcome[] = [];
    for (const [i, reply] of found.replies.entries()) {
      course.kept += reply.reply.length;
      const said = course.kept > MOST_KEPT ? ({ ...reply, limit: 'output' } as const) : reply;
      judged.push(outcomeOf(cases[i]!.key, said, limitMs));
    }
    const isDoubtful = (place: number) => shared && place !== course.slowAt && course.slow < SLOW_BELIEVED;
    // Cases before it in the same process have taken memory too: only what a case takes by itself is held against it.
    const unsure = judged.findIndex(
      ({ result }, i) =>
        (result === 'too-much-memory' && i > 0) || (result === 'too-slow' && isDoubtful(at + i)),
    );
    const sure = unsure < 0 ? judged : judged.slice(0, unsure);
    this.keep(course, sure);
    const next = cases[sure.length];
    course.alone = false;
    if (sure.length > 0) course.tries = 1;
    if (!next) return;
    const inCompany = sure.length > 0;
    const place = outcomes.length;
    // A submission has one second pass at most: once as many cases were run again as it has, an end is believed.
    const tries = course.again >= Math.max(TRIES, run.cases.length) ? TRIES : course.tries;
    const of = { key: next.key, limitMs, tries, inCompany, doubtful: isDoubtful(place) };
    const why = judged[unsure]?.result === 'too-slow' ? SHARED : 'memory, in company';
    const end = unsure < 0 ? this.judge(found.end, of) : this.again(why);
    if ('outcome' in end) {
      this.keep(course, [end.outcome]);
      course.tries = 1;
      return;
    }
    // A case that has gone wrong is tried again by itself.
    course.alone = true;
    course.again++;
    if (end.again === SHARED) course.slowAt = place;
    if (end.again === HELD_UP) course.each = true;
    course.tries = inCompany ? 1 : course.tries + 1;
  }

  private keep(course: Course, judged: readonly CaseOutcome[]): void {
    for (const outcome of judged) {
      course.outcomes.push(outcome);
      if (outcome.result !== 'too-slow') continue;
      course.slow++;
      // What follows in the same process would wait for it: the rest of this program runs case by case.
      course.each = true;
    }
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
    const { language, files, functionName, limits } = run;
    try {
      const lane = await this.laneFor(ENGINE_OF[language]);
      const cases = left.slice(0, alone ? 1 : lane.atOnce);
      const jobs = cases.map((one): CaseJob => {
        const seed = randomInt(MOST_SEED);
        const { input, files: inputFiles } = one;
        return { language, files, functionName, input, inputFiles, ...limits, seed };
      });
      const [from, before] = [this.processorTime(), this.queue.activity];
      const found = await lane.run(jobs);
      const [to, after] = [this.processorTime(), this.queue.activity];
      const hostTook = to.taken - from.taken > MOST_TAKEN * (to.all - from.all);
      const inCompany = before.running > 1 || after.starts > before.starts;
      return { cases, found, shared: hostTook || inCompany };
    } catch (error) {
      const end: RunEnd = { is: 'trouble', why: String(error) };
      return { cases: left.slice(0, 1), found: { replies: [], end }, shared: false };
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
