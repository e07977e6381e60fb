import { and, eq, gt, lt } from 'drizzle-orm';
import type { Head } from '../../core/journal/chain';
import type {
  AnswerVersion,
  EnterBody,
  EnterReply,
  HandInBody,
  HandInReply,
  HoldBody,
  HoldReply,
  JournalBatch,
  JournalKept,
  PlayBody,
  PlayReply,
  Prepared,
  SittingKeys,
  SittingOpened,
} from '../../core/sittings/api';
import { allowedBy, isWithin } from '../../core/journal/allowance';
import { SILENCE_MS } from '../../core/timing/deadline';
import { saveWaitMs } from '../../core/timing/saving';
import { isOver, timeViewOf } from '../../core/timing/sittingTime';
import { arrivalStateOf } from '../candidates/state';
import { openSitting } from '../candidates/queries';
import { journal, sittings } from '../db/schema';
import { fixForm, keysOf, sealedBytes, sealedListing } from '../forms/forms';
import { ApiError, conflict, notFound } from '../http/errors';
import { newSecret, scriptCode } from '../secrets';
import type { Outbox } from '../mail/outbox';
import { observe } from '../observations/observations';
import { paperOfVersion } from '../papers/papers';
import { Closing } from './closing';
import { grantOf, Holds, type HoldState } from './holds';
import { JournalWriter, type Written } from './journalWriter';
import { countedOf, Plays } from './plays';
import { findSitting, sittingQueries } from './queries';
import { receiptOf } from './receipts';
import { deskOf } from './values';
import { versionsOf } from './versions';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLoad } from '../machine/loadMeter';
import type { HasLog } from '../machine/log';
import type { HasMedia } from '../media/sealedMedia';
import type { HasTime } from './timeKeeper';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasTime,
    HasHub,
    HasLog,
    HasMedia,
    HasJobs,
    HasSecret,
    HasLoad {}

const notRunning = () => conflict('no-sitting');
const tooMuchWriting = () => new ApiError(429, 'too-much-writing');
const unknownHold = () => conflict('hold-unknown');

/** Room for the device to hand in by itself at the deadline before the server does it. */
const DEVICE_FIRST_MS = 3000;
/** Given-back time of less than this goes without an observation: it is that of a request's own way. */
const WORTH_NOTING_MS = 1000;
/** Nobody opens a test so often; each opening is looked through when the sitting is judged. */
const MOST_HOLDS = 500;
const CURRENT_KEPT = 50_000;

/** What never changes of a started sitting. */
interface Current {
  readonly id: number;
  readonly invitation: number;
  readonly roundId: number;
  readonly paperVersionId: number;
  readonly formId: number;
}

/** The way of a sitting on the server: prepared, started, journalled, closed. */
export class SittingOperations {
  readonly closing: Closing;
  readonly holds: Holds;
  private readonly services: Needs;
  private readonly find;
  private readonly writer: JournalWriter;
  private readonly plays: Plays;
  private readonly current = new Map<number, Current>();

  constructor(services: Needs, outbox: Outbox) {
    this.services = services;
    this.find = sittingQueries(services.db);
    this.holds = new Holds(services.db);
    this.plays = new Plays(services.db);
    this.writer = new JournalWriter(services.db, this.holds);
    this.closing = new Closing(services, this.holds, outbox);
    services.commits.onTakenBack(() => this.holds.forget());
  }

  /** Fixes the form of the coming attempt and lists its sealed copies. Costs no time. */
  async prepare(invitation: number): Promise<Prepared> {
    const { db, secret, commits, media } = this.services;
    const { stage, attempt, invited } = arrivalStateOf(this.services, invitation);
    if (stage.at !== 'running' && !(stage.at === 'arriving' && stage.step === 'cover'))
      throw conflict('not-ready');
    const fix = () => {
      // Asked again inside the commit: a second call of the same moment finds the form of the first.
      const known = openSitting(db, invitation);
      if (known) return known.formId;
      const script = scriptCode(secret, `${invitation}/${attempt}`);
      const formId = fixForm(db, invited.round.paperVersionId, {
        seed: newSecret(),
        locale: invited.round.settings.locale,
        transcripts: invited.invitation.arrangements.transcripts,
        aids: invited.invitation.arrangements.aids,
      });
      const deviceName = newSecret();
      db.insert(sittings).values({ invitationId: invitation, attempt, formId, script, deviceName }).run();
      return formId;
    };
    await media.seal(invited.round.id);
    const formId = openSitting(db, invitation)?.formId ?? (await commits.run(fix));
    return { sealed: sealedListing(db, formId), media: media.listing(invited.round.id, formId) };
  }

  /** Where the sealed bytes of a file of media lie; only while a sitting of this candidate is prepared or running. */
  media(invitation: number, hash: string): string {
    const { db, media } = this.services;
    if (!openSitting(db, invitation)) throw notRunning();
    const path = media.find(arrivalStateOf(this.services, invitation).invited.round.id, hash);
    if (path === null) throw notFound('noCopy');
    return path;
  }

  /** A sealed copy by its hash; only while a sitting of this candidate is prepared or running. */
  sealed(invitation: number, hash: string): Buffer {
    const { db } = this.services;
    const sitting = openSitting(db, invitation);
    if (!sitting) throw notRunning();
    const bytes = sealedBytes(db, sitting.formId, hash);
    if (!bytes) throw notFound('noCopy');
    return bytes;
  }

  /**
   * Starts the clock, once; the device has shown by the hashes that the whole sealed paper is on it. The key comes with
   * the reply, as often as it is asked for by the same store.
   */
  async start(
    invitation: number,
    hashes: readonly string[],
    who: HoldBody,
    agent: string,
  ): Promise<HoldReply> {
    const { db, clock, commits, time, hub } = this.services;
    const { invited, stage, arrival } = arrivalStateOf(this.services, invitation);
    if (stage.at === 'running') return this.hold(invitation, who, agent);
    const sitting = openSitting(db, invitation);
    if (!sitting || stage.at !== 'arriving' || stage.step !== 'cover') throw notRunning();
    const wanted = [
      ...sealedListing(db, sitting.formId),
      ...this.services.media.listing(invited.round.id, sitting.formId),
    ];
    if (wanted.some((copy) => !hashes.includes(copy.hash))) throw conflict('paper-incomplete');
    await commits.save(() => {
      const now = clock.now();
      if (time.try(sitting.id, { type: 'started', at: now })) return;
      this.grant(sitting.id, who, agent);
      for (const { name, outcome } of arrival?.checks ?? [])
        if (outcome !== 'good')
          observe(db, sitting.id, { kind: 'check', from: now, to: now, facts: { name, outcome } });
    });
    this.current.delete(invitation);
    hub.noteContact(invitation, clock.now());
    hub.tellOf(invitation, invited.round.id);
    return this.hold(invitation, who, agent);
  }

  /**
   * Grants the right to write to a browser store that has none: where nobody was heard of lately, where the candidate
   * takes it over, or where the store had it and has lost what it kept. Asked again by the store that has just got it, the
   * reply is the same.
   */
  async hold(invitation: number, who: HoldBody, agent: string): Promise<HoldReply> {
    const { commits, hub, clock } = this.services;
    const current = this.running(invitation);
    const holder = this.holds.current(current.id);
    const own = holder?.store === who.store;
    if (own && holder.last === 0) return { granted: true, opened: this.opened(current, holder) };
    const heard = clock.now() - (hub.heardAt(invitation) ?? 0) < SILENCE_MS;
    if (holder && heard && !own && !who.takeOver) return { granted: false };
    if (holder && holder.number >= MOST_HOLDS) throw conflict('too-many-holds');
    const state = await commits.save(() => this.grant(current.id, who, agent));
    hub.noteContact(invitation, clock.now());
    hub.tellOf(invitation, current.roundId);
    return { granted: true, opened: this.opened(current, state) };
  }

  /** Keeps a batch; without entries it only says that the device is there and how far it has written. */
  async keep(invitation: number, batch: JournalBatch): Promise<JournalKept> {
    const { commits, hub } = this.services;
    const current = this.currentOf(invitation);
    const written = await commits.save(() => this.take(current, batch));
    if (batch.entries.length > 0) hub.tell(`round ${current.roundId}`, invitation, 'progress');
    return this.kept(current, batch.head, written);
  }

  /** Records that a section with a limit of its own was entered, which starts its clock, and gives its key. */
  async enter(invitation: number, { section, ...batch }: EnterBody): Promise<EnterReply> {
    const { commits, time, clock, hub } = this.services;
    const current = this.currentOf(invitation);
    if (!(section in time.of(current.id).terms.sectionLimitsMs)) throw notFound('noSection');
    const written = await commits.save(() => {
      const done = this.take(current, batch);
      if (!(section in time.of(current.id).entered))
        time.record(current.id, { type: 'section entered', at: clock.now(), section });
      return done;
    });
    hub.tellOf(invitation, current.roundId);
    return { ...this.kept(current, batch.head, written), keys: this.keysOf(current) };
  }

  /** Takes what was written, uses of plays among it, and grants the next play of a recording where one is left. */
  async play(invitation: number, { file, ...batch }: PlayBody): Promise<PlayReply> {
    const { commits, time, clock, db } = this.services;
    const current = this.currentOf(invitation);
    const paper = paperOfVersion(db, current.paperVersionId);
    if (!countedOf(paper).has(file)) throw notFound('noRecording');
    let number: number | null = null;
    const written = await commits.save(() => {
      const done = this.take(current, batch);
      const hold = this.holds.named(current.id, batch.head)!;
      const open = time.of(current.id).closed === null && this.holds.current(current.id) === hold;
      const asked = { sitting: current.id, paper, file, hold: hold.number, now: clock.now() };
      number = open ? this.plays.grant(asked) : null;
      return done;
    });
    const plays = this.plays.countsOf(current.id, paper);
    return { ...this.kept(current, batch.head, written), number, plays };
  }

  /** Takes what was written before the desk was lost, and the play of a recording that was not used until then. */
  async returnPlay(invitation: number, { file, ...batch }: PlayBody): Promise<JournalKept> {
    const { commits, clock, db, hub } = this.services;
    const current = this.currentOf(invitation);
    if (!countedOf(paperOfVersion(db, current.paperVersionId)).has(file)) throw notFound('noRecording');
    const written = await commits.save(() => {
      const done = this.take(current, batch);
      const hold = this.holds.named(current.id, batch.head)!;
      // While a device has the desk, it uses what it holds.
      if (this.holds.current(current.id) !== hold)
        this.plays.returnUnused({ sitting: current.id, file, hold: hold.number, now: clock.now() });
      return done;
    });
    hub.tellOf(invitation, current.roundId);
    return this.kept(current, batch.head, written);
  }

  private keysOf({ id, formId, roundId }: Current): SittingKeys {
    const { db, time, media } = this.services;
    const entered = Object.keys(time.of(id).entered);
    return { paper: keysOf(db, formId, entered), media: media.keys(roundId, entered) };
  }

  /**
   * Takes the last entries and closes the sitting: at once where the candidate says so, at the deadline where the device
   * does. Handing in again gives the newest receipt; before the deadline the reply names the deadline instead.
   */
  async handIn(invitation: number, { by, claimedAt, ...batch }: HandInBody): Promise<HandInReply> {
    const { clock, time, db, commits, hub } = this.services;
    const current = this.currentOf(invitation);
    const { id } = current;
    const written = await commits.save(() => {
      const done = this.take(current, batch);
      const state = time.of(id);
      const due = by === 'candidate' || isOver(state, clock.now());
      if (state.closed === null && due) {
        this.closing.close(id, by);
        this.find.claimHandIn(id, Math.round(claimedAt));
      }
      return done;
    });
    hub.tellOf(invitation, current.roundId);
    const reply = this.kept(current, batch.head, written);
    const outstanding = !reply.closed || reply.held < batch.head.number;
    return { ...reply, receipt: outstanding ? null : receiptOf(this.services, findSitting(db, id)!) };
  }

  /** A rest break that the candidate asks for: it begins with the head in the request. */
  async takeBreak(invitation: number, batch: JournalBatch): Promise<JournalKept> {
    const { commits, time, clock, hub } = this.services;
    const current = this.currentOf(invitation);
    const written = await commits.save(() => {
      const done = this.take(current, batch);
      time.record(current.id, { type: 'break began', at: clock.now() });
      return done;
    });
    hub.tellOf(invitation, current.roundId);
    return this.kept(current, batch.head, written);
  }

  /** Earlier versions of an answer, newest first. */
  versions(invitation: number, target: string): AnswerVersion[] {
    return versionsOf(this.services.db, this.currentOf(invitation).id, target);
  }

  /** Closes sittings whose time is over and of which nothing was heard. */
  async sweep(): Promise<void> {
    const { clock, hub, commits, log } = this.services;
    const now = clock.now();
    for (const { id, invitation, roundId } of this.find.overdue(now - DEVICE_FIRST_MS)) {
      try {
        await commits.run(() => this.closeIfOpen(id));
        hub.tellOf(invitation, roundId);
      } catch (error) {
        // One that cannot be closed keeps no other open.
        log.error({ err: error, sitting: id }, 'a sitting could not be closed');
      }
    }
  }

  /** While the sweep went on to it, the candidate may have handed in, or been granted time. */
  private closeIfOpen(id: number): void {
    const time = this.services.time.of(id);
    if (time.closed === null && isOver(time, this.services.clock.now())) this.closing.close(id, 'server');
  }

  /** Writes a batch and takes up what follows from it; part of a commit. */
  private take(current: Current, { head, opening, entries }: JournalBatch): Written {
    const { db, clock, time, hub } = this.services;
    const hold = this.holds.named(current.id, head);
    if (!hold) throw unknownHold();
    const now = clock.now();
    // Refused as a whole, before anything is written: the device keeps it, waits longer and longer, and sends it again.
    if (!isWithin(this.holds.written(current.id), allowedBy(time.of(current.id), now)))
      throw tooMuchWriting();
    this.noteLine(current, hold, opening, now);
    hub.noteContact(current.invitation, now);
    this.confirm(current.id, head, now);
    const paper = paperOfVersion(db, current.paperVersionId);
    const { id: sitting, formId } = current;
    const meeting = { sitting, formId, paper, time: time.of(sitting), hold, now };
    const written = this.writer.write(meeting, { head, entries });
    const closed = time.of(current.id).closed !== null;
    if (closed) {
      if (entries.length > 0 || findSitting(db, current.id)!.settledAt === null)
        this.closing.settle(current.id);
    } else if (!written.plain) this.closing.rejudge(current.id);
    return written;
  }

  /** What a request says by its coming: a page that was reloaded, a connection that was lost. */
  private noteLine({ id }: Current, hold: HoldState, opening: string, now: number): void {
    const { db } = this.services;
    const facts = { hold: hold.number };
    if (hold.opening !== opening) {
      hold.opening = opening;
      observe(db, id, { kind: 'reload', from: now, to: now, facts });
    }
    const { seenAt } = hold;
    if (seenAt !== null && now - seenAt > SILENCE_MS)
      observe(db, id, { kind: 'connection gap', from: seenAt, to: now, facts });
    hold.seenAt = now;
  }

  /** A head that names a time after a start, an entering or the end of a stop shows that the device has heard of it. */
  private confirm(id: number, { heard }: Head, now: number): void {
    const { db, time } = this.services;
    const before = time.of(id);
    if (!before.unconfirmed.some((u) => u.at <= heard)) return;
    if (time.try(id, { type: 'confirmed', at: now, heard: Math.min(heard, now) })) return;
    const ms = time.of(id).givenBackMs - before.givenBackMs;
    if (ms >= WORTH_NOTING_MS)
      observe(db, id, { kind: 'time given back', from: now - ms, to: now, facts: { ms } });
  }

  private grant(id: number, { store, opening }: HoldBody, agent: string): HoldState {
    const { db, clock } = this.services;
    const now = clock.now();
    const before = this.holds.current(id);
    const state = this.holds.grant(id, { store, opening, agent }, now);
    if (!before) return state;
    const facts = { hold: state.number };
    observe(db, id, { kind: 'second hold', from: now, to: now, facts });
    if (before.agent !== agent) observe(db, id, { kind: 'device changed', from: now, to: now, facts });
    return state;
  }

  private opened(current: Current, state: HoldState): SittingOpened {
    const { db, clock, time } = this.services;
    const now = clock.now();
    const own = time.of(current.id);
    return {
      sitting: findSitting(db, current.id)!.deviceName,
      now,
      time: timeViewOf(own, now),
      sealed: sealedListing(db, current.formId),
      media: this.services.media.listing(current.roundId, current.formId),
      keys: this.keysOf(current),
      hold: grantOf(state),
      desk: deskOf(this.find.currentOf(current.id)),
      otherVersions: this.otherVersions(current.id),
      plays: this.plays.countsOf(current.id, paperOfVersion(db, current.paperVersionId)),
    };
  }

  private kept({ id }: Current, head: Head, { refused, renew }: Written): JournalKept {
    const { clock, time, load, config } = this.services;
    const now = clock.now();
    const state = time.of(id);
    const hold = this.holds.named(id, head)!;
    return {
      now,
      time: timeViewOf(state, now),
      held: hold.chain.whole,
      current: this.holds.current(id) === hold,
      closed: state.closed !== null,
      renew,
      refused,
      otherVersions: this.otherVersions(id),
      nextSaveMs: saveWaitMs(load.utilization, config.saveSeconds * 1000),
    };
  }

  /** Answers that an earlier hold sent after the current one was granted: the candidate may choose. */
  private otherVersions(id: number): string[] {
    const state = this.holds.current(id);
    if (!state || state.number === 1) return [];
    const late = and(
      eq(journal.sittingId, id),
      eq(journal.about, 'answer'),
      lt(journal.hold, state.number),
      gt(journal.arrivedAt, state.grantedAt),
    );
    return this.services.db
      .selectDistinct({ target: journal.target })
      .from(journal)
      .where(late)
      .all()
      .map((row) => row.target);
  }

  /** The sitting that was started last, running or closed; asked at every batch, so that it is kept at hand. */
  private currentOf(invitation: number): Current {
    const known = this.current.get(invitation);
    if (known) return known;
    const found = this.find.newestOf(invitation);
    if (!found) throw notRunning();
    const { sitting, roundId, paperVersionId } = found;
    const current = { id: sitting.id, invitation, roundId, paperVersionId, formId: sitting.formId };
    if (this.current.size >= CURRENT_KEPT) this.current.clear();
    this.current.set(invitation, current);
    return current;
  }

  private running(invitation: number): Current {
    const current = this.currentOf(invitation);
    if (this.services.time.of(current.id).closed !== null) throw notRunning();
    return current;
  }
}
