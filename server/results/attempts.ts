import { and, asc, inArray, isNotNull } from 'drizzle-orm';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { countedAttempts, type Attempt } from '../../core/results/attempts';
import type { ComponentMark } from '../../core/results/componentMark';
import { totalOf } from '../../core/results/totals';
import type { AttemptRule } from '../../core/rounds/api';
import { inPieces } from '../db/inPieces';
import type { Db } from '../db/open';
import { sittings } from '../db/schema';
import { standingMarksOf } from '../marking/marks';

export interface AttemptMade extends Attempt {
  readonly sitting: typeof sittings.$inferSelect;
}

/**
 * The attempts that each candidate's result is made of, by the round's rule, by invitation. `paper` is any copy of the
 * paper: forms differ in the order of their parts, never in their marks.
 */
export function countedOfAll(
  db: Db,
  paper: CandidatePaper,
  invited: readonly number[],
  rule: AttemptRule,
): ReadonlyMap<number, AttemptMade[]> {
  const closed = inPieces(invited, (some) =>
    db
      .select()
      .from(sittings)
      .where(and(inArray(sittings.invitationId, some), isNotNull(sittings.closedAt)))
      .orderBy(asc(sittings.id))
      .all(),
  );
  const standing = standingMarksOf(
    db,
    closed.map((sitting) => sitting.id),
  );
  const made = new Map<number, AttemptMade[]>(invited.map((id) => [id, []]));
  for (const sitting of closed) {
    const marks: ComponentMark[] = (standing.get(sitting.id) ?? []).map(
      ({ target, component, hundredths, verdict, reasons, level, comment }) => ({
        target,
        component,
        hundredths,
        verdict,
        reasons,
        level,
        comment,
      }),
    );
    const attempt = { sitting, attempt: sitting.attempt, marks, total: totalOf(paper, marks) };
    made.get(sitting.invitationId)!.push(attempt);
  }
  return new Map([...made].map(([id, attempts]) => [id, countedAttempts(attempts, rule)]));
}
