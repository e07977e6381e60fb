import { and, asc, count, desc, eq, lte, ne, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { FailedJob } from '../../core/jobs/api';
import type { Clock } from '../machine/clock';
import type { GroupCommit } from '../db/groupCommit';
import type { Db } from '../db/open';
import { jobs } from '../db/schema';
import { LoadMeter } from '../machine/loadMeter';

/** A try at a job; after the last one a failed job waits for people. */
export interface Try {
  readonly last: boolean;
}
export type JobHandler = (subject: number, attempt: Try) => Promise<void> | void;
/** What a job is about, in a few words; undefined where that is there no more. */
type About = (subject: number) => string | undefined;

const POLL_MS = 500;
const TRIES = 5;
const FAILED_SHOWN = 200;
/** How long the queue rests after a job, as a multiple of what the job took; and at most. */
const REST = 3;
const LONGEST_REST_MS = 200;
/** How long a job waits at most for a moment in which people leave the thread some room. */
const LONGEST_WAIT_MS = 10_000;
const BACK_OFF_MS = 5000;

type Job = typeof jobs.$inferSelect;

/** Jobs of different lanes go on beside each other: a mail server that does not answer holds up no score. */
export const lanes = [
  'settling',
  'scoring',
  'marking',
  'letters',
  'files',
  'printing',
  'packs',
  'unknown',
] as const;
export type Lane = (typeof lanes)[number];
/** Scripts wait for the sandbox, where they have their turns one after the other; a slow one keeps nobody else. */
const AT_ONCE: Partial<Record<Lane, number>> = { scoring: 8 };

/** Work that is done again and again, never twice at once. */
class Repeated {
  private readonly work: () => void | Promise<void>;
  private readonly log: Logger;
  private timer: NodeJS.Timeout | null = null;
  private busy: Promise<void> | null = null;

  constructor(work: () => void | Promise<void>, log: Logger) {
    [this.work, this.log] = [work, log];
  }

  start(ms: number): void {
    this.timer ??= setInterval(() => void this.turn(), ms);
  }

  turn(): Promise<void> {
    this.busy ??= this.once().finally(() => (this.busy = null));
    return this.busy;
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    await this.busy;
  }

  private async once(): Promise<void> {
    try {
      await this.work();
    } catch (error) {
      this.log.error({ err: error }, 'a turn of jobs broke off');
    }
  }
}

/** Work that must not run on the request path: kept in the database, so that a restart loses none of it. */
export class JobQueue {
  private readonly db: Db;
  private readonly clock: Clock;
  private readonly log: Logger;
  private readonly handlers = new Map<string, JobHandler>();
  private readonly abouts = new Map<string, About>();
  private readonly lanes = new Map<Lane, Repeated[]>();
  /** Until when jobs wait, by kind and subject: what is being done is never done twice at once. */
  private readonly waitsUntil = new Map<string, number>();
  private readonly kindsOf = new Map<Lane, string[]>();
  private readonly sweeps: Repeated[] = [];
  private started = false;
  private stopping = false;
  private readonly commits: GroupCommit;
  private readonly load: LoadMeter;
  private readonly due;
  private readonly insert;
  private readonly settle;

  constructor(db: Db, commits: GroupCommit, clock: Clock, log: Logger, load = new LoadMeter()) {
    this.db = db;
    this.load = load;
    this.commits = commits;
    this.clock = clock;
    this.log = log;
    this.due = db
      .select()
      .from(jobs)
      .where(
        and(
          eq(jobs.state, 'waiting'),
          lte(jobs.runAt, sql.placeholder('now')),
          sql`(${jobs.kind} in (select value from json_each(${sql.placeholder('kinds')}))) = ${sql.placeholder('known')}`,
          sql`${jobs.kind} || ' ' || ${jobs.subject} not in (select value from json_each(${sql.placeholder('busy')}))`,
        ),
      )
      .orderBy(asc(jobs.runAt), asc(jobs.id))
      .limit(1)
      .prepare();
    this.insert = db
      .insert(jobs)
      .values({
        kind: sql.placeholder('kind'),
        subject: sql.placeholder('subject'),
        runAt: sql.placeholder('runAt'),
      })
      .prepare();
    this.settle = db
      .update(jobs)
      .set({
        attempts: sql`${sql.placeholder('attempts')}`,
        state: sql`${sql.placeholder('state')}`,
        runAt: sql`${sql.placeholder('runAt')}`,
        doneAt: sql`${sql.placeholder('doneAt')}`,
        trouble: sql`${sql.placeholder('trouble')}`,
      })
      .where(eq(jobs.id, sql.placeholder('id')))
      .prepare();
  }

  /** Says how jobs of a kind are done, in which lane, and what one is about, as staff know it. */
  handle(kind: string, lane: Lane, handler: JobHandler, about: About = () => undefined): void {
    this.handlers.set(kind, handler);
    this.abouts.set(kind, about);
    this.kindsOf.set(lane, [...(this.kindsOf.get(lane) ?? []), kind]);
  }

  /** Something done again and again, by a timer of its own: no job holds it up. */
  sweep(work: () => void | Promise<void>): void {
    this.sweeps.push(new Repeated(work, this.log));
  }

  add(kind: string, subject: number, runAt = this.clock.now()): void {
    this.insert.run({ kind, subject, runAt });
  }

  /** As `add`, unless one waits already that is still to start. */
  addOnce(kind: string, subject: number): void {
    const waits = and(eq(jobs.kind, kind), eq(jobs.subject, subject), eq(jobs.state, 'waiting'));
    const begun = this.waitsUntil.has(`${kind} ${subject}`) ? 1 : 0;
    const waiting = this.db.select({ n: count() }).from(jobs).where(waits).get()?.n ?? 0;
    if (waiting <= begun) this.add(kind, subject);
  }

  start(): void {
    this.started = true;
    this.load.start();
    for (const one of this.all()) one.start(POLL_MS);
  }

  /** Waits for what is being done now, not for what is due. */
  async stop(): Promise<void> {
    this.stopping = true;
    this.load.stop();
    await Promise.all(this.all().map((one) => one.stop()));
  }

  open(): number {
    return this.db.select({ n: count() }).from(jobs).where(eq(jobs.state, 'waiting')).get()?.n ?? 0;
  }

  /** How many of a kind have yet to be done, those that failed included. */
  pending(kind: string): number {
    const open = and(eq(jobs.kind, kind), ne(jobs.state, 'done'));
    return this.db.select({ n: count() }).from(jobs).where(open).get()?.n ?? 0;
  }

  /** Jobs that were given up: they stay until somebody runs them again. */
  countFailed(): number {
    return this.db.select({ n: count() }).from(jobs).where(eq(jobs.state, 'failed')).get()!.n;
  }

  failed(): FailedJob[] {
    return this.db
      .select()
      .from(jobs)
      .where(eq(jobs.state, 'failed'))
      .orderBy(desc(jobs.id))
      .limit(FAILED_SHOWN)
      .all()
      .map(({ id, kind, subject, attempts, trouble }) => ({
        id,
        kind,
        attempts,
        trouble: trouble ?? '',
        about: this.abouts.get(kind)?.(subject) ?? String(subject),
      }));
  }

  /** Has a failed job run again, with all its tries; false where there is no such job. */
  runAgain(id: number): boolean {
    const again = { state: 'waiting' as const, attempts: 0, runAt: this.clock.now() };
    const failed = and(eq(jobs.id, id), eq(jobs.state, 'failed'));
    return this.db.update(jobs).set(again).where(failed).run().changes > 0;
  }

  /** Does all that is due, the sweeps first, lane after lane. Turns of one lane never overlap. */
  async turn(): Promise<void> {
    for (const one of this.all()) await one.turn();
  }

  private all(): Repeated[] {
    return [...this.sweeps, ...[...this.everyLane().values()].flat()];
  }

  private everyLane(): ReadonlyMap<Lane, Repeated[]> {
    for (const lane of lanes)
      if (!this.lanes.has(lane)) {
        const one = () => new Repeated(() => this.work(lane), this.log);
        this.lanes.set(lane, Array.from({ length: AT_ONCE[lane] ?? 1 }, one));
      }
    return this.lanes;
  }

  private next(lane: Lane): Job | undefined {
    // What nobody knows how to do is failed at once, for staff to see.
    const unknown = lane === 'unknown';
    const kinds = unknown ? [...this.handlers.keys()] : (this.kindsOf.get(lane) ?? []);
    const now = this.clock.now();
    const busy = JSON.stringify([...this.waitsUntil].flatMap(([name, at]) => (at > now ? [name] : [])));
    return this.due.get({ now, busy, kinds: JSON.stringify(kinds), known: unknown ? 0 : 1 });
  }

  private async work(lane: Lane): Promise<void> {
    for (let job = this.next(lane); job && !this.stopping; job = this.next(lane)) {
      await this.runInTurn(job);
      // A sitting is closed however much there is to do; all else can come a little later.
      if (lane !== 'settling' && !this.stopping) await this.load.wait(LONGEST_WAIT_MS);
    }
  }

  /**
   * One job, and then a longer rest than it took: whoever writes or hands in meanwhile comes first, however many
   * scripts wait to be scored. Turned by hand and not started, the queue has nobody to make room for.
   */
  private async runInTurn(job: Job): Promise<void> {
    const from = performance.now();
    const name = `${job.kind} ${job.subject}`;
    this.waitsUntil.set(name, Infinity);
    try {
      await this.run(job);
      this.waitsUntil.delete(name);
    } catch (error) {
      // What it came to could not be kept, as on a full disk: not again at once.
      this.waitsUntil.set(name, this.clock.now() + BACK_OFF_MS);
      throw error;
    }
    if (!this.started) return;
    const took = performance.now() - from;
    await new Promise((go) => setTimeout(go, Math.min(REST * took, LONGEST_REST_MS)));
  }

  private async run(job: Job): Promise<void> {
    const attempts = job.attempts + 1;
    const settled = (change: Partial<typeof job>) =>
      this.commits.run(() => void this.settle.run({ ...job, ...change, attempts }));
    try {
      const handler = this.handlers.get(job.kind);
      if (!handler) {
        const trouble = `nobody here knows how to do “${job.kind}”`;
        return await settled({ state: 'failed', trouble });
      }
      await handler(job.subject, { last: attempts >= TRIES });
      await settled({ state: 'done', doneAt: this.clock.now() });
    } catch (error) {
      // Broken off by a stop: it waits as before, and is done after the next start.
      if (this.stopping) return;
      this.log.error({ err: error, job: job.id, kind: job.kind }, 'a job failed');
      const trouble = String(error).slice(0, 500);
      const runAt = this.clock.now() + BACK_OFF_MS * attempts;
      await settled({ state: attempts >= TRIES ? 'failed' : 'waiting', runAt, trouble });
    }
  }
}

export interface HasJobs {
  readonly jobs: JobQueue;
}
