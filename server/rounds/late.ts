import { and, eq, inArray } from 'drizzle-orm';
import { foldJournal } from '../../core/journal/fold';
import type { KeptEntry } from '../../core/journal/entry';
import { kindOf } from '../../core/kinds/registry';
import { allParts, type FullPaper } from '../../core/papers/paper';
import type { LateArrivals } from '../../core/rounds/api';
import { answerToScore } from '../../core/scoring/scoreSitting';
import { candidates, invitations, journal, rounds, sittings } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import type { Services } from '../services';
import { sittingQueries } from '../sittings/queries';
import { receiptHashOf } from '../sittings/receipt';
import { findPaper } from './queries';
import { record } from './record';

const asCounted = (entry: KeptEntry): KeptEntry =>
  entry.standing === 'waiting' ? { ...entry, standing: 'late' } : entry;

function changesOf(paper: FullPaper, entries: readonly KeptEntry[]): LateArrivals['changes'] {
  const [counted, late] = [foldJournal(entries), foldJournal(entries.map(asCounted))];
  return allParts(paper).flatMap((place) => {
    const kind = kindOf(place.part.kind);
    const shown = kind.show(place.part.content);
    const text = (answers: Readonly<Record<string, unknown>>) =>
      kind.asText(shown, answerToScore(answers, place)).slice(0, 400);
    const [before, after] = [text(counted.answers), text(late.answers)];
    return before === after ? [] : [{ question: place.item.title, counted: before, late: after }];
  });
}

/** Sittings of a round with entries that came after the grace: what they are, and what they would change. */
export function lateArrivals({ db }: Services, roundId: number): LateArrivals[] {
  const found = db
    .selectDistinct({ sitting: sittings, candidate: candidates, paperId: rounds.paperId })
    .from(journal)
    .innerJoin(sittings, eq(sittings.id, journal.sittingId))
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .innerJoin(candidates, eq(candidates.id, invitations.candidateId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(and(eq(invitations.roundId, roundId), eq(journal.standing, 'waiting')))
    .all();
  return found.map(({ sitting, candidate, paperId }) => {
    const waiting = db
      .select()
      .from(journal)
      .where(and(eq(journal.sittingId, sitting.id), eq(journal.standing, 'waiting')))
      .all();
    const [made, arrived] = [waiting.map((e) => e.clientAt), waiting.map((e) => e.serverAt)];
    return {
      sitting: sitting.id,
      name: candidate.name,
      reference: candidate.reference,
      deadlineAt: sitting.closedAt ?? sitting.deadlineAt!,
      count: waiting.length,
      madeFrom: Math.min(...made),
      madeTo: Math.max(...made),
      arrivedFrom: Math.min(...arrived),
      arrivedTo: Math.max(...arrived),
      changes: changesOf(findPaper(db, paperId)!.document, sittingQueries(db).entriesOf(sitting.id)),
    };
  });
}

export interface LateDecision {
  readonly sitting: number;
  readonly count: boolean;
  readonly reason: string;
}

/**
 * A coordinator decides about late arrivals: counted, the script is scored again with them; left out, they stay in the
 * journal all the same. Either way with a reason on record.
 */
export function decideLate(
  services: Services,
  staffId: number,
  roundId: number,
  decision: LateDecision,
): void {
  const { db, jobs } = services;
  const found = db
    .select({ sitting: sittings, signedOffAt: rounds.signedOffAt })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(and(eq(sittings.id, decision.sitting), eq(rounds.id, roundId)))
    .get();
  if (!found) throw notFound('This sitting');
  if (found.signedOffAt !== null)
    throw conflict('signed-off', 'The marks of this round are signed off; nothing was changed.');
  const { id, invitationId } = found.sitting;
  db.transaction(() => {
    db.update(journal)
      .set({ standing: decision.count ? 'late' : 'left out' })
      .where(and(eq(journal.sittingId, id), inArray(journal.standing, ['waiting'])))
      .run();
    const act = decision.count ? 'counted late arrivals' : 'left late arrivals out';
    record(services, { staffId, act, subject: `sitting ${id}`, invitationId, reason: decision.reason });
    if (!decision.count) return;
    const receiptHash = receiptHashOf(services, id);
    db.update(sittings).set({ receiptHash, scoredAt: null }).where(eq(sittings.id, id)).run();
    jobs.add('score', id);
  });
}
