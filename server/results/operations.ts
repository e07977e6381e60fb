import { type RoundMarked, roundMarked } from '../marking/roundMarked';
import { askedStill } from '../papers/askedStill';
import { eq } from 'drizzle-orm';
import { message, type Message } from '../../core/messages/message';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import {
  buildResultSheet,
  type ResultSheet,
  type SheetChange,
  type SheetDetail,
} from '../../core/results/resultSheet';
import type { Stage } from '../../core/arrival/stage';
import { marksOfCounted } from '../../core/results/attempts';
import { sumMarks } from '../../core/marks';
import type { Db } from '../db/open';
import { judgementsOf, type Judgement } from '../marking/judgements';
import { correctionChanges, keyCorrections } from '../db/schema';
import { allMarks, standingMarks, type Mark } from '../marking/marks';
import { overallRemarkOn } from '../marking/remarks';
import { receiptCode } from '../../core/journal/receipt';
import { arrivalStateOf } from '../candidates/state';
import { findInvited, isScored, sittingsOf, type InvitedCandidate } from '../candidates/queries';
import { conflict } from '../http/errors';
import { formById } from '../forms/forms';
import type { Read, Reading } from '../reading/read';
import { resultsOfAll, type AttemptMade } from './attempts';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';

const notReleased = () => conflict('not-released');

/** What people wrote of the parts of a script, by target. */
function judgementsOn(db: Db, sitting: number): Record<string, Judgement[]> {
  const found: Record<string, Judgement[]> = {};
  for (const one of judgementsOf(db, [sitting])) (found[one.target] ??= []).push(one);
  return found;
}

/** What is said of a correction where it changed a mark or a total. */
function reasonOf({ change, takesBack, reason }: typeof keyCorrections.$inferSelect): Message {
  if (takesBack !== null) return message('sheet.takenBack', { reason });
  if (change?.type !== 'ruling') return message('sheet.rescored', { reason });
  return message(change.ruling === 'withdrawn' ? 'sheet.withdrawn' : 'sheet.givenFor', { reason });
}

interface Changed {
  readonly invitation: number;
  readonly sitting: number;
  readonly since: number;
  readonly copy: CandidatePaper;
}

/** What became of questions after the result was out, each with its marks before and after, and of the total by rulings. */
function changesOf(db: Db, { invitation, sitting, since, copy }: Changed): SheetChange[] {
  const numberOf = (target: string) =>
    copy.questions.find((q) => q.parts.some((part) => part.target === target))?.number ?? 0;
  const corrections = new Map(
    db
      .select()
      .from(keyCorrections)
      .all()
      .map((one) => [one.id, one]),
  );
  const counts = new Set(standingMarks(db, sitting).map((mark) => `${mark.target} ${mark.component}`));
  const marks = allMarks(db, sitting).filter((mark) => counts.has(`${mark.target} ${mark.component}`));
  const now = new Map<string, Mark>();
  const questionNow = (number: number) =>
    sumMarks([...now.values()].filter((one) => numberOf(one.target) === number).map((one) => one.hundredths));
  const changes = new Map<string, SheetChange>();
  for (const mark of marks) {
    const question = numberOf(mark.target);
    const before = questionNow(question);
    now.set(`${mark.target} ${mark.component}`, mark);
    if (mark.at <= since || mark.supersedes === null) continue;
    const correction = corrections.get(mark.correctionId ?? 0);
    const reason = correction ? reasonOf(correction) : (mark.reasons[0] ?? message('sheet.remarked'));
    const key = `${mark.at} ${question} ${mark.correctionId}`;
    const first = changes.get(key) ?? { at: mark.at, question, about: 'question', before, reason };
    changes.set(key, { ...first, after: questionNow(question) });
  }
  const ruled = db
    .select()
    .from(correctionChanges)
    .where(eq(correctionChanges.invitationId, invitation))
    .all()
    .flatMap(({ correctionId, before, after, kept }): SheetChange[] => {
      const correction = corrections.get(correctionId)!;
      const about = correction.takesBack === null ? correction : corrections.get(correction.takesBack);
      const { finishedAt: at } = correction;
      if (about?.change?.type !== 'ruling' || at === null || at <= since) return [];
      const question = numberOf(`${correction.item}/${correction.part}`);
      const to = Math.max(after, kept ?? 0);
      return [{ at, question, about: 'total', before, after: to, reason: reasonOf(correction) }];
    });
  return [...changes.values(), ...ruled]
    .filter(({ before, after }) => before !== after)
    .sort((a, b) => a.at - b.at);
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
  const by = roundMarked(db, round);
  const result = resultsOfAll(db, round, by.marked, [invitation]).get(invitation)!;
  const { attempts, counted: all } = result;
  // What a result keeps is of the result, not of one attempt.
  const kept = attempt === null ? result.kept : 0;
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
    mean: marksOfCounted(counted, by.marked).meanOf !== null,
  });
  const sheet = sheetOf(services, { round, person, by, kept, counted, all, attempts, confirmed, detail });
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
  readonly by: RoundMarked;
  /** What the result may not fall below. */
  readonly kept: number;
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
  {
    round,
    person,
    by,
    kept,
    counted,
    all = counted,
    attempts,
    confirmed,
    detail = 'whole',
    whole = false,
  }: ForSheet,
): ResultSheet {
  const { db, clock } = services;
  const { sitting } = counted.at(-1)!;
  const receipt = newestReceipt(db, sitting.id)!;
  const form = formById(db, sitting.formId);
  const { paper, marked, bands } = by;
  return buildResultSheet({
    detail,
    kept,
    bands,
    withdrawn: marked.withdrawn,
    state: confirmed ? 'confirmed' : 'provisional',
    script: {
      paper,
      form,
      answers: answersOfReceipt(db, receipt),
      locale: round.settings.locale,
    },
    ...marksOfCounted(counted, marked),
    judgements: confirmed || whole ? judgementsOn(db, sitting.id) : {},
    // Before the release no right answer is shown, since others may still be writing.
    shown: whole ? 'levels' : confirmed ? round.settings.sheet : 'feedback',
    attempts:
      attempts.length < 2
        ? []
        : attempts.map(({ attempt, total, sitting: { startedAt } }) => ({
            attempt,
            satAt: startedAt!,
            hundredths: total,
            counts: all.some((one) => one.attempt === attempt),
          })),
    changes:
      round.releasedAt === null
        ? []
        : changesOf(db, {
            invitation: sitting.invitationId,
            sitting: sitting.id,
            since: round.releasedAt,
            copy: form.paper,
          }),
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
