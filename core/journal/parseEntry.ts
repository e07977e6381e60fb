import Joi from 'joi';
import { isOf, walked, whole } from '../validation/shapes';
import { hasMembers, isAnything, isMatch, isOneOf, isText, isWhole, orMissing } from '../validation/walks';
import { canonicalJson } from './canonicalJson';
import { byteLength, deviceEntryAbout, ENTRY_LIMIT, entryText, type Entry } from './entry';

const count = isWhole(0, 10_000_000);
const number = isWhole(1, 10_000_000);
const ref = hasMembers({ hold: number, number });

/** A rule instead of a schema: entries are what the server reads most of. */
const entrySchema = walked<Entry>(
  hasMembers({
    number,
    about: isOneOf(deviceEntryAbout),
    target: isMatch(/^[a-z0-9-]{1,64}(\/[A-F](\/[a-z-]{1,20})?)?$/),
    at: isWhole(0, 1e14),
    value: isAnything,
    patch: orMissing(
      hasMembers({
        base: ref,
        place: count,
        cut: count,
        put: isText(Infinity),
        sum: isMatch(/^[0-9a-f]{8}$/),
      }),
    ),
    restored: orMissing(ref),
  }),
  'entry',
);

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
