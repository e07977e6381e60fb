import { and, asc, count, desc, eq, lte, ne, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Clock } from '../clock';
import type { GroupCommit } from '../db/groupCommit';
import type { Db } from '../db/open';
import { jobs } from '../db/schema';

/** A try at a job; after the last one a failed job waits for people. */
export interface Try {
  readonly last: boolean;
}
export type JobHandler = (subject: number, attempt: Try) => Promise<void> | void;

const POLL_MS = 500;
const TRIES = 5;
const FAILED_SHOWN = 200;
/** How long the queue rests after a job, as a multiple of what the job took; and at most. */
const REST = 3;
const LONGEST_REST_MS = 200;
const BACK_OFF_MS = 5000;

/** Work that must not run on the request path: kept in the database, so that a restart loses none of it. */
export class JobQueue {
  private readonly db: Db;
  private readonly clock: Clock;
  private readonly log: Logger;
  private readonly handlers = new Map<string, JobHandler>();
  private readonly regular: (() => void | Promise<void>)[] = [];
  private timer: NodeJS.Timeout | null = null;
  private busy: Promise<void> | null = null;
  private readonly commits: GroupCommit;
  private readonly due;
  private readonly insert;
  private readonly settle;

  constructor(db: Db, commits: GroupCommit, clock: Clock, log: Logger) {
    this.db = db;
    this.commits = commits;
    this.clock = clock;
    this.log = log;
    this.due = db
      .select()
      .from(jobs)
      .where(and(eq(jobs.state, 'waiting'), lte(jobs.runAt, sql.placeholder('now'))))
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

  handle(kind: string, handler: JobHandler): void {
    this.handlers.set(kind, handler);
  }

  /** Something done at every turn, as the sweep of sittings whose time is over. */
  everyTurn(work: () => void | Promise<void>): void {
    this.regular.push(work);
  }

  add(kind: string, subject: number, runAt = this.clock.now()): void {
    this.insert.run({ kind, subject, runAt });
  }

  start(): void {
    this.timer ??= setInterval(() => void this.turn(), POLL_MS);
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    await this.busy;
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
  failed(): (typeof jobs.$inferSelect)[] {
    return this.db
      .select()
      .from(jobs)
      .where(eq(jobs.state, 'failed'))
      .orderBy(desc(jobs.id))
      .limit(FAILED_SHOWN)
      .all();
  }

  /** Has a failed job run again, with all its tries; false where there is no such job. */
  runAgain(id: number): boolean {
    const again = { state: 'waiting' as const, attempts: 0, runAt: this.clock.now() };
    const failed = and(eq(jobs.id, id), eq(jobs.state, 'failed'));
    return this.db.update(jobs).set(again).where(failed).run().changes > 0;
  }

  /** Does all that is due; turns never overlap. */
  turn(): Promise<void> {
    this.busy ??= this.work().finally(() => (this.busy = null));
    return this.busy;
  }

  private async work(): Promise<void> {
    try {
      for (const regular of this.regular) await regular();
      for (
        let job = this.due.get({ now: this.clock.now() });
        job;
        job = this.due.get({ now: this.clock.now() })
      )
        await this.runInTurn(job);
    } catch (error) {
      this.log.error({ err: error }, 'a turn of jobs broke off');
    }
  }

  /**
   * One job, and then a longer rest than it took: whoever writes or hands in meanwhile comes first, however many
   * scripts wait to be scored.
   */
  private async runInTurn(job: typeof jobs.$inferSelect): Promise<void> {
    const from = performance.now();
    await this.run(job);
    const took = performance.now() - from;
    await new Promise((go) => setTimeout(go, Math.min(REST * took, LONGEST_REST_MS)));
  }

  private async run(job: typeof jobs.$inferSelect): Promise<void> {
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
      this.log.error({ err: error, job: job.id, kind: job.kind }, 'a job failed');
      const trouble = String(error).slice(0, 500);
      const runAt = this.clock.now() + BACK_OFF_MS * attempts;
      await settled({ state: attempts >= TRIES ? 'failed' : 'waiting', runAt, trouble });
    }
  }
}
