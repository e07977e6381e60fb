import { eq } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { sha256 } from '../secrets';
import { printedResults } from '../db/schema';
import { askedStill } from '../papers/askedStill';
import { paperOfVersion } from '../papers/papers';
import { message } from '../../core/messages/message';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { buildResultSheet, type ResultSheet, type SheetChange } from '../../core/results/resultSheet';
import { countedAttempts, marksOfCounted } from '../../core/results/attempts';
import type { Db } from '../db/open';
import { judgementsOf, type Judgement } from '../marking/judgements';
import { allMarks } from '../marking/marks';
import { wholeForm } from '../../core/forms/drawForm';
import { receiptCode } from '../../core/journal/receipt';
import { arrivalStateOf } from '../candidates/state';
import { findInvited, sittingsOf, type InvitedCandidate } from '../candidates/queries';
import { ApiError, conflict } from '../http/errors';
import { formById } from '../forms/forms';
import type { Read, Reading } from '../reading/read';
import type { Services } from '../services';
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
export function resultOf(services: Reading, invitation: number): ResultSheet {
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
  return sheetOf(services, { round, person, counted, attempts, confirmed });
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

export const resultRead: Read<Whose, ResultSheet> = {
  name: 'result',
  run: (reading, { invitation }) => resultOf(reading, invitation),
};

export const resultReads = [resultRead];

export interface Printed {
  readonly bytes: Uint8Array;
  readonly reference: string;
}

/**
 * The result as a PDF: made once, and kept as long as the sheet says the same. A sheet changes after its release where
 * right answers that were kept back are shown.
 */
export async function printedResult(services: Services, { invitation }: Whose): Promise<Printed> {
  const { db, reader, printer, files, config, commits } = services;
  const sheet = await reader.read(resultRead, { invitation });
  const { reference } = sheet.candidate;
  const hash = sha256(canonicalJson({ sheet, organisation: config.organisation }));
  const kept = db.select().from(printedResults).where(eq(printedResults.invitationId, invitation)).get();
  const known = kept?.sheet === hash ? files.store.read(kept.file) : null;
  if (known) return { bytes: known, reference };
  const bytes = await printer.sheet(sheet, config.organisation);
  const file = files.store.keep(bytes);
  const values = { sheet: hash, file };
  await commits.run(
    () =>
      void db
        .insert(printedResults)
        .values({ invitationId: invitation, ...values })
        .onConflictDoUpdate({ target: printedResults.invitationId, set: values })
        .run(),
  );
  if (kept && kept.file !== file) files.store.remove(kept.file);
  return { bytes, reference };
}

/** Makes the PDF of a result before it is asked for. Whoever has none, or not yet, needs none. */
export async function printAhead(services: Services, invitation: number): Promise<void> {
  try {
    await printedResult(services, { invitation });
  } catch (error) {
    // Anything else, as a reader with too much to do, is tried again.
    if (!(error instanceof ApiError && error.code === 'not-released')) throw error;
  }
}
