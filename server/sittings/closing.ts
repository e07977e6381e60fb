import { and, desc, eq, isNull, lte, sql } from 'drizzle-orm';
import type { Judged } from '../../core/journal/judge';
import { counts } from '../../core/journal/judge';
import { receiptCode } from '../../core/journal/receipt';
import type { DecisionFacts, DecisionKind } from '../../core/rounds/decisions';
import type { ClosedBy } from '../../core/sittings/api';
import { BYTES_MS, PAGES_MS } from '../../core/timing/deadline';
import { paperEndAt, sectionEndAt } from '../../core/timing/sittingTime';
import { findInvited, paperOf } from '../candidates/queries';
import { perDatabase } from '../db/perDatabase';
import { decisions, observations, pages, sittings } from '../db/schema';
import { subjectsOf } from '../candidates/jobSubjects';
import type { Outbox } from '../mail/outbox';
import { observe } from '../observations/observations';
import type { Holds, HoldState } from './holds';
import { judge, storeWinners, type Judging } from './judging';
import { pagesAwaited } from './pages';
import { findSitting, sittingQueries, type Sitting } from './queries';
import { makeReceipt, newestReceipt } from './receipts';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasClock } from '../machine/clock';
import type { HasTime } from './timeKeeper';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasCommits, HasTime, HasJobs {}

/** Asked at every hand-in. */
const queriesOf = perDatabase((db) => {
  const id = sql.placeholder('id');
  return {
    undecided: db
      .select({ id: decisions.id })
      .from(decisions)
      .where(and(eq(decisions.sittingId, id), isNull(decisions.decidedAt)))
      .limit(1)
      .prepare(),
    aboutPages: db
      .select()
      .from(decisions)
      .where(and(eq(decisions.sittingId, id), eq(decisions.kind, 'late-pages')))
      .orderBy(desc(decisions.id))
      .limit(1)
      .prepare(),
    /** Without a target: any of the sitting. */
    outOfTurn: db
      .select({ id: observations.id })
      .from(observations)
      .where(
        and(
          eq(observations.sittingId, id),
          eq(observations.kind, 'out of turn'),
          sql`coalesce(json_extract(${observations.facts}, '$.target') = ${sql.placeholder('target')}, true)`,
        ),
      )
      .limit(1)
      .prepare(),
    settled: db
      .update(sittings)
      .set({ settledAt: sql`${sql.placeholder('at')}` })
      .where(eq(sittings.id, id))
      .prepare(),
    unscored: db.update(sittings).set({ scoredAt: null }).where(eq(sittings.id, id)).prepare(),
  };
});

/** What closes a sitting, and what becomes of it until nothing that counts can come any more. */
export class Closing {
  private readonly services: Needs;
  private readonly holds: Holds;
  private readonly outbox: Outbox;

  constructor(services: Needs, holds: Holds, outbox: Outbox) {
    [this.services, this.holds, this.outbox] = [services, holds, outbox];
    const { jobs, commits, db } = services;
    const { sitting: script } = subjectsOf(db);
    jobs.handle('settle', 'settling', (sitting) => commits.run(() => this.settle(sitting)), script);
    jobs.handle('pages', 'settling', (sitting) => commits.run(() => this.pagesChanged(sitting)), script);
  }

  judging(sitting: Sitting): Judging {
    const { db, time } = this.services;
    const paper = paperOf(db, findInvited(db, sitting.invitationId)!);
    const { id, formId } = sitting;
    return { db, holds: this.holds, sitting: id, formId, paper, time: time.of(id) };
  }

  /** Closes a sitting now, and makes the receipt of what it holds; part of a commit. */
  close(id: number, by: ClosedBy, cause?: { readonly staffId: number; readonly reason: string }): void {
    const { db, clock, jobs, time } = this.services;
    const now = clock.now();
    time.record(id, { type: 'closed', at: now, by }, cause);
    if (!this.simple(id)) this.rejudge(id);
    makeReceipt(db, id, { at: now, reason: 'handed in' });
    jobs.add('settle', id, time.of(id).closed!.at + BYTES_MS + 1);
  }

  /** Judges all entries again and makes the winners current; part of a commit. */
  rejudge(id: number): Judged {
    const { db, clock } = this.services;
    const judging = this.judging(findSitting(db, id)!);
    const now = clock.now();
    const judged = judge(judging, now);
    storeWinners(judging, judged);
    for (const { target, hold } of judged.outOfTurn)
      if (!queriesOf(db).outOfTurn.get({ id, target }))
        observe(db, id, { kind: 'out of turn', from: now, to: now, facts: { target, hold } });
    return judged;
  }

  /** After a decision: the answers as decided, and a receipt of its own; part of a commit. */
  decided(id: number): void {
    const { db, clock } = this.services;
    const before = newestReceipt(db, id)?.id;
    this.takePages(id);
    this.rejudge(id);
    if (makeReceipt(db, id, { at: clock.now(), reason: 'decision' }).id !== before) this.sendReceipt(id);
    this.scoreWhenDecided(id);
  }

  /**
   * Takes up what has come since the closing; part of a commit. Settled is a sitting of which nothing that counts can
   * come any more: every hold has shown so, or the time for bytes is over.
   */
  settle(id: number): void {
    const { db, clock, time } = this.services;
    const sitting = findSitting(db, id);
    const end = sitting && time.of(id).closed?.at;
    if (!sitting || end == null) return;
    const now = clock.now();
    const overdue = now > end + BYTES_MS;
    if (this.simple(id)) {
      if (sitting.settledAt === null && (overdue || this.allFinal(id, end))) this.settled(sitting, null);
      return;
    }
    const judged = this.rejudge(id);
    if (judged.complete || overdue) makeReceipt(db, id, { at: now, reason: 'late entries counted' });
    if (sitting.settledAt !== null) {
      this.openDecisions(id, judged);
      this.scoreWhenDecided(id);
    } else if (overdue || judged.final) this.settled(sitting, judged);
  }

  /** Nothing about this sitting needs judging: all it holds came plainly in time. */
  private simple(id: number): boolean {
    const { clock, time } = this.services;
    const state = time.of(id);
    const now = clock.now();
    const end = paperEndAt(state, now) ?? now;
    const sectionEnded = Object.keys(state.entered).some((s) => sectionEndAt(state, s, now) !== null);
    const plain = (hold: HoldState) =>
      !hold.chain.broken &&
      hold.lastEntryAt <= end &&
      hold.announced <= hold.chain.whole &&
      hold.last <= hold.chain.whole;
    const outOfTurn = queriesOf(this.services.db).outOfTurn.get({ id, target: null });
    return state.stops.length === 0 && !sectionEnded && !outOfTurn && this.holds.of(id).every(plain);
  }

  private allFinal(id: number, end: number): boolean {
    const find = sittingQueries(this.services.db);
    return this.holds
      .of(id)
      .every(({ number, announced }) =>
        find
          .headsAt({ sitting: id, hold: number }, announced)
          .some((head) => head.checked && head.heard >= end),
      );
  }

  private settled({ id }: Sitting, judged: Judged | null): void {
    const { db, clock } = this.services;
    queriesOf(db).settled.run({ id, at: clock.now() });
    if (judged) {
      this.observeJudged(id, judged);
      this.openDecisions(id, judged);
    }
    this.sendReceipt(id);
    this.scoreWhenDecided(id);
  }

  private observeJudged(id: number, { silences, missing }: Judged): void {
    const { db, clock } = this.services;
    const now = clock.now();
    for (const { hold, from, to, across } of silences)
      observe(db, id, { kind: 'silence', from, to, facts: { hold, across } });
    for (const { hold, from, to } of missing)
      observe(db, id, {
        kind: 'missing-entries',
        from: now,
        to: now,
        facts: { hold, first: from, last: to },
      });
  }

  /** Puts before a coordinator what only a person can decide, each thing once. */
  private openDecisions(id: number, judged: Judged): void {
    const { db, clock } = this.services;
    const known = db.select().from(decisions).where(eq(decisions.sittingId, id)).all();
    const open = (kind: DecisionKind, target: string, facts: DecisionFacts) =>
      db.insert(decisions).values({ sittingId: id, kind, target, facts, openedAt: clock.now() }).run();
    const isKnown = (kind: DecisionKind, target: string) =>
      known.some((d) => d.kind === kind && d.target === target);
    const late = lateFacts(judged);
    const undecided = known.find((d) => d.kind === 'late-entries' && d.decidedAt === null);
    if (late && !undecided) open('late-entries', '', late);
    else if (late && undecided)
      db.update(decisions).set({ facts: late }).where(eq(decisions.id, undecided.id)).run();
    if (judged.missing.length > 0 && !isKnown('missing-entries', '')) {
      const count = judged.missing.reduce((sum, { from, to }) => sum + to - from + 1, 0);
      open('missing-entries', '', { count });
    }
    for (const { target, hold, number } of judged.outOfTurn)
      if (!isKnown('out-of-turn', target)) open('out-of-turn', target, { other: { hold, number } });
    for (const { entry, without, rival } of judged.winners.values()) {
      if (entry.about !== 'answer') continue;
      if (without !== undefined && !isKnown('writing-in-stop', entry.target))
        open('writing-in-stop', entry.target, {});
      if (rival && !isKnown('two-versions', entry.target))
        open('two-versions', entry.target, { other: { hold: rival.hold, number: rival.number } });
    }
  }

  /** A page is complete, or the time for pages is over; part of a commit. */
  pagesChanged(id: number): void {
    if (findSitting(this.services.db, id)?.settledAt != null) this.scoreWhenDecided(id);
  }

  /** Whether marking waits for pages; those that came too late, or never, are put before a coordinator. */
  private waitsForPages({ id, closedAt }: Sitting): boolean {
    const { db, clock, jobs } = this.services;
    const { missing, late } = pagesAwaited(db, id);
    const due = closedAt! + PAGES_MS;
    if (missing > 0 && clock.now() <= due) {
      jobs.add('pages', id, due + 1);
      return true;
    }
    const known = queriesOf(db).aboutPages.get({ id });
    const facts = { count: missing, late: late.length };
    const decidedAt = known?.decidedAt ?? null;
    if (known && decidedAt === null)
      db.update(decisions).set({ facts }).where(eq(decisions.id, known.id)).run();
    else if (known ? late.some((page) => page.completedAt! > decidedAt!) : missing + late.length > 0)
      db.insert(decisions)
        .values({ sittingId: id, kind: 'late-pages', target: '', facts, openedAt: clock.now() })
        .run();
    return false;
  }

  /** Counts the late pages that a coordinator has taken: those that were there when it was decided. */
  private takePages(id: number): void {
    const { db } = this.services;
    const about = queriesOf(db).aboutPages.get({ id });
    if (about?.choice !== 'take') return;
    const come = and(eq(pages.sittingId, id), lte(pages.completedAt, about.decidedAt!));
    db.update(pages).set({ late: false }).where(come).run();
  }

  /** A script goes on to scoring and marking once nothing about it is undecided and all its pages are here. */
  private scoreWhenDecided(id: number): void {
    const { db, jobs } = this.services;
    if (this.waitsForPages(findSitting(db, id)!)) return;
    if (queriesOf(db).undecided.get({ id })) return;
    queriesOf(db).unscored.run({ id });
    jobs.add('score', id);
  }

  private sendReceipt(id: number): void {
    const { db, config } = this.services;
    const sitting = findSitting(db, id)!;
    const { person, round, invitation } = findInvited(db, sitting.invitationId)!;
    const facts = {
      kind: 'receipt' as const,
      organisation: config.organisation,
      name: person.name,
      title: round.title,
      closedAt: sitting.closedAt!,
      timeZone: invitation.timeZone ?? round.timeZone,
      code: receiptCode(newestReceipt(db, id)!.hash),
      resultBy: round.settings.resultBy,
      help: round.settings.help,
    };
    this.outbox.put({ invitationId: invitation.id, to: person.email, facts });
  }
}

/** The entries that wait for a coordinator, in figures; null where there are none. */
function lateFacts({ verdicts }: Judged): DecisionFacts | null {
  const waiting = verdicts.filter((v) => v.standing === 'waiting' && !counts(v));
  if (waiting.length === 0) return null;
  const made = waiting.map((v) => v.at);
  const arrived = waiting.map((v) => v.entry.arrivedAt);
  return {
    count: waiting.length,
    upTo: Math.max(...waiting.map((v) => v.entry.order)),
    madeFrom: Math.min(...made),
    madeTo: Math.max(...made),
    arrivedFrom: Math.min(...arrived),
    arrivedTo: Math.max(...arrived),
  };
}
