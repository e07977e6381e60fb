import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, vi } from 'vitest';
import type { FullPaper } from '../../core/papers/paper';
import { BYTES_MS, MINUTE_MS } from '../../core/timing/deadline';
import { decisions, sittings } from '../db/schema';
import { observationsOf } from '../observations/observations';
import { sittingQueries } from '../sittings/queries';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';
import { deskOf } from '../sittings/values';
import { samplePaper } from './samplePaper';
import { serve, type Served } from './serve';
import type { TestDevice } from './TestDevice';

export const SECOND = 1000;
/** Thirty minutes, as the sample paper has. */
export const LIMIT = 30 * MINUTE_MS;
/** Two parts of the sample paper: a number and a text. */
export const NUMBER = 'the-number/A';
export const WRITING = 'the-writing/A';

export const typed = (text: string) => ({ version: 1, response: { typed: text } });
export const essay = (text: string) => ({
  version: 1,
  response: {
    text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
  },
});

let version = 1;

/** A server of a test's own, where time stands still unless the test moves it, and the sittings on it. */
export class Sittings {
  private served: Served | null = null;

  /** Opens the server before the tests of a file, and closes it after them. */
  static ofThisFile(): Sittings {
    const sittings = new Sittings();
    beforeAll(async () => {
      sittings.served = await serve();
      vi.useFakeTimers({ toFake: ['Date'] });
    });
    afterAll(async () => {
      vi.useRealTimers();
      await sittings.app.close();
    });
    return sittings;
  }

  get app(): Served {
    return this.served!;
  }

  get db() {
    return this.app.wired.services.db;
  }

  now(): number {
    return this.app.clock.now();
  }

  newRound(change: Partial<FullPaper> = {}): number {
    return this.app.addRound({ ...samplePaper(), ...change, version: version++ });
  }

  start(round = this.newRound(), extraPercent = 0): Promise<TestDevice> {
    return this.app.sitting(this.app.invite(round, extraPercent));
  }

  rowOf({ opened }: TestDevice) {
    return this.db.select().from(sittings).where(eq(sittings.deviceName, opened.sitting)).get()!;
  }

  idOf(device: TestDevice): number {
    return this.rowOf(device).id;
  }

  /** The current answers, as the database has them. */
  answersNow(device: TestDevice) {
    return deskOf(sittingQueries(this.db).currentOf(this.idOf(device))).answers;
  }

  /** The answers that the newest receipt covers: what is scored and marked. */
  covered(device: TestDevice) {
    return answersOfReceipt(this.db, newestReceipt(this.db, this.idOf(device))!);
  }

  kindsSeen(device: TestDevice) {
    return observationsOf(this.db, this.idOf(device)).map((observation) => observation.kind);
  }

  openDecisions(device: TestDevice) {
    return this.db
      .select()
      .from(decisions)
      .where(eq(decisions.sittingId, this.idOf(device)))
      .all()
      .filter((decision) => decision.decidedAt === null);
  }

  /** Once more an hour later: everything that falls due is done. */
  async later(ms = BYTES_MS + SECOND): Promise<void> {
    this.app.clock.advance(ms);
    await this.app.wired.services.jobs.turn();
  }
}
