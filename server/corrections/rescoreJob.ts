import { and, asc, eq, isNotNull, isNull, max, ne, or, sql } from 'drizzle-orm';
import { findInvited } from '../candidates/queries';
import { tellCandidates } from '../candidates/tellCandidates';
import type { Db } from '../db/open';
import { correctionChanges, invitations, keyCorrections, marks, rounds } from '../db/schema';
import { notify } from '../mail/notices';
import type { Outbox } from '../mail/outbox';
import { keepAgain } from '../marking/scoreJob';
import { forgetPapers } from '../papers/papers';
import type { Correction } from '../papers/corrections';
import { findSitting } from '../sittings/queries';
import { scriptsOf } from '../sittings/scriptsOf';
import {
  comparedIn,
  foundAgain,
  movesOf,
  PIECE,
  type Compared,
  type FoundAgain,
  type Move,
  type Needs,
} from './moves';
import { judgedBy, roundsWith, type Judged } from './wanted';
import type { HasConfig } from '../config';

/** So often what a ruling moves is worked out again, where marks were given meanwhile. */
const MOST_TRIES = 5;

const keepMoves = (db: Db, correctionId: number, moves: readonly Move[]): void => {
  for (const { invitation: invitationId, script: _, ...move } of moves)
    db.insert(correctionChanges)
      .values({ correctionId, invitationId, ...move })
      // Done again after a stop: what it was before the correction is what was found first.
      .onConflictDoNothing()
      .run();
};

/** Keeps the scores of a piece of candidates. Part of a commit. */
function keepScores({ db, clock }: Needs, correction: Correction, { round }: Compared, found: FoundAgain) {
  const frozen = round.signedOffAt !== null;
  for (const [sittingId, again] of found) {
    const sitting = findSitting(db, sittingId);
    // Readmitted meanwhile, or handed in again: its own score follows, by the corrected key.
    if (!sitting || sitting.scoredAt === null || sitting.closedAt === null) continue;
    const keeping = { db, sittingId, at: clock.now(), roundId: round.id, correctionId: correction.id };
    for (const { part, score } of again) keepAgain(keeping, part, score, frozen);
  }
}

const newestMark = (db: Db): number =>
  db
    .select({ id: max(marks.id) })
    .from(marks)
    .get()!.id ?? 0;

/** Looks at every candidate of a round, piece by piece; what moves is kept, and new scores with it. */
async function correctRound(
  services: Needs,
  correction: Correction,
  { compared, judged }: { readonly compared: Compared; readonly judged: Judged },
  progress: (scripts: number) => void,
): Promise<void> {
  const { db, commits } = services;
  const scripts = scriptsOf(db, compared.round.id);
  const invited = [...new Set(scripts.map(({ invitationId }) => invitationId))];
  for (let from = 0; from < invited.length; from += PIECE) {
    const some = invited.slice(from, from + PIECE);
    const found = await foundAgain(services, compared, judged, some);
    await commits.run(() => {
      keepMoves(db, correction.id, movesOf(db, compared, some, found));
      keepScores(services, correction, compared, found);
      progress(scripts.filter(({ invitationId }) => some.includes(invitationId)).length);
    });
  }
}

/** Writes to those whose released result moved, piece by piece; done again after a stop it goes on where it was. */
async function tellMoved(services: Needs & HasConfig, outbox: Outbox, correctionId: number): Promise<void> {
  const { db, clock, commits } = services;
  const moved = db
    .select({ id: correctionChanges.invitationId })
    .from(correctionChanges)
    .innerJoin(invitations, eq(invitations.id, correctionChanges.invitationId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(
      and(
        eq(correctionChanges.correctionId, correctionId),
        isNull(correctionChanges.toldAt),
        isNotNull(rounds.releasedAt),
        or(
          ne(correctionChanges.before, correctionChanges.after),
          sql`${correctionChanges.bandBefore} is not ${correctionChanges.bandAfter}`,
        ),
      ),
    )
    .orderBy(asc(correctionChanges.invitationId))
    .all();
  for (let from = 0; from < moved.length; from += PIECE)
    await commits.run(() => {
      for (const { id } of moved.slice(from, from + PIECE)) {
        notify(services, outbox, findInvited(db, id)!, { topic: 'result changed' });
        db.update(correctionChanges)
          .set({ toldAt: clock.now() })
          .where(
            and(eq(correctionChanges.correctionId, correctionId), eq(correctionChanges.invitationId, id)),
          )
          .run();
      }
    });
}

/**
 * The job after a correction: every script of every round that has the question is looked at again, the old marks kept,
 * and what moves is put on record. Then the correction is finished, and whose result is out and moved is written to.
 */
export async function rescore(
  services: Needs & HasConfig,
  outbox: Outbox,
  correctionId: number,
): Promise<void> {
  const { db, clock, commits } = services;
  const own = eq(keyCorrections.id, correctionId);
  const correction = db.select().from(keyCorrections).where(own).get()!;
  const all = roundsWith(db, { key: correction.item, version: correction.version });
  const progress = (to: Partial<Correction>) => void db.update(keyCorrections).set(to).where(own).run();
  for (let tried = 1; correction.finishedAt === null; tried++) {
    const judged = judgedBy(db, correction);
    const isRuling = judged.again.size === 0;
    const marked = newestMark(db);
    if (isRuling) db.delete(correctionChanges).where(eq(correctionChanges.correctionId, correctionId)).run();
    progress({ done: 0, of: all.reduce((sum, round) => sum + scriptsOf(db, round.id).length, 0) });
    let done = 0;
    for (const round of all)
      await correctRound(
        services,
        correction,
        { compared: comparedIn(db, round, judged), judged },
        (scripts) => progress({ done: (done += scripts) }),
      );
    const finished = await commits.run(() => {
      // What a ruling moves and what results keep was worked out before it counts: it is to be of these very marks.
      if (isRuling && tried < MOST_TRIES && newestMark(db) !== marked) return false;
      progress({ finishedAt: clock.now() });
      return true;
    });
    if (finished) break;
  }
  forgetPapers(db);
  for (const round of all) tellCandidates(services, round.id);
  await tellMoved(services, outbox, correctionId);
}
