import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import type { FileRef } from '../../core/kinds/contract';
import { responseOrEmpty } from '../../core/kinds/stored';
import type { Db } from '../db/open';
import { formById } from '../forms/forms';
import { pageOf, pagesOf, type PageRow } from '../uploads/uploads';
import { findSitting, sittingQueries } from './queries';
import { answerTexts } from './values';

/** The files that an answer names; none for what cannot be read or belongs to another kind. */
export function filesOfSitting(db: Db, sittingId: number, of?: string): FileRef[] {
  const { questions } = formById(db, findSitting(db, sittingId)!.formId).paper;
  const parts = questions
    .flatMap((question) => question.parts)
    .filter(({ kind, shown }) => candidateKindOf(kind).fileRules(shown) !== null);
  // Most papers have none: nothing of theirs is read for it.
  if (parts.length === 0) return [];
  const answers = answerTexts(sittingQueries(db).currentOf(sittingId));
  return parts.flatMap(({ kind, shown, target }) => {
    const value = of === undefined || of === target ? answers.get(target) : undefined;
    if (value === undefined) return [];
    return candidateKindOf(kind).files(responseOrEmpty(kind, shown, JSON.parse(value)));
  });
}

export const filesOfPart = (db: Db, sittingId: number, target: string): FileRef[] =>
  filesOfSitting(db, sittingId, target);

const counts = (row: PageRow | null | undefined): boolean => row?.state === 'here' && !row.late;

/** Pages that the answers of a sitting name and that do not count (yet): how many never came, and which came late. */
export function pagesAwaited(
  db: Db,
  sittingId: number,
): { readonly missing: number; readonly late: readonly PageRow[] } {
  const rows = new Map(pagesOf(db, sittingId).map((row) => [row.hash, row]));
  const open = filesOfSitting(db, sittingId).filter(({ hash }) => !counts(rows.get(hash)));
  const late = open.flatMap(({ hash }) => {
    const row = rows.get(hash);
    return row?.late ? [row] : [];
  });
  // What is complete and no page at all is waited for no more.
  const unreadable = open.filter(({ hash }) => rows.get(hash)?.state === 'unreadable').length;
  return { missing: open.length - late.length - unreadable, late };
}

/** Those of some files that people cannot see: they did not come, came late, or are no pages. */
export const pagesUnseen = (db: Db, sittingId: number, files: readonly Pick<FileRef, 'hash'>[]): string[] =>
  files.map(({ hash }) => hash).filter((hash) => !counts(pageOf(db, sittingId, hash)));
