import { buildResultSheet, type PartMark, type ResultSheet } from '../../core/results/resultSheet';
import { countedAttempts, marksOfCounted, type Attempt } from '../../core/results/attempts';
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

interface AttemptMade extends Attempt {
  readonly sitting: Sitting;
}

const marksOf = (services: Services, sitting: number): PartMark[] =>
  newestMarks(services.db, sitting).map(({ target, hundredths, verdict, reasons, levels, comment }) => ({
    ...{ target, hundredths, verdict, reasons, levels, comment },
  }));

/** The attempts that a candidate's result is made of, by the round's rule. */
export function countedOf(services: Services, invitation: number, rule: AttemptRule): AttemptMade[] {
  const closed = sittingsOf(services.db, invitation).filter((s) => s.closedAt !== null);
  const made = closed.map((sitting) => ({
    ...{ sitting, attempt: sitting.attempt, marks: marksOf(services, sitting.id) },
  }));
  return countedAttempts(made, rule);
}

/** The result sheet of a candidate, once the coordinator has released it. */
export function resultOf(services: Services, invitation: number): ResultSheet {
  const { invited, stage } = whereIs(services, invitation);
  const { signedOffAt, releasedAt } = invited.round;
  const counted = countedOf(services, invitation, invited.round.settings.counts);
  const sitting = counted.at(-1)?.sitting;
  if (stage.at !== 'result' || !sitting || signedOffAt === null || releasedAt === null) throw notReleased();
  return buildResultSheet({
    state: 'confirmed',
    paper: paperOf(services.db, invited),
    seed: sitting.seed,
    answers: deskOf(services, sitting.id).answers,
    marks: marksOfCounted(counted),
    candidate: { name: invited.candidate.name, reference: invited.candidate.reference },
    satAt: sitting.startedAt!,
    releasedAt,
    receipt: receiptCode(sitting.receiptHash!),
  });
}
