import { gzipSync } from 'node:zlib';
import { eq } from 'drizzle-orm';
import type { Entry } from '../../core/journal/entry';
import type { Desk } from '../../core/journal/fold';
import { buildCandidatePaper } from '../../core/papers/candidatePaper';
import type { ClosedBy, HandInBody, JournalKept, Receipt, SittingOpened } from '../../core/sittings/api';
import { GRACE_MS } from '../../core/timing/deadline';
import { leftMs, timeViewOf } from '../../core/timing/sittingTime';
import { standingOf } from '../../core/timing/standing';
import { whereIs } from '../arrival/operations';
import { openSitting } from '../arrival/queries';
import { sittings } from '../db/schema';
import { conflict, notFound, unreadable } from '../http/errors';
import { newSecret, scriptCode, sha256 } from '../http/secrets';
import { findPaper } from '../rounds/queries';
import type { Services } from '../services';
import { foreignEntries, sectionOfTarget } from './checkEntries';
import { findSitting, sittingQueries, type FoundSitting, type NewEntry } from './queries';
import { deskOf, receiptHashOf, receiptOf } from './receipt';

const notRunning = () =>
  conflict('no-sitting', 'No test of yours is running. Open your link again to see where you are.');

/** Room for the device to hand in by itself at the deadline before the server does it. */
const DEVICE_FIRST_MS = 3000;
const HASHES_KEPT = 50_000;
/** Distinct copies: forms differ only in how their options are arranged, so that most candidates share one. */
const COPIES_KEPT = 1000;
/** A desk that was not heard of for this long holds nothing back any more. */
const SILENT_MS = 25_000;
/** A device that says its time is over may be ahead by what its clock could not know better. */
const AHEAD_MS = 3000;

const CURRENT_KEPT = 50_000;

/** What never changes of a sitting. */
interface Current {
  readonly id: number;
  readonly roundId: number;
  readonly paperId: number;
}

/** The way of a sitting on the server: prepared, started, journalled, closed. */
export class SittingOperations {
  private readonly services: Services;
  private readonly find;
  private readonly current = new Map<number, Current>();
  private readonly hashes = new Map<string, string>();
  private readonly copies = new Map<string, Buffer>();

  constructor(services: Services) {
    this.services = services;
    this.find = sittingQueries(services.db);
  }

  /** Fixes the form of the coming attempt and says by which hash its paper is fetched. Costs no time. */
  async prepare(invitation: number): Promise<{ paperHash: string }> {
    const { db, secret, commits } = this.services;
    const { stage, attempt, invited } = whereIs(this.services, invitation);
    if (stage.at !== 'running' && !(stage.at === 'arriving' && stage.step === 'cover'))
      throw conflict('not-ready', 'Some steps of the arrival are still open. Open your link again.');
    const fix = () => {
      // Asked again inside the commit: a second call of the same moment finds the form of the first.
      const known = openSitting(db, invitation);
      if (known) return known.seed;
      const script = scriptCode(secret, `${invitation}/${attempt}`);
      const seed = newSecret();
      this.find.addForm({ invitationId: invitation, attempt, seed, script });
      return seed;
    };
    const seed = openSitting(db, invitation)?.seed ?? (await commits.run(fix));
    return { paperHash: this.copyFor(invited.round.paperId, seed) };
  }

  /** The candidate's copy by its hash, as gzip; only while a sitting of this candidate is prepared or running. */
  paper(invitation: number, hash: string): Buffer {
    const sitting = openSitting(this.services.db, invitation);
    if (!sitting) throw notRunning();
    const { paperId } = whereIs(this.services, invitation).invited.round;
    if (this.copyFor(paperId, sitting.seed) !== hash) throw notFound('This paper');
    return this.copies.get(hash) ?? this.makeCopy(paperId, sitting.seed).packed;
  }

  /** Starts the clock, once; the device has shown by the hash that the whole paper is on it. */
  async start(invitation: number, paperHash: string): Promise<SittingOpened> {
    const { db, clock, commits, time, hub } = this.services;
    const { invited, stage } = whereIs(this.services, invitation);
    if (stage.at !== 'running') {
      const sitting = openSitting(db, invitation);
      if (!sitting || stage.at !== 'arriving' || stage.step !== 'cover') throw notRunning();
      if (this.copyFor(invited.round.paperId, sitting.seed) !== paperHash)
        throw conflict(
          'paper-incomplete',
          'The paper on this device is not the whole paper. Load this page again; no time is lost.',
        );
      await commits.run(() => time.try(sitting.id, { type: 'started', at: clock.now() }));
      this.current.delete(invitation);
      hub.tellOf(invitation, invited.round.id);
    }
    return this.opened(invitation);
  }

  /** Everything a device needs to go on where the candidate was. */
  opened(invitation: number): SittingOpened {
    const { sitting, paperId } = this.running(invitation);
    const now = this.services.clock.now();
    return {
      sitting: sitting.script,
      now,
      time: timeViewOf(this.services.time.of(sitting.id), now),
      paperHash: this.copyFor(paperId, sitting.seed),
      desk: deskOf(this.services, sitting.id),
    };
  }

  /** One opening of the desk holds a sitting; another can take it over, and the first is told. */
  hold(invitation: number, opening: string, takeOver: boolean): { holder: string } {
    const { db, hub, clock } = this.services;
    const { sitting, roundId } = this.running(invitation);
    const heard = clock.now() - (hub.heardAt(invitation) ?? 0) < SILENT_MS;
    const free = sitting.holder === null || sitting.holder === opening || !heard;
    if (!free && !takeOver) return { holder: sitting.holder! };
    if (sitting.holder !== opening) {
      db.update(sittings).set({ holder: opening }).where(eq(sittings.id, sitting.id)).run();
      hub.tellOf(invitation, roundId);
    }
    return { holder: opening };
  }

  /** Keeps a batch; without entries it only says that the device is there, and learns the time. */
  async keep(invitation: number, entries: readonly Entry[]): Promise<JournalKept> {
    const { clock, commits, hub, time } = this.services;
    const current = this.currentOf(invitation);
    hub.hear(invitation, clock.now());
    if (entries.length > 0) {
      this.refuseForeign(current, entries);
      await commits.run(() => this.write(current, entries));
      hub.tell(`round ${current.roundId}`, invitation, 'progress');
    }
    const seqs = new Map<string, number>();
    for (const { device, seq } of entries) seqs.set(device, Math.max(seq, seqs.get(device) ?? 0));
    const now = clock.now();
    const state = time.of(current.id);
    return {
      kept: [...seqs].map(([device, seq]) => ({ device, seq })),
      closed: state.closed !== null,
      now,
      time: timeViewOf(state, now),
    };
  }

  /** Takes the last entries and closes the sitting. Handing in twice gives the same receipt. */
  async handIn(invitation: number, { entries, by, at }: HandInBody): Promise<Receipt> {
    const { clock, time, db, commits, hub } = this.services;
    const current = this.currentOf(invitation);
    const { id } = current;
    const left = leftMs(time.of(id), clock.now());
    if (by === 'time' && time.of(id).closed === null && left > AHEAD_MS)
      throw conflict('not-yet', 'There is still time left; your clock is put right. Go on.');
    this.refuseForeign(current, entries);
    // One commit: the last entries, and that with them it is closed. The journal is folded once, for both.
    const desk = await commits.run(() => {
      this.write(current, entries);
      const now = clock.now();
      const said = Math.max(Math.min(at, now), time.of(id).startedAt!);
      const folded = deskOf(this.services, id);
      if (time.of(id).closed === null) this.close(id, by, said, folded);
      const row = findSitting(db, id)!;
      const counts = row.closedBy !== 'server' || (by === 'candidate' && said <= row.closedAt!);
      if (row.receivedAt === null && counts)
        db.update(sittings).set({ receivedAt: now, handedInAt: said }).where(eq(sittings.id, id)).run();
      return folded;
    });
    hub.tellOf(invitation, current.roundId);
    return receiptOf(this.services, findSitting(db, id)!, desk);
  }

  /** Closes sittings whose time is over and of which nothing was heard; a few at a time, for a whole round may be. */
  async sweep(): Promise<void> {
    const { clock, hub, commits } = this.services;
    const now = clock.now();
    for (const { id, invitation, roundId } of this.find.overdue(now - DEVICE_FIRST_MS)) {
      await commits.run(() => this.closeIfOpen(id, now));
      hub.tellOf(invitation, roundId);
    }
  }

  /** While the sweep went on to it, the candidate may have handed in, or been granted time. */
  private closeIfOpen(id: number, now: number): void {
    const time = this.services.time.of(id);
    if (time.closed === null && leftMs(time, now) === 0) this.close(id, 'server', now);
  }

  /** Closes as of `at`; scored at once when handed in, after the grace when the time closed it. */
  private close(id: number, by: ClosedBy, at: number, desk: Desk = deskOf(this.services, id)): void {
    const { db, clock, jobs, time } = this.services;
    db.transaction(() => {
      time.record(id, { type: 'closed', at, by });
      this.find.seal(id, receiptHashOf(this.services, id, desk));
      jobs.add('score', id, by === 'candidate' ? clock.now() : time.of(id).closed!.at + GRACE_MS);
    });
  }

  private refuseForeign({ paperId }: Current, entries: readonly Entry[]): void {
    const foreign = foreignEntries(findPaper(this.services.db, paperId)!.document, entries);
    if (foreign.length === 0) return;
    const refused = foreign.map(({ device, seq }) => ({ device, seq }));
    throw unreadable('Some answers cannot belong to this paper and were not taken.', { refused });
  }

  /** Writes entries, as part of a commit. */
  private write({ id, paperId }: Current, entries: readonly Entry[]): void {
    const { clock, time, db } = this.services;
    const paper = findPaper(db, paperId)!.document;
    const arrivedAt = clock.now();
    let late = false;
    for (const entry of entries) {
      const section = sectionOfTarget(paper, entry.target);
      if (section && entry.about === 'opened') this.enter(id, section, entry.at, arrivedAt);
      const standing = standingOf(time.of(id), { section, madeAt: entry.at, arrivedAt });
      late ||= standing === 'late';
      this.find.addEntry(rowOf(id, entry, arrivedAt, standing));
    }
    // Late entries that count belong to what was handed in when the time closed it.
    if (late && time.of(id).closed)
      db.update(sittings)
        .set({ receiptHash: receiptHashOf(this.services, id) })
        .where(eq(sittings.id, id))
        .run();
  }

  /** A section with a limit of its own is entered when one of its questions is first opened. */
  private enter(id: number, section: string, madeAt: number, arrivedAt: number): void {
    const { time } = this.services;
    const state = time.of(id);
    if (section in state.entered) return;
    const at = Math.max(Math.min(madeAt, arrivedAt), state.startedAt!);
    time.try(id, { type: 'section entered', at, section });
  }

  /** The sitting that was started last, running or closed; asked at every batch, so that it is kept at hand. */
  private currentOf(invitation: number): Current {
    const known = this.current.get(invitation);
    if (known) return known;
    const found = this.find.newestOf(invitation);
    if (!found) throw notRunning();
    const current = { id: found.sitting.id, roundId: found.roundId, paperId: found.paperId };
    if (this.current.size >= CURRENT_KEPT) this.current.clear();
    this.current.set(invitation, current);
    return current;
  }

  private running(invitation: number): FoundSitting {
    const found = this.find.newestOf(invitation);
    if (!found || found.sitting.closedAt !== null) throw notRunning();
    return found;
  }

  private copyFor(paperId: number, seed: string): string {
    return this.hashes.get(`${paperId}/${seed}`) ?? this.makeCopy(paperId, seed).hash;
  }

  private makeCopy(paperId: number, seed: string): { readonly hash: string; readonly packed: Buffer } {
    const text = JSON.stringify(buildCandidatePaper(findPaper(this.services.db, paperId)!.document, seed));
    const hash = sha256(text);
    const packed = this.copies.get(hash) ?? gzipSync(text);
    if (this.hashes.size > HASHES_KEPT) this.hashes.clear();
    if (this.copies.size > COPIES_KEPT) this.copies.clear();
    this.hashes.set(`${paperId}/${seed}`, hash);
    this.copies.set(hash, packed);
    return { hash, packed };
  }
}

const rowOf = (
  sittingId: number,
  entry: Entry,
  serverAt: number,
  standing: NewEntry['standing'],
): NewEntry => ({
  ...{ sittingId, device: entry.device, seq: entry.seq, about: entry.about, target: entry.target },
  ...{ value: JSON.stringify(entry.value), clientAt: entry.at, serverAt, standing },
});
