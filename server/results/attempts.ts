import { and, asc, inArray, isNotNull, ne, not, sql } from 'drizzle-orm';
import { judgedMarks } from '../../core/corrections/judgedMarks';
import { countedAttempts, totalOfCounted, type Attempt, type MarkedPaper } from '../../core/results/attempts';
import type { ComponentMark } from '../../core/results/componentMark';
import { totalOf } from '../../core/results/totals';
import { inPieces } from '../db/inPieces';
import type { Db } from '../db/open';
import { correctionChanges, keyCorrections, sittings, type rounds } from '../db/schema';
import { formById } from '../forms/forms';
import { standingMarksOf, type Mark } from '../marking/marks';

type Round = typeof rounds.$inferSelect;

export interface AttemptMade extends Attempt {
  readonly sitting: typeof sittings.$inferSelect;
}

/** Void with a second person's agreement: such an attempt counts for nothing. */
export const isVoid = sql`exists (select 1 from verdicts v where v.sitting_id = ${sittings.id}
  and v.verdict = 'void' and v.agreed_at is not null and v.ended_at is null)`;

/** Which parts a sitting was asked, where that matters for what was decided of parts; null for all. */
function askedOf(db: Db, { rulesDrawn }: MarkedPaper, formId: number): ReadonlySet<string> | null {
  if (!rulesDrawn) return null;
  const { questions } = formById(db, formId).paper;
  return new Set(questions.flatMap(({ parts }) => parts.map(({ target }) => target)));
}

/**
 * The attempts of candidates that stand, by invitation, in the order in which they were made. `as` says what marks would
 * stand of a sitting, where that is asked.
 */
export function attemptsOfAll(
  db: Db,
  marked: MarkedPaper,
  invited: readonly number[],
  as: (sitting: number, standing: readonly Mark[]) => readonly Mark[] = (_, standing) => standing,
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
    const given = as(sitting.id, standing.get(sitting.id) ?? []).map(
      ({ target, component, hundredths, verdict, reasons, level }): ComponentMark => ({
        target,
        component,
        hundredths,
        verdict,
        reasons,
        level,
      }),
    );
    const script = { scored: sitting.scoredAt !== null, asked: askedOf(db, marked, sitting.formId) };
    const marks = judgedMarks(given, marked, script);
    const attempt = { sitting, attempt: sitting.attempt, marks, total: totalOf(marked, marks).hundredths };
    made.get(sitting.invitationId)!.push(attempt);
  }
  return made;
}

/**
 * What results may not fall below, by invitation, as corrections that stand have moved them after their release; `without`
 * leaves one of them out.
 */
function keptOf(db: Db, invited: readonly number[], without: number | null): ReadonlyMap<number, number> {
  const standing = sql`not exists (select 1 from key_corrections later where later.takes_back = ${keyCorrections.id}
    and later.finished_at is not null)`;
  const rows = inPieces(invited, (some) =>
    db
      .select({ invitation: correctionChanges.invitationId, kept: correctionChanges.kept })
      .from(correctionChanges)
      .innerJoin(keyCorrections, sql`${keyCorrections.id} = ${correctionChanges.correctionId}`)
      .where(
        and(
          inArray(correctionChanges.invitationId, some),
          isNotNull(correctionChanges.kept),
          isNotNull(keyCorrections.finishedAt),
          standing,
          without === null ? undefined : ne(keyCorrections.id, without),
        ),
      )
      .all(),
  );
  const kept = new Map<number, number>();
  for (const row of rows) kept.set(row.invitation, Math.max(kept.get(row.invitation) ?? 0, row.kept!));
  return kept;
}

/** A candidate's result as it stands: the attempts it is made of, and their total. */
export interface Standing {
  readonly attempts: readonly AttemptMade[];
  readonly counted: readonly AttemptMade[];
  readonly kept: number;
  /** Of what is marked so far. */
  readonly total: number;
}

/** As results would be. */
interface AsIf {
  /** The marks that would stand of a sitting. */
  readonly as?: Parameters<typeof attemptsOfAll>[3];
  /** The correction that would be taken back. */
  readonly takesBack?: number | null;
}

/** The results of candidates of a round, by invitation: the attempts that count by its rule, and their totals. */
export function resultsOfAll(
  db: Db,
  round: Pick<Round, 'settings'>,
  marked: MarkedPaper,
  invited: readonly number[],
  { as, takesBack = null }: AsIf = {},
): ReadonlyMap<number, Standing> {
  const all = attemptsOfAll(db, marked, invited, as);
  const floors = keptOf(db, invited, takesBack);
  return new Map(
    [...all].map(([id, attempts]) => {
      const counted = countedAttempts(attempts, round.settings.counts);
      const kept = floors.get(id) ?? 0;
      return [id, { attempts, counted, kept, total: totalOfCounted(counted, marked, kept) }];
    }),
  );
}
