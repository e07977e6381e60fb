import { askedStill } from '../papers/askedStill';
import { paperOfVersion } from '../papers/papers';
import { message } from '../../core/messages/message';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import {
  buildResultSheet,
  type ResultSheet,
  type SheetChange,
  type SheetDetail,
} from '../../core/results/resultSheet';
import type { Stage } from '../../core/arrival/stage';
import { countedAttempts, markedPaper, marksOfCounted } from '../../core/results/attempts';
import type { Db } from '../db/open';
import { judgementsOf, type Judgement } from '../marking/judgements';
import { allMarks } from '../marking/marks';
import { overallRemarkOn } from '../marking/remarks';
import { receiptCode } from '../../core/journal/receipt';
import { arrivalStateOf } from '../candidates/state';
import { findInvited, isScored, sittingsOf, type InvitedCandidate } from '../candidates/queries';
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
  attempts.every((one) => isScored(one.sitting));

interface WhichSheet {
  readonly invitation: number;
  /** The sheet of one attempt; null for the result. */
  readonly attempt?: number | null;
}

/**
 * The result sheet of a candidate, or that of one of several attempts: confirmed once the coordinator has released it,
 * provisional where the round says so. While attempts remain it holds totals alone, unless the round is for practice.
 */
export function resultOf(services: Reading, { invitation, attempt = null }: WhichSheet): SheetRead {
  const { db } = services;
  const invited = findInvited(db, invitation);
  if (!invited) throw notReleased();
  const { round, person } = invited;
  const { stage, released } = arrivalStateOf(services, invitation);
  const { signedOffAt, releasedAt } = round;
  const paper = markedPaper(paperOfVersion(db, round.paperVersionId));
  const attempts = attemptsOfAll(db, paper.copy, [invitation]).get(invitation)!;
  const all = countedAttempts(attempts, round.settings.counts);
  const counted = attempt === null ? all : attempts.filter((one) => one.attempt === attempt);
  const sitting = counted.at(-1)?.sitting;
  if (!sitting && sittingsOf(db, invitation).some((one) => one.closedAt !== null))
    throw conflict('sitting-void');
  // Until it is settled, something that counts may still be on its way: nobody is shown a result before.
  const settled = counted.every((one) => one.sitting.settledAt !== null);
  if (!released || !SHOWN_AT.includes(stage.at) || !sitting || !settled) throw notReleased();
  const confirmed = signedOffAt !== null && releasedAt !== null;
  if (!confirmed && !seesAtOnce(round, counted)) throw notReleased();
  const detail = detailOf({
    remain: stage.at !== 'result',
    forPractice: round.settings.forPractice,
    mean: marksOfCounted(counted, paper).meanOf !== null,
  });
  const sheet = sheetOf(services, { round, person, counted, all, attempts, confirmed, detail });
  return { sheet, sitting: sitting.id };
}

/** Not while an attempt is being written. */
const SHOWN_AT: readonly Stage['at'][] = ['result', 'between', 'arriving'];

interface Detailed {
  /** Whether attempts remain. */
  readonly remain: boolean;
  readonly forPractice: boolean;
  /** Whether it is a mean of totals. */
  readonly mean: boolean;
}

const detailOf = ({ remain, forPractice, mean }: Detailed): SheetDetail =>
  mean ? 'total' : remain && !forPractice ? 'sections' : 'whole';

interface ForSheet {
  readonly round: InvitedCandidate['round'];
  readonly person: InvitedCandidate['person'];
  /** What the sheet is of: the attempts that count, or one of them all. */
  readonly counted: readonly AttemptMade[];
  /** The attempts that count, where the sheet is of another one. */
  readonly all?: readonly AttemptMade[];
  readonly attempts: readonly AttemptMade[];
  readonly confirmed: boolean;
  readonly detail?: SheetDetail;
  /** For staff, who see everything whatever candidates are shown. */
  readonly whole?: boolean;
}

/** What a sheet shows of the remark on a whole script. */
const remarkOn = ({ text, file, fileType }: ReturnType<typeof overallRemarkOn>) => ({
  comment: text || null,
  file: file !== null && fileType !== null ? { hash: file, type: fileType } : null,
});

/** A sheet of attempts that count; the newest gives the answers. */
export function sheetOf(
  services: Reading,
  { round, person, counted, all = counted, attempts, confirmed, detail = 'whole', whole = false }: ForSheet,
): ResultSheet {
  const { db, clock } = services;
  const { sitting } = counted.at(-1)!;
  const receipt = newestReceipt(db, sitting.id)!;
  const form = formById(db, sitting.formId);
  const paper = paperOfVersion(db, round.paperVersionId);
  return buildResultSheet({
    detail,
    state: confirmed ? 'confirmed' : 'provisional',
    script: {
      paper,
      form,
      answers: answersOfReceipt(db, receipt),
      locale: round.settings.locale,
    },
    ...marksOfCounted(counted, markedPaper(paper)),
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
            counts: all.some((one) => one.attempt === attempt),
          })),
    changes: round.releasedAt === null ? [] : changesOf(db, sitting.id, round.releasedAt, form.paper),
    ...(confirmed || whole ? remarkOn(overallRemarkOn(db, sitting.id)) : {}),
    withheld: whole ? new Set() : askedStill(services),
    candidate: { name: person.name, reference: person.reference },
    satAt: sitting.startedAt!,
    handedInAt: sitting.closedAt ?? clock.now(),
    finalBy: round.settings.resultBy,
    releasedAt: round.releasedAt ?? clock.now(),
    timeZone: round.timeZone,
    receipt: receiptCode(receipt.hash),
  });
}

/** A sheet, and the sitting whose answers it shows. */
export interface SheetRead {
  readonly sheet: ResultSheet;
  readonly sitting: number;
}

export const resultRead: Read<WhichSheet, SheetRead> = { name: 'result', run: resultOf };
