import Joi from 'joi';
import { anyText, isOf, matching, objectOf, oneOf, whole } from '../validation/shapes';
import { canonicalJson } from './canonicalJson';
import {
  byteLength,
  deviceEntryAbout,
  ENTRY_LIMIT,
  entryText,
  type Entry,
  type EntryRef,
  type Patch,
} from './entry';

const count = whole(0, 10_000_000);
const number = whole(1, 10_000_000);
const ref = objectOf<EntryRef>({ hold: number, number });

const entrySchema = objectOf<Entry>({
  number,
  about: oneOf(deviceEntryAbout),
  target: matching(/^[a-z0-9-]{1,64}(\/[A-F](\/[a-z-]{1,20})?)?$/),
  at: whole(0, 1e14),
  value: Joi.any().optional(),
  patch: objectOf<Patch>({
    base: ref,
    place: count,
    cut: count,
    put: anyText,
    sum: matching(/^[0-9a-f]{8}$/),
  }).optional(),
  restored: ref.optional(),
});

/** The value of a flag, and of a play: the number of the play. */
export const flagSchema = Joi.boolean();
export const playSchema = whole(1, 1000);

/** Why an entry was not taken at all: nothing of it is kept, and its number stays free. */
export type EntryRefusal = 'malformed-entry' | 'entry-too-long';

export type ParsedEntry =
  | { readonly entry: Entry; readonly text: string; readonly body: string }
  | { readonly refusal: EntryRefusal };

/** Reads what a device sent as an entry, and its canonical texts (of the whole, and of its value alone). */
export function parseEntry(raw: unknown): ParsedEntry {
  if (!isOf(entrySchema, raw)) return { refusal: 'malformed-entry' };
  const entry = raw as Entry;
  if ((entry.value === undefined) === (entry.patch === undefined)) return { refusal: 'malformed-entry' };
  try {
    const body = canonicalJson(entry.value ?? null);
    const text = entryText(entry, body);
    return byteLength(text) > ENTRY_LIMIT ? { refusal: 'entry-too-long' } : { entry, text, body };
  } catch {
    // Nested too deeply to be read.
    return { refusal: 'malformed-entry' };
  }
}
