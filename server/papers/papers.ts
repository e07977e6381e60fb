import { and, desc, eq, sql } from 'drizzle-orm';
import type Joi from 'joi';
import { issuesOfBank } from '../../core/papers/bankIssues';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { FullPaper, Item, Paper } from '../../core/papers/paper';
import { itemSchema, paperSchema } from '../../core/papers/paperSchemas';
import { check, summaryOf } from '../../core/validation/shapes';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { items, itemVersions, papers, paperVersions } from '../db/schema';
import { paperUnreadable, unreadable } from '../http/errors';
import { withCorrections } from './corrections';

export interface PaperVersion {
  readonly id: number;
  readonly paper: FullPaper;
}

/** A document as the database or an author has it. Throws a named error for a kind or version that is not known here. */
function parsed<T>(schema: Joi.AnySchema<T>, document: unknown): T {
  const read = check(schema, document, { all: true });
  if ('problems' in read) throw paperUnreadable(summaryOf(read.problems));
  return read.value;
}

/** Published versions are immutable: parsed once, kept until one is corrected. */
const known = perDatabase(() => new Map<number, FullPaper>());

/** An item version as it was published, without what was corrected of it since. */
export function publishedItem(
  db: Db,
  { key, version }: { readonly key: string; readonly version: number },
): Item {
  const row = db
    .select({ document: itemVersions.document })
    .from(itemVersions)
    .innerJoin(items, eq(items.id, itemVersions.itemId))
    .where(and(eq(items.key, key), eq(itemVersions.version, version)))
    .get();
  if (!row) throw new Error(`the bank has no item ${key} in version ${version}`);
  return parsed(itemSchema, row.document);
}

/** A published paper with its items, parsed on loading; null where there is no such version. */
export function paperById(db: Db, id: number): FullPaper | null {
  const cached = known(db).get(id);
  if (cached) return cached;
  const row = db.select().from(paperVersions).where(eq(paperVersions.id, id)).get();
  if (!row) return null;
  const paper = parsed(paperSchema, row.document);
  const bank = paper.sections.flatMap((section) =>
    section.items.map((item) => withCorrections(db, publishedItem(db, item))),
  );
  const full = { ...paper, bank };
  known(db).set(id, full);
  return full;
}

/** The title of a version, whether or not its questions can be read. */
export const titleOfVersion = (db: Db, id: number): string =>
  db
    .select({ title: sql<string>`json_extract(${paperVersions.document}, '$.title')` })
    .from(paperVersions)
    .where(eq(paperVersions.id, id))
    .get()?.title ?? '';

/** A paper that is known to be there, as that of a round. */
export function paperOfVersion(db: Db, id: number): FullPaper {
  const paper = paperById(db, id);
  if (!paper) throw new Error(`there is no version ${id} of a paper`);
  return paper;
}

/** The latest published version of a paper by its key. */
export function latestVersion(db: Db, key: string): PaperVersion | null {
  const row = db
    .select({ id: paperVersions.id })
    .from(paperVersions)
    .innerJoin(papers, eq(papers.id, paperVersions.paperId))
    .where(eq(papers.key, key))
    .orderBy(desc(paperVersions.version))
    .limit(1)
    .get();
  return row ? { id: row.id, paper: paperOfVersion(db, row.id) } : null;
}

function keepItem(db: Db, item: Item, source: string | null): void {
  db.insert(items).values({ key: item.key }).onConflictDoNothing().run();
  const { id } = db.select().from(items).where(eq(items.key, item.key)).get()!;
  const values = { itemId: id, version: item.version, state: 'approved' as const, document: item, source };
  const same = and(eq(itemVersions.itemId, id), eq(itemVersions.version, item.version));
  const known = db.select().from(itemVersions).where(same).get();
  if (!known) db.insert(itemVersions).values(values).run();
  else if (canonicalJson(known.document) !== canonicalJson(item))
    throw new Error(`item ${item.key} version ${item.version} is published with another content already`);
}

/** Refuses items whose content contradicts itself, with the path of each issue. */
function refuseIssues(bank: readonly Item[]): void {
  const issues = issuesOfBank(bank)
    .filter((issue) => issue.severity === 'severe')
    .map(({ path, message }) => ({ path, message }));
  if (issues.length > 0) throw unreadable('paperIssues', issues);
}

/** Publishes a version of a paper with the item versions that it names; both are immutable from now on. */
export function publishPaper(
  db: Db,
  { bank, ...rest }: FullPaper,
  sources: Readonly<Record<string, string>> = {},
): number {
  const paper: Paper = parsed(paperSchema, rest);
  const read = bank.map((item) => parsed(itemSchema, item));
  refuseIssues(read);
  return db.transaction(() => {
    for (const item of read) keepItem(db, item, sources[item.key] ?? null);
    db.insert(papers).values({ key: paper.key }).onConflictDoNothing().run();
    const { id } = db.select().from(papers).where(eq(papers.key, paper.key)).get()!;
    const values = { paperId: id, version: paper.version, document: paper };
    return Number(db.insert(paperVersions).values(values).run().lastInsertRowid);
  });
}

/** Can this version be read by this program? */
export function isReadable(db: Db, id: number): boolean {
  try {
    return paperById(db, id) !== null;
  } catch {
    return false;
  }
}

/** Papers are read again, as after one was corrected. */
export const forgetPapers = (db: Db): void => known(db).clear();
