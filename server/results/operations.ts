import { gt } from 'drizzle-orm';
import { allItems } from '../../core/papers/paper';
import { rounds } from '../db/schema';
import { isReadable, paperOfVersion } from '../papers/papers';
import type { ComponentMark } from '../../core/results/componentMark';
import { buildResultSheet, type ResultSheet } from '../../core/results/resultSheet';
import { countedAttempts, marksOfCounted, type Attempt } from '../../core/results/attempts';
import { totalOf } from '../../core/results/totals';
import type { AttemptRule } from '../../core/rounds/api';
import { receiptCode } from '../../core/journal/receipt';
import { whereIs } from '../arrival/operations';
import { paperOf, sittingsOf } from '../arrival/queries';
import { conflict } from '../http/errors';
import { formById } from '../forms/forms';
import { standingMarks } from '../marking/marks';
import type { Services } from '../services';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';

const notReleased = () => conflict('not-released');

type Sitting = ReturnType<typeof sittingsOf>[number];

interface AttemptMade extends Attempt {
  readonly sitting: Sitting;
}

const marksOf = (services: Services, sitting: number): ComponentMark[] =>
  standingMarks(services.db, sitting).map(
    ({ target, component, hundredths, verdict, reasons, level, comment }) => ({
      ...{ target, component, hundredths, verdict, reasons, level, comment },
    }),
  );

/** The attempts that a candidate's result is made of, by the round's rule. */
export function countedOf(services: Services, invitation: number, rule: AttemptRule): AttemptMade[] {
  const closed = sittingsOf(services.db, invitation).filter((s) => s.closedAt !== null);
  const made = closed.map((sitting) => {
    const marks = marksOf(services, sitting.id);
    const total = totalOf(formById(services.db, sitting.formId).paper, marks);
    return { sitting, attempt: sitting.attempt, marks, total };
  });
  return countedAttempts(made, rule);
}

/** The items of all rounds that are scheduled or open: whoever sits them must not learn the answers from a result. */
function askedStill({ db, clock }: Services): ReadonlySet<string> {
  const versions = db
    .selectDistinct({ id: rounds.paperVersionId })
    .from(rounds)
    .where(gt(rounds.closesAt, clock.now()))
    .all();
  const papers = versions.filter(({ id }) => isReadable(db, id)).map(({ id }) => paperOfVersion(db, id));
  return new Set(papers.flatMap((paper) => allItems(paper).map((item) => item.key)));
}

/** The result sheet of a candidate, once the coordinator has released it. */
export function resultOf(services: Services, invitation: number): ResultSheet {
  const { invited, stage } = whereIs(services, invitation);
  const { signedOffAt, releasedAt } = invited.round;
  const counted = countedOf(services, invitation, invited.round.settings.counts);
  const sitting = counted.at(-1)?.sitting;
  // Until it is settled, something that counts may still be on its way: nobody is shown a result before.
  const settled = counted.every((one) => one.sitting.settledAt !== null);
  if (stage.at !== 'result' || !sitting || !settled || signedOffAt === null || releasedAt === null)
    throw notReleased();
  const receipt = newestReceipt(services.db, sitting.id)!;
  return buildResultSheet({
    state: 'confirmed',
    script: {
      ...{ paper: paperOf(services.db, invited), form: formById(services.db, sitting.formId) },
      ...{ answers: answersOfReceipt(services.db, receipt), locale: invited.round.settings.locale },
    },
    ...marksOfCounted(counted),
    withheld: askedStill(services),
    candidate: { name: invited.person.name, reference: invited.person.reference },
    satAt: sitting.startedAt!,
    releasedAt,
    receipt: receiptCode(receipt.hash),
  });
}
