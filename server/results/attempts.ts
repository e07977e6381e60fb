import { and, asc, inArray, isNotNull, not, sql } from 'drizzle-orm';
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

/** Void with a second person's agreement: such an attempt counts for nothing. */
export const isVoid = sql`exists (select 1 from verdicts v where v.sitting_id = ${sittings.id}
  and v.verdict = 'void' and v.agreed_at is not null and v.ended_at is null)`;

/**
 * The attempts of candidates that stand, by invitation, in the order in which they were made. `paper` is any copy of the
 * paper: forms differ in the order of their parts, never in their marks.
 */
export function attemptsOfAll(
  db: Db,
  paper: CandidatePaper,
  invited: readonly number[],
): ReadonlyMap<number, AttemptMade[]> {
  const closed = inPieces(invited, (some) =>
    db
      .select()
      .from(sittings)
      .where(and(inArray(sittings.invitationId, some), isNotNull(sittings.closedAt), not(isVoid)))
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
      ({ target, component, hundredths, verdict, reasons, level }) => ({
        target,
        component,
        hundredths,
        verdict,
        reasons,
        level,
      }),
    );
    const attempt = { sitting, attempt: sitting.attempt, marks, total: totalOf(paper, marks) };
    made.get(sitting.invitationId)!.push(attempt);
  }
  return made;
}

/** The attempts that each candidate's result is made of, by the round's rule, by invitation. */
export function countedOfAll(
  db: Db,
  paper: CandidatePaper,
  invited: readonly number[],
  rule: AttemptRule,
): ReadonlyMap<number, AttemptMade[]> {
  const made = attemptsOfAll(db, paper, invited);
  return new Map([...made].map(([id, attempts]) => [id, countedAttempts(attempts, rule)]));
}
