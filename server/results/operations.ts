import { eq } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { sha256 } from '../secrets';
import { printedResults } from '../db/schema';
import { askedStill } from '../papers/askedStill';
import { paperOfVersion } from '../papers/papers';
import { buildResultSheet, type ResultSheet } from '../../core/results/resultSheet';
import { marksOfCounted } from '../../core/results/attempts';
import { wholeForm } from '../../core/forms/drawForm';
import { receiptCode } from '../../core/journal/receipt';
import { arrivalStateOf } from '../candidates/state';
import { paperOf, type InvitedCandidate } from '../candidates/queries';
import { ApiError, conflict } from '../http/errors';
import { formById } from '../forms/forms';
import type { Read, Reading } from '../reading/read';
import type { Services } from '../services';
import { countedOfAll, type AttemptMade } from './attempts';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';

const notReleased = () => conflict('not-released');

/** The attempts that a candidate's result is made of, by the round's rule. */
const countedOf = ({ db }: Reading, { invitation, round }: InvitedCandidate): AttemptMade[] => {
  const paper = wholeForm(paperOfVersion(db, round.paperVersionId)).paper;
  return countedOfAll(db, paper, [invitation.id], round.settings.counts).get(invitation.id)!;
};

/** The result sheet of a candidate, once the coordinator has released it. */
function resultOf(services: Reading, invitation: number): ResultSheet {
  const { invited, stage } = arrivalStateOf(services, invitation);
  const { signedOffAt, releasedAt } = invited.round;
  const counted = countedOf(services, invited);
  const sitting = counted.at(-1)?.sitting;
  // Until it is settled, something that counts may still be on its way: nobody is shown a result before.
  const settled = counted.every((one) => one.sitting.settledAt !== null);
  if (stage.at !== 'result' || !sitting || !settled || signedOffAt === null || releasedAt === null)
    throw notReleased();
  const receipt = newestReceipt(services.db, sitting.id)!;
  return buildResultSheet({
    state: 'confirmed',
    script: {
      paper: paperOf(services.db, invited),
      form: formById(services.db, sitting.formId),
      answers: answersOfReceipt(services.db, receipt),
      locale: invited.round.settings.locale,
    },
    ...marksOfCounted(counted),
    withheld: askedStill(services),
    candidate: { name: invited.person.name, reference: invited.person.reference },
    satAt: sitting.startedAt!,
    releasedAt,
    timeZone: invited.round.timeZone,
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
