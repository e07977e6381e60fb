import * as v from 'valibot';
import { weightSchema } from './credits';

/** The key of something that a candidate works with: an option, a row, a chip, an area. None that every object has. */
export const entryKey = v.pipe(v.string(), v.regex(/^(?!constructor$)[a-z0-9-]{1,40}$/));

export const entrySchema = v.strictObject({ key: entryKey, text: v.pipe(v.string(), v.maxLength(500)) });

/** An entry that earns a share of its own. */
export const weightedEntrySchema = v.strictObject({ ...entrySchema.entries, weight: weightSchema });

export type Entry = Readonly<v.InferOutput<typeof entrySchema>>;

export const textOf = (entries: readonly Entry[], key: string): string =>
  entries.find((entry) => entry.key === key)?.text ?? key;

export const keysOf = (entries: readonly { readonly key: string }[]): string[] =>
  entries.map((entry) => entry.key);

export const hasTwice = (keys: readonly string[]): boolean => new Set(keys).size !== keys.length;

/** In the order of these keys; what has no such key is left out. */
export const inOrderOf = <T extends { readonly key: string }>(
  entries: readonly T[],
  keys: readonly string[],
): T[] => keys.flatMap((key) => entries.filter((entry) => entry.key === key));

/** Is this the option of a list? A space around it, which nobody sees, makes no difference. */
export const isSameOption = (option: string, given: string): boolean => option.trim() === given.trim();

/** Those that are known, each once. */
export const knownOnce = (keys: readonly string[], known: readonly string[]): string[] =>
  [...new Set(keys)].filter((key) => known.includes(key));
