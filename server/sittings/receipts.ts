import { asc, desc, eq, sql } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { EntryRef } from '../../core/journal/entry';
import { RECEIPT_FORM, receiptCode, receiptHash, type ReceiptReason } from '../../core/journal/receipt';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { responseOrEmpty } from '../../core/kinds/stored';
import type { Receipt } from '../../core/sittings/api';
import { usedMs } from '../../core/timing/sittingTime';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { receipts } from '../db/schema';
import { formById } from '../forms/forms';
import { sha256 } from '../secrets';
import { findSitting, sittingQueries, type CurrentAnswer, type Sitting } from './queries';
import { answerTexts, valueOf } from './values';
import type { HasDb } from '../db/open';
import type { HasTime } from './timeKeeper';

export type ReceiptRow = typeof receipts.$inferSelect;

const queriesOf = perDatabase((db) => ({
  newest: db
    .select()
    .from(receipts)
    .where(eq(receipts.sittingId, sql.placeholder('sitting')))
    .orderBy(desc(receipts.id))
    .limit(1)
    .prepare(),
  all: db
    .select()
    .from(receipts)
    .where(eq(receipts.sittingId, sql.placeholder('sitting')))
    .orderBy(asc(receipts.id))
    .prepare(),
  add: db
    .insert(receipts)
    .values({
      sittingId: sql.placeholder('sittingId'),
      at: sql.placeholder('at'),
      hash: sql.placeholder('hash'),
      form: sql.placeholder('form'),
      reason: sql.placeholder('reason'),
      sources: sql.placeholder('sources'),
    })
    .returning()
    .prepare(),
}));

export const newestReceipt = (db: Db, sitting: number): ReceiptRow | null =>
  queriesOf(db).newest.get({ sitting }) ?? null;

export const receiptsOf = (db: Db, sitting: number): ReceiptRow[] => queriesOf(db).all.all({ sitting });

/** A source of a receipt is a target, or what joined phones sent for it. */
const PAGES = ' pages';
const sourceOf = ({ about, target }: Pick<CurrentAnswer, 'about' | 'target'>): string =>
  about === 'page' ? `${target}${PAGES}` : target;
const isAnswer = ({ about }: Pick<CurrentAnswer, 'about'>): boolean => about === 'answer' || about === 'page';

type Covered = Pick<ReceiptRow, 'sittingId' | 'sources'>;

function answersBy(
  { sources }: Covered,
  textOf: (source: string, ref: EntryRef) => string | null,
): Record<string, unknown> {
  const answers: Record<string, unknown> = {};
  const pages = new Map<string, string>();
  for (const [source, ref] of Object.entries(sources)) {
    const text = textOf(source, ref);
    if (text === null) continue;
    if (source.endsWith(PAGES)) pages.set(source.slice(0, -PAGES.length), text);
    else answers[source] = JSON.parse(text) as unknown;
  }
  for (const [target, text] of pages)
    answers[target] = { ...(answers[target] as object | undefined), pages: JSON.parse(text) as unknown };
  return answers;
}

const fromJournal = (db: Db, { sittingId }: Covered, ref: EntryRef) =>
  valueOf(sittingQueries(db), sittingId, ref)?.text ?? null;

/**
 * Answers (by target) that a receipt covers, of the entries that it names: as they are current, which is so for most, or
 * made out of the journal.
 */
export function answersOfReceipt(db: Db, receipt: Covered): Record<string, unknown> {
  const current = sittingQueries(db).currentOf(receipt.sittingId);
  const known = new Map(current.filter(isAnswer).map((row) => [sourceOf(row), row]));
  return answersBy(receipt, (source, ref) => {
    const row = known.get(source);
    const same = row?.hold === ref.hold && row.number === ref.number;
    return same ? row.value : fromJournal(db, receipt, ref);
  });
}

/** Does the journal still hold exactly what a receipt proves? */
export function receiptHolds(db: Db, receipt: ReceiptRow): boolean {
  const answers = canonicalJson(answersBy(receipt, (_, ref) => fromJournal(db, receipt, ref)));
  const { deviceName: sitting } = findSitting(db, receipt.sittingId)!;
  return receiptHash(receipt.form, { sitting, answers }, sha256) === receipt.hash;
}

/** Makes a receipt of the current answers, unless the newest one says just that already. Part of a commit. */
export function makeReceipt(
  db: Db,
  sitting: number,
  { at, reason }: { readonly at: number; readonly reason: ReceiptReason },
): ReceiptRow {
  const rows = sittingQueries(db)
    .currentOf(sitting)
    .filter(isAnswer)
    .sort((a, b) => (sourceOf(a) < sourceOf(b) ? -1 : 1));
  const answers = [...answerTexts(rows)].sort(([a], [b]) => (a < b ? -1 : 1));
  // Values are canonical already, so that the whole is canonical as it stands here.
  const text = `{${answers.map(([target, value]) => `${JSON.stringify(target)}:${value}`).join(',')}}`;
  const { deviceName } = findSitting(db, sitting)!;
  const hash = receiptHash(RECEIPT_FORM, { sitting: deviceName, answers: text }, sha256);
  const sources: Record<string, EntryRef> = {};
  for (const row of rows) sources[sourceOf(row)] = { hold: row.hold, number: row.number };
  const before = newestReceipt(db, sitting);
  if (
    before?.hash === hash &&
    before.form === RECEIPT_FORM &&
    canonicalJson(before.sources) === canonicalJson(sources)
  )
    return before;
  return queriesOf(db).add.get({ sittingId: sitting, at, hash, form: RECEIPT_FORM, reason, sources });
}

/** A hand-in that claims to have been made so long before it arrived was made without a connection. */
const LONG_BEFORE_MS = 10_000;

const answeredOf = (db: Db, { formId }: Sitting, answers: Readonly<Record<string, unknown>>) => {
  const parts = formById(db, formId).paper.questions.flatMap((question) => question.parts);
  const answered = parts.filter(({ kind, shown, target }) => {
    const response = responseOrEmpty(kind, shown, answers[target]);
    return candidateKindOf(kind).progress(shown, response).state !== 'empty';
  });
  return { answered: answered.length, parts: parts.length };
};

/** The newest receipt of a closed sitting, as the candidate is shown it. */
export function receiptOf({ db, time }: HasDb & HasTime, sitting: Sitting): Receipt | null {
  const { closedAt, closedBy, claimedHandInAt } = sitting;
  const all = receiptsOf(db, sitting.id);
  const newest = all.at(-1);
  if (closedAt === null || closedBy === null || !newest) return null;
  const claimed = claimedHandInAt !== null && closedAt - claimedHandInAt > LONG_BEFORE_MS;
  return {
    code: receiptCode(newest.hash),
    handedInAt: closedAt,
    claimedAt: claimed ? claimedHandInAt : null,
    usedMs: usedMs(time.of(sitting.id), closedAt),
    closedBy,
    ...answeredOf(db, sitting, answersOfReceipt(db, newest)),
    earlier: all.slice(0, -1).map(({ hash, at }) => ({ code: receiptCode(hash), at })),
  };
}
