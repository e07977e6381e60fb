import * as v from 'valibot';

/** What an entry is about. Later kinds of notes (rough work, highlights) become names here. */
export const entryAbout = ['answer', 'flag', 'strike', 'opened', 'place'] as const;
export type EntryAbout = (typeof entryAbout)[number];

/**
 * One change made at the desk. `seq` counts up from 1 within a `device` (one opening of the desk); `at` is when it
 * was made, in the server's time as the device knew it (milliseconds since 1970).
 */
export interface Entry {
  readonly device: string;
  readonly seq: number;
  readonly about: EntryAbout;
  readonly target: string;
  readonly value: unknown;
  readonly at: number;
}

/**
 * How an entry stands to the sitting's time: `in-time`; `late` (made before the deadline, arrived within the grace or
 * counted by a coordinator); `waiting` (made before, arrived after the grace: a coordinator decides); `left out` (so
 * decided); `after-time`. All are kept; the first two count.
 */
export type Standing = 'in-time' | 'late' | 'waiting' | 'left out' | 'after-time';

/** An entry as the server keeps it; `order` is the order of arrival. */
export interface KeptEntry extends Entry {
  readonly order: number;
  readonly standing: Standing;
}

export const flagValue = v.boolean();
export const strikeValue = v.pipe(v.array(v.pipe(v.string(), v.maxLength(40))), v.maxLength(20));
