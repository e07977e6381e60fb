import { and, eq, isNull } from 'drizzle-orm';
import type { Entry } from '../../core/journal/entry';
import { buildCandidatePaper } from '../../core/papers/candidatePaper';
import type { ClosedBy, JournalKept, Receipt, SittingOpened } from '../../core/sittings/api';
import { deadlineOf, GRACE_MS, MINUTE_MS, standingOf } from '../../core/timing/deadline';
import { whereIs } from '../arrival/operations';
import { openSitting, paperOf } from '../arrival/queries';
import { sittings } from '../db/schema';
import { conflict, notFound, unreadable } from '../http/errors';
import { newSecret, scriptCode, sha256 } from '../http/secrets';
import { findPaper } from '../rounds/queries';
import type { Services } from '../services';
import { foreignEntries } from './checkEntries';
import type { JournalWriter } from './journalWriter';
import { findSitting, sittingQueries, type Sitting } from './queries';
import { deskOf, receiptHashOf, receiptOf } from './receipt';

const notRunning = () =>
  conflict('no-sitting', 'No test of yours is running. Open your link again to see where you are.');

/** Room for the device to hand in by itself at the deadline before the server does it. */
const DEVICE_FIRST_MS = 3000;
const COPIES_KEPT = 2000;

/** The way of a sitting on the server: prepared, started, journalled, closed. */
export class SittingOperations {
  private readonly services: Services;
  private readonly writer: JournalWriter;
  private readonly find;
  private readonly findOpen;
  private readonly copies = new Map<string, string>();

  constructor(services: Services, writer: JournalWriter) {
    this.services = services;
    this.writer = writer;
    this.find = sittingQueries(services.db);
    this.findOpen = openSitting(services.db);
  }

  /** Fixes the form of the coming attempt and says by which hash its paper is fetched. Costs no time. */
  prepare(invitation: number): { paperHash: string } {
    const { db, secret } = this.services;
    const { stage, attempt, invited } = whereIs(this.services, invitation);
    if (stage.at !== 'running' && !(stage.at === 'arriving' && stage.step === 'cover'))
      throw conflict('not-ready', 'Some steps of the arrival are still open. Open your link again.');
    const known = this.findOpen.get({ invitation });
    const seed = known?.seed ?? newSecret();
    if (!known) {
      const script = scriptCode(secret, `${invitation}/${attempt}`);
      db.insert(sittings)
        .values({ invitationId: invitation, attempt, seed, script })
        .onConflictDoNothing()
        .run();
    }
    return { paperHash: this.copyFor(invited.round.paperId, this.findOpen.get({ invitation })!.seed) };
  }

  /** The candidate's copy by its hash; only while a sitting of this candidate is prepared or running. */
  paper(invitation: number, hash: string): string {
    const sitting = this.findOpen.get({ invitation });
    if (!sitting) throw notRunning();
    const own = this.copyFor(whereIs(this.services, invitation).invited.round.paperId, sitting.seed);
    if (own !== hash) throw notFound('This paper');
    return this.copies.get(hash)!;
  }

  /** Starts the clock, once; the device has shown by the hash that the whole paper is on it. */
  start(invitation: number, paperHash: string): SittingOpened {
    const { db, clock } = this.services;
    const { invited, stage } = whereIs(this.services, invitation);
    if (stage.at !== 'running') {
      const sitting = this.findOpen.get({ invitation });
      if (!sitting || stage.at !== 'arriving' || stage.step !== 'cover') throw notRunning();
      if (this.copyFor(invited.round.paperId, sitting.seed) !== paperHash)
        throw conflict(
          'paper-incomplete',
          'The paper on this device is not the whole paper. Load this page again; no time is lost.',
        );
      const startedAt = clock.now();
      const limitMs = paperOf(db, invited).minutes * MINUTE_MS;
      const { extraPercent } = invited.invitation;
      const deadlineAt = deadlineOf({ startedAt, limitMs, extraPercent, grantedMs: 0, pausedMs: 0 });
      db.update(sittings)
        .set({ startedAt, deadlineAt })
        .where(and(eq(sittings.id, sitting.id), isNull(sittings.startedAt)))
        .run();
    }
    return this.opened(invitation);
  }

  /** Everything a device needs to go on where the candidate was. */
  opened(invitation: number): SittingOpened {
    const { sitting, paperId } = this.running(invitation);
    return {
      sitting: sitting.script,
      now: this.services.clock.now(),
      startedAt: sitting.startedAt!,
      deadlineAt: sitting.deadlineAt!,
      paperHash: this.copyFor(paperId, sitting.seed),
      desk: deskOf(this.services, sitting.id),
    };
  }

  async keep(invitation: number, entries: readonly Entry[]): Promise<JournalKept> {
    const found = this.find.newestOf(invitation);
    if (!found) throw notRunning();
    const { sitting, paperId } = found;
    await this.write(sitting, paperId, entries);
    const seqs = new Map<string, number>();
    for (const { device, seq } of entries) seqs.set(device, Math.max(seq, seqs.get(device) ?? 0));
    const kept = [...seqs].map(([device, seq]) => ({ device, seq }));
    return {
      kept,
      closed: sitting.closedAt !== null,
      now: this.services.clock.now(),
      deadlineAt: sitting.deadlineAt!,
    };
  }

  /** Takes the last entries and closes the sitting. Handing in twice gives the same receipt. */
  async handIn(
    invitation: number,
    entries: readonly Entry[],
    by: Exclude<ClosedBy, 'server'>,
  ): Promise<Receipt> {
    const found = this.find.newestOf(invitation);
    if (!found) throw notRunning();
    await this.write(found.sitting, found.paperId, entries);
    this.close(found.sitting.id, by);
    return receiptOf(this.services, findSitting(this.services.db, found.sitting.id)!);
  }

  /** Closes sittings whose time is over and of which nothing was heard. */
  sweep(): void {
    for (const id of this.find.overdue(this.services.clock.now() - DEVICE_FIRST_MS)) this.close(id, 'server');
  }

  private close(id: number, by: ClosedBy): void {
    const { db, clock, jobs } = this.services;
    const sitting = findSitting(db, id)!;
    if (sitting.closedAt !== null) return;
    const closedAt = Math.min(clock.now(), sitting.deadlineAt!);
    db.transaction(() => {
      db.update(sittings)
        .set({ closedAt, closedBy: by, receiptHash: receiptHashOf(this.services, id) })
        .where(eq(sittings.id, id))
        .run();
      // Scored at once when handed in; after the grace when the time closed it, for what is still on its way.
      jobs.add('score', id, by === 'candidate' ? clock.now() : sitting.deadlineAt! + GRACE_MS);
    });
  }

  private async write(sitting: Sitting, paperId: number, entries: readonly Entry[]): Promise<void> {
    const foreign = foreignEntries(findPaper(this.services.db, paperId)!.document, entries);
    if (foreign.length > 0) {
      const refused = foreign.map(({ device, seq }) => ({ device, seq }));
      throw unreadable('Some answers cannot belong to this paper and were not taken.', { refused });
    }
    const arrivedAt = this.services.clock.now();
    const { deadlineAt, closedAt, closedBy } = sitting;
    const rows = entries.map((entry) => {
      const times = {
        deadlineAt: deadlineAt!,
        closedAt,
        handedIn: closedBy === 'candidate',
        madeAt: entry.at,
        arrivedAt,
      };
      const { device, seq, about, target } = entry;
      const value = JSON.stringify(entry.value);
      return {
        sittingId: sitting.id,
        device,
        seq,
        about,
        target,
        value,
        clientAt: entry.at,
        serverAt: arrivedAt,
        standing: standingOf(times),
      };
    });
    if (rows.length > 0) await this.writer.keep(rows);
    if (closedAt !== null && rows.some((row) => row.standing === 'late')) this.renewReceipt(sitting.id);
  }

  /** Late entries that count belong to what was handed in. */
  private renewReceipt(id: number): void {
    const { db } = this.services;
    db.update(sittings)
      .set({ receiptHash: receiptHashOf(this.services, id) })
      .where(eq(sittings.id, id))
      .run();
  }

  private running(invitation: number): { sitting: Sitting; paperId: number } {
    const found = this.find.newestOf(invitation);
    if (!found || found.sitting.closedAt !== null) throw notRunning();
    return found;
  }

  private copyFor(paperId: number, seed: string): string {
    const key = `${paperId}/${seed}`;
    const known = this.copies.get(key);
    if (known) return known;
    const text = JSON.stringify(buildCandidatePaper(findPaper(this.services.db, paperId)!.document, seed));
    const hash = sha256(text);
    if (this.copies.size > 2 * COPIES_KEPT) this.copies.clear();
    this.copies.set(key, hash).set(hash, text);
    return hash;
  }
}
