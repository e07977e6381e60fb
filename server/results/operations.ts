import { buildResultSheet, type PartMark, type ResultSheet } from '../../core/results/resultSheet';
import { sumMarks } from '../../core/marks';
import type { AttemptRule } from '../../core/rounds/api';
import { receiptCode } from '../../core/journal/receipt';
import { whereIs } from '../arrival/operations';
import { paperOf, sittingsOf } from '../arrival/queries';
import { conflict } from '../http/errors';
import { newestMarks } from '../rounds/queries';
import type { Services } from '../services';
import { deskOf } from '../sittings/receipt';

const notReleased = () =>
  conflict(
    'not-released',
    'Your result is not released yet. Your link shows what is being marked and until when.',
  );

type Sitting = ReturnType<typeof sittingsOf>[number];

const totalOf = ({ db }: Services, { id }: Sitting) => sumMarks(newestMarks(db, id).map((m) => m.hundredths));

/** Of several attempts the one that counts, by the round's rule; of equally good ones the later. */
function countedSitting(services: Services, invitation: number, rule: AttemptRule): Sitting | undefined {
  const closed = sittingsOf(services.db, invitation).filter((s) => s.closedAt !== null);
  if (rule === 'first') return closed.at(-1);
  if (rule === 'latest') return closed[0];
  return closed.reduce<Sitting | undefined>(
    (best, s) => (best && totalOf(services, best) >= totalOf(services, s) ? best : s),
    undefined,
  );
}

/** The result sheet of a candidate, once the coordinator has released it. */
export function resultOf(services: Services, invitation: number): ResultSheet {
  const { db } = services;
  const { invited, stage } = whereIs(services, invitation);
  const { signedOffAt, releasedAt } = invited.round;
  const sitting = countedSitting(services, invitation, invited.round.settings.counts);
  if (stage.at !== 'result' || !sitting || signedOffAt === null || releasedAt === null) throw notReleased();
  const marks = newestMarks(db, sitting.id).map(
    ({ target, hundredths, verdict, reasons, levels, comment }): PartMark => ({
      target,
      hundredths,
      verdict,
      reasons,
      levels,
      comment,
    }),
  );
  return buildResultSheet({
    state: 'confirmed',
    paper: paperOf(db, invited),
    seed: sitting.seed,
    answers: deskOf(services, sitting.id).answers,
    marks,
    candidate: { name: invited.candidate.name, reference: invited.candidate.reference },
    satAt: sitting.startedAt!,
    releasedAt,
    receipt: receiptCode(sitting.receiptHash!),
  });
}
