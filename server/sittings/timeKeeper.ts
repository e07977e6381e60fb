import { asc, eq, sql } from 'drizzle-orm';
import type { FullPaper } from '../../core/papers/paper';
import { MINUTE_MS } from '../../core/timing/deadline';
import {
  deadlineAt,
  foldTime,
  step,
  type Refusal,
  type SittingTime,
  type TimeEvent,
  type TimeTerms,
} from '../../core/timing/sittingTime';
import type { Db } from '../db/open';
import { invitations, rounds, sittings, timeEvents } from '../db/schema';
import { conflict } from '../http/errors';
import { paperOfVersion } from '../papers/papers';
import { sittingQueries } from './queries';

/** Who changed a sitting's time, and why, for the record; null for the candidate and the server itself. */
export interface Cause {
  readonly staffId: number | null;
  readonly reason: string;
}

export const byItself: Cause = { staffId: null, reason: '' };

const KEPT = 20_000;

export function termsOf(
  paper: FullPaper,
  invitation: { extraPercent: number; arrangements: { breakMinutes: number } },
): TimeTerms {
  const limited = paper.sections.flatMap((s) => (s.minutes === null ? [] : [[s.key, s.minutes * MINUTE_MS]]));
  return {
    limitMs: paper.minutes * MINUTE_MS,
    extraPercent: invitation.extraPercent,
    breakMs: invitation.arrangements.breakMinutes * MINUTE_MS,
    sectionLimitsMs: Object.fromEntries(limited) as Record<string, number>,
  };
}

/** Keeps the record of each sitting's time, and its present state at hand: the journal asks for it at every batch. */
export class TimeKeeper {
  private readonly db: Db;
  private readonly known = new Map<number, SittingTime>();
  private readonly find;
  private readonly events;
  private readonly terms;
  /** Made once: every start and every hand-in needs one. */
  private readonly inTransaction: (work: () => void) => void;

  constructor(db: Db) {
    this.db = db;
    this.find = sittingQueries(db);
    this.inTransaction = db.$client.transaction((work: () => void) => work());
    this.events = db
      .select({ event: timeEvents.event })
      .from(timeEvents)
      .where(eq(timeEvents.sittingId, sql.placeholder('sitting')))
      .orderBy(asc(timeEvents.id))
      .prepare();
    this.terms = db
      .select({ invitation: invitations, paperVersionId: rounds.paperVersionId })
      .from(sittings)
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .innerJoin(rounds, eq(rounds.id, invitations.roundId))
      .where(eq(sittings.id, sql.placeholder('sitting')))
      .prepare();
  }

  of(sitting: number): SittingTime {
    const known = this.known.get(sitting);
    if (known) return known;
    const { invitation, paperVersionId } = this.terms.get({ sitting })!;
    const events = this.events.all({ sitting }).map((row) => row.event);
    return this.remember(
      sitting,
      foldTime(termsOf(paperOfVersion(this.db, paperVersionId), invitation), events),
    );
  }

  /** Records an event if it can happen; the sitting's row follows. Tells what stood in the way otherwise. */
  try(sitting: number, event: TimeEvent, { staffId, reason }: Cause = byItself): Refusal | null {
    const next = step(this.of(sitting), event);
    if (!next.done) return next.refusal;
    this.inTransaction(() => {
      this.find.addEvent({ sittingId: sitting, at: event.at, event, staffId, reason });
      this.project(sitting, next.time, event.at);
    });
    this.remember(sitting, next.time);
    return null;
  }

  /** As `try`, for acts of people: what stands in the way is told in a sentence. */
  record(sitting: number, event: TimeEvent, cause?: Cause): SittingTime {
    const refusal = this.try(sitting, event, cause);
    if (refusal) throw conflict(`time-${refusal.replace(/ /g, '-')}`);
    return this.of(sitting);
  }

  /** Forgets what is at hand; the record is read again. */
  forget(): void {
    this.known.clear();
  }

  private project(sitting: number, time: SittingTime, now: number): void {
    const { startedAt, closed } = time;
    this.find.project(sitting, {
      startedAt,
      deadlineAt: deadlineAt(time, now),
      closedAt: closed?.at ?? null,
      closedBy: closed?.by ?? null,
    });
  }

  private remember(sitting: number, time: SittingTime): SittingTime {
    if (this.known.size >= KEPT) this.known.clear();
    this.known.set(sitting, time);
    return time;
  }
}

export interface HasTime {
  readonly time: TimeKeeper;
}
