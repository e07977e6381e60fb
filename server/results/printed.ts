import { eq } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import type { ResultSheet } from '../../core/results/resultSheet';
import { printedResults } from '../db/schema';
import { ApiError } from '../http/errors';
import type { Pictures } from '../printing/printSheet';
import { sha256 } from '../secrets';
import { pageOf } from '../uploads/uploads';
import { resultRead, type SheetRead } from './operations';
import { staffSheetRead } from './reads';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';
import type { HasPrinter } from '../printing/printer';
import type { HasReader } from '../reading/reader';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasDb, HasCommits, HasFiles, HasReader, HasPrinter {}

export interface Printed {
  readonly bytes: Uint8Array;
  readonly reference: string;
}

interface Shown {
  /** The pages that a sheet shows, by the hash that the answers name. */
  readonly pictures: Pictures;
  /** Whether all are there that can be: a helper with too much to do leaves some out. */
  readonly whole: boolean;
}

async function picturesOf(
  { db, files, printer }: HasDb & HasFiles & HasPrinter,
  sheet: ResultSheet,
  sitting: number,
): Promise<Shown> {
  const found: Record<string, Pictures[string]> = {};
  let whole = true;
  for (const part of sheet.questions.flatMap((question) => question.parts))
    for (const { hash } of candidateKindOf(part.kind).files(part.response)) {
      const row = pageOf(db, sitting, hash);
      const at = row?.state === 'here' ? files.store.find(row.view ?? row.hash) : null;
      if (at === null) continue;
      const drawn = row!.type === 'application/pdf' ? await printer.pagesOfPdf(at) : [at];
      if (drawn === null) whole = false;
      else found[hash] = drawn;
    }
  return { pictures: found, whole };
}

async function print(services: Needs, { sheet, sitting }: SheetRead) {
  const { pictures, whole } = await picturesOf(services, sheet, sitting);
  const bytes = await services.printer.sheet(sheet, services.config.organisation, pictures);
  return { bytes, whole };
}

/**
 * The result as a PDF: made once, and kept as long as the sheet says the same. A sheet changes after its release where
 * right answers that were kept back are shown, or a mark was changed. One that lacks pages only because they could not
 * be drawn now is made again when it is asked for again.
 */
export async function printedResult(
  services: Needs,
  { invitation }: { readonly invitation: number },
): Promise<Printed> {
  const { db, reader, files, config, commits } = services;
  const found = await reader.read(resultRead, { invitation });
  const { sheet } = found;
  const { reference } = sheet.candidate;
  const hash = sha256(canonicalJson({ sheet, organisation: config.organisation }));
  const kept = db.select().from(printedResults).where(eq(printedResults.invitationId, invitation)).get();
  const known = kept?.sheet === hash ? files.store.read(kept.file) : null;
  if (known) return { bytes: known, reference };
  const { bytes, whole } = await print(services, found);
  if (!whole) return { bytes, reference };
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
export async function printAhead(services: Needs, invitation: number): Promise<void> {
  try {
    await printedResult(services, { invitation });
  } catch (error) {
    // Anything else, as a reader with too much to do, is tried again.
    if (!(error instanceof ApiError && ['not-released', 'sitting-void'].includes(error.code))) throw error;
  }
}

/** A script with its marks as staff keep it; null where there is none that counts. */
export async function printSheetOf(
  services: Needs,
  of: { readonly round: number; readonly invitation: number; readonly blind: boolean },
): Promise<Uint8Array | null> {
  try {
    return (await print(services, await services.reader.read(staffSheetRead, of))).bytes;
  } catch (error) {
    if (error instanceof ApiError && error.code === 'not-found') return null;
    throw error;
  }
}
