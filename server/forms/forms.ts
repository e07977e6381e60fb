import { and, eq, sql } from 'drizzle-orm';
import { drawForm, type FormTerms } from '../../core/forms/drawForm';
import type { Form } from '../../core/forms/form';
import { parseForm } from '../../core/forms/parseForm';
import { aidsFor } from '../../core/kit/aids';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { splitForSealing } from '../../core/papers/candidatePaper';
import type { SealedListing } from '../../core/sittings/api';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { forms, sealedCopies } from '../db/schema';
import { sha256 } from '../secrets';
import { paperOfVersion } from '../papers/papers';
import { seal } from './seal';

/** The copy of the whole paper; sections with a limit of their own have their key for a name. */
export const WHOLE_PAPER = '';

const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  const own = eq(sealedCopies.formId, p('formId'));
  return {
    bytes: db
      .select({ bytes: sealedCopies.bytes })
      .from(sealedCopies)
      .where(and(own, eq(sealedCopies.hash, p('hash'))))
      .prepare(),
    keys: db
      .select({ section: sealedCopies.section, key: sealedCopies.key })
      .from(sealedCopies)
      .where(own)
      .prepare(),
    listing: db
      .select({ section: sealedCopies.section, hash: sealedCopies.hash })
      .from(sealedCopies)
      .where(own)
      .prepare(),
  };
});

const known = perDatabase(() => new Map<number, Form>());
const FORMS_KEPT = 2000;

/**
 * Draws the form of a sitting and stores it with its sealed copies. Forms of a paper differ in which questions they
 * have, in which order, how their parts are arranged, and in what a candidate has by arrangement: those that are alike are
 * one.
 */
export function fixForm(db: Db, paperVersionId: number, terms: FormTerms): number {
  const form = drawForm(paperOfVersion(db, paperVersionId), terms);
  const { locale, transcripts, aids } = terms;
  const { arrangements, paper } = form;
  const items = paper.questions.map((question) => question.item);
  const hash = sha256(
    canonicalJson({ paperVersionId, locale, transcripts, aids: aidsFor([], aids), items, arrangements }),
  );
  const same = db.select({ id: forms.id }).from(forms).where(eq(forms.hash, hash)).get();
  if (same) return same.id;
  const values = { hash, paperVersionId, document: form };
  const formId = Number(db.insert(forms).values(values).run().lastInsertRowid);
  const { open, limited } = splitForSealing(form.paper);
  const copies = [{ section: WHOLE_PAPER, document: open as unknown }].concat(
    limited.map((one) => ({ section: one.section, document: one })),
  );
  for (const { section, document } of copies)
    db.insert(sealedCopies)
      .values({ formId, section, ...seal(document) })
      .run();
  return formId;
}

/** The form of a sitting as the candidate sees it, all sections open. */
export function formById(db: Db, id: number): Form {
  const cache = known(db);
  const cached = cache.get(id);
  if (cached) return cached;
  const row = db.select().from(forms).where(eq(forms.id, id)).get();
  if (!row) throw new Error(`there is no form ${id}`);
  const form = parseForm(row.document);
  if (cache.size >= FORMS_KEPT) cache.clear();
  cache.set(id, form);
  return form;
}

const listings = perDatabase(() => new Map<number, readonly SealedListing[]>());

/** What of a form a device fetches before the start. */
export function sealedListing(db: Db, formId: number): readonly SealedListing[] {
  const cached = listings(db).get(formId);
  if (cached) return cached;
  const found = queriesOf(db).listing.all({ formId });
  if (listings(db).size >= FORMS_KEPT) listings(db).clear();
  listings(db).set(formId, found);
  return found;
}

export const sealedBytes = (db: Db, formId: number, hash: string): Buffer | null =>
  queriesOf(db).bytes.get({ formId, hash })?.bytes ?? null;

/** The keys of the paper and of the sections that were entered; no others leave the server. */
export function keysOf(db: Db, formId: number, entered: readonly string[]): Record<string, string> {
  const open = [WHOLE_PAPER, ...entered];
  const found = queriesOf(db).keys.all({ formId });
  return Object.fromEntries(found.filter((c) => open.includes(c.section)).map((c) => [c.section, c.key]));
}
