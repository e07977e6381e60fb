import { bandsSet, roundMarked } from '../marking/roundMarked';
import { and, count, desc, eq, isNotNull } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import type { BandsView, CorrectionPage, CorrectionRow } from '../../core/corrections/api';
import { maximumOf } from '../../core/results/attempts';
import { correctionChanges, keyCorrections, staff } from '../db/schema';
import type { Db } from '../db/open';
import { notFound } from '../http/errors';
import { correctionsOf, standingOf } from '../papers/corrections';
import type { Reading } from '../reading/read';
import { findRound } from '../schedule/queries';
import { partIn, type Round } from './wanted';

/** What was corrected of a part, the newest first, and its content as it is judged now. */
export function correctionPage({ db }: Reading, roundId: number, target: string): CorrectionPage {
  const { round, item, letter } = partIn(db, roundId, target);
  const all = correctionsOf(db, item);
  const standing = new Set(standingOf(all, () => true).map(({ id }) => id));
  const told = alias(correctionChanges, 'told');
  const rows = db
    .select({
      correction: keyCorrections,
      by: staff.name,
      moved: count(correctionChanges.invitationId),
      told: count(told.toldAt),
    })
    .from(keyCorrections)
    .innerJoin(staff, eq(staff.id, keyCorrections.staffId))
    .leftJoin(correctionChanges, eq(correctionChanges.correctionId, keyCorrections.id))
    .leftJoin(
      told,
      and(
        eq(told.correctionId, correctionChanges.correctionId),
        eq(told.invitationId, correctionChanges.invitationId),
        isNotNull(told.toldAt),
      ),
    )
    .where(
      and(
        eq(keyCorrections.item, item.key),
        eq(keyCorrections.version, item.version),
        eq(keyCorrections.part, letter),
      ),
    )
    .groupBy(keyCorrections.id)
    .orderBy(desc(keyCorrections.id))
    .all()
    .map(({ correction: c, by, moved, told: letters }): CorrectionRow => ({
      id: c.id,
      change: c.change,
      takesBack: c.takesBack,
      by,
      at: c.at,
      reason: c.reason,
      finishedAt: c.finishedAt,
      done: c.done,
      of: c.of ?? 0,
      moved,
      told: letters,
      stands: standing.has(c.id) && c.finishedAt !== null,
    }));
  const part = item.parts.find(({ key }) => key === letter)!;
  return {
    kind: part.kind,
    content: part.content,
    version: item.version,
    withdrawn: round.settings.withdrawn,
    rows,
  };
}

const roundOf = (db: Db, id: number): Round => {
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  return round;
};

/** The bands of a round, and whether they can be set now. */
export function bandsView({ db }: Pick<Reading, 'db'>, id: number): BandsView {
  const round = roundOf(db, id);
  const { paper, marked, bands } = roundMarked(db, round);
  return {
    bands,
    last: bandsSet(db, id)?.bands ?? paper.bands,
    of: maximumOf(marked),
    open: round.signedOffAt === null || bands === null,
  };
}
