import { askedStill } from '../papers/askedStill';
import { paperOfVersion } from '../papers/papers';
import { message } from '../../core/messages/message';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { buildResultSheet, type ResultSheet, type SheetChange } from '../../core/results/resultSheet';
import { countedAttempts, marksOfCounted } from '../../core/results/attempts';
import type { Db } from '../db/open';
import { judgementsOf, type Judgement } from '../marking/judgements';
import { allMarks } from '../marking/marks';
import { overallCommentOn } from '../marking/remarks';
import { wholeForm } from '../../core/forms/drawForm';
import { receiptCode } from '../../core/journal/receipt';
import { arrivalStateOf } from '../candidates/state';
import { findInvited, sittingsOf, type InvitedCandidate } from '../candidates/queries';
import { conflict } from '../http/errors';
import { formById } from '../forms/forms';
import type { Read, Reading } from '../reading/read';
import { attemptsOfAll, type AttemptMade } from './attempts';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';

const notReleased = () => conflict('not-released');

/** What people wrote of the parts of a script, by target. */
function judgementsOn(db: Db, sitting: number): Record<string, Judgement[]> {
  const found: Record<string, Judgement[]> = {};
  for (const one of judgementsOf(db, [sitting])) (found[one.target] ??= []).push(one);
  return found;
}

/** Marks that changed after the result was out: what was corrected, and why. */
function changesOf(db: Db, sitting: number, since: number, copy: CandidatePaper): SheetChange[] {
  const all = allMarks(db, sitting);
  const numberOf = (target: string) =>
    copy.questions.find((q) => q.parts.some((part) => part.target === target))?.number ?? 0;
  return all
    .filter((mark) => mark.at > since && mark.supersedes !== null)
    .map(({ at, target, supersedes, hundredths, role, reasons }) => ({
      at,
      question: numberOf(target),
      before: all.find((one) => one.id === supersedes)?.hundredths ?? 0,
      after: hundredths,
      reason: role === 'machine' ? message('sheet.rescored') : (reasons[0] ?? message('sheet.remarked')),
    }));
}

/** Whether a candidate can see what is scored so far, before anything is signed off. */
export const seesAtOnce = (round: InvitedCandidate['round'], attempts: readonly AttemptMade[]): boolean =>
  round.settings.release === 'at once' &&
  attempts.length > 0 &&
  attempts.every((one) => one.sitting.scoredAt !== null && one.sitting.settledAt !== null);

/** The result sheet of a candidate: confirmed once the coordinator has released it, provisional where the round says so. */
export function resultOf(services: Reading, invitation: number): SheetRead {
  const { db } = services;
  const invited = findInvited(db, invitation);
  if (!invited) throw notReleased();
  const { round, person } = invited;
  const { stage } = arrivalStateOf(services, invitation);
  const { signedOffAt, releasedAt } = round;
  const plain = wholeForm(paperOfVersion(db, round.paperVersionId)).paper;
  const attempts = attemptsOfAll(db, plain, [invitation]).get(invitation)!;
  const counted = countedAttempts(attempts, round.settings.counts);
  const sitting = counted.at(-1)?.sitting;
  if (!sitting && sittingsOf(db, invitation).some((one) => one.closedAt !== null))
    throw conflict('sitting-void');
  // Until it is settled, something that counts may still be on its way: nobody is shown a result before.
  const settled = counted.every((one) => one.sitting.settledAt !== null);
  if (stage.at !== 'result' || !sitting || !settled) throw notReleased();
  const confirmed = signedOffAt !== null && releasedAt !== null;
  if (!confirmed && !seesAtOnce(round, counted)) throw notReleased();
  const sheet = sheetOf(services, { round, person, counted, attempts, confirmed });
  return { sheet, sitting: sitting.id };
}

interface ForSheet {
  readonly round: InvitedCandidate['round'];
  readonly person: InvitedCandidate['person'];
  readonly counted: readonly AttemptMade[];
  readonly attempts: readonly AttemptMade[];
  readonly confirmed: boolean;
  /** For staff, who see everything whatever candidates are shown. */
  readonly whole?: boolean;
}

/** A sheet of attempts that count; the newest gives the answers. */
export function sheetOf(
  services: Reading,
  { round, person, counted, attempts, confirmed, whole = false }: ForSheet,
): ResultSheet {
  const { db, clock } = services;
  const { sitting } = counted.at(-1)!;
  const receipt = newestReceipt(db, sitting.id)!;
  const form = formById(db, sitting.formId);
  return buildResultSheet({
    state: confirmed ? 'confirmed' : 'provisional',
    script: {
      paper: paperOfVersion(db, round.paperVersionId),
      form,
      answers: answersOfReceipt(db, receipt),
      locale: round.settings.locale,
    },
    ...marksOfCounted(counted),
    judgements: confirmed || whole ? judgementsOn(db, sitting.id) : {},
    // Before the release no right answer is shown, since others may still be writing.
    shown: whole ? 'key' : confirmed ? round.settings.sheet : 'feedback',
    attempts:
      attempts.length < 2
        ? []
        : attempts.map(({ attempt, total, sitting: { startedAt } }) => ({
            attempt,
            satAt: startedAt!,
            hundredths: total,
            counts: counted.some((one) => one.attempt === attempt),
          })),
    changes: round.releasedAt === null ? [] : changesOf(db, sitting.id, round.releasedAt, form.paper),
    comment: confirmed || whole ? overallCommentOn(db, sitting.id) : null,
    withheld: whole ? new Set() : askedStill(services),
    candidate: { name: person.name, reference: person.reference },
    satAt: sitting.startedAt!,
    releasedAt: round.releasedAt ?? clock.now(),
    timeZone: round.timeZone,
    receipt: receiptCode(receipt.hash),
  });
}

interface Whose {
  readonly invitation: number;
}

/** A sheet, and the sitting whose answers it shows. */
export interface SheetRead {
  readonly sheet: ResultSheet;
  readonly sitting: number;
}

export const resultRead: Read<Whose, SheetRead> = {
  name: 'result',
  run: (reading, { invitation }) => resultOf(reading, invitation),
};
