import { canonicalJson } from './canonicalJson';

/**
 * What an entry is about. An `event` is what a kind puts down besides answers (options struck out …); its target names it
 * after the part: `item/A/strike`. A `play` is the use of a recording, by its file; its value is the number of the play.
 * `highlights` are those of a question, or of a source by its key; `rough-work` is `text` or `drawing`; an `aid` is how an
 * aid lies on the desk, by its name.
 */
export const deviceEntryAbout = [
  'answer',
  'flag',
  'event',
  'opened',
  'place',
  'play',
  'highlights',
  'rough-work',
  'aid',
] as const;
export type DeviceEntryAbout = (typeof deviceEntryAbout)[number];
/** A `page` is the server's alone: what joined phones have sent for a part, in the order of arrival. */
export type EntryAbout = DeviceEntryAbout | 'page';

/** Names an entry: the hold in which it was written, and its running number there (from 1). */
export interface EntryRef {
  readonly hold: number;
  readonly number: number;
}

/**
 * A change of a long value: `cut` characters at `place` of the base's canonical JSON text are replaced by `put`. `sum`
 * is the check sum of the result (`CheckSum`).
 */
export interface Patch {
  readonly base: EntryRef;
  readonly place: number;
  readonly cut: number;
  readonly put: string;
  readonly sum: string;
}

/**
 * One change made at the desk, as a device writes and sends it. It has either a whole value or a patch. `at` is when it
 * was made, in the server's time as the device knew it (ms since 1970): a claim.
 */
export interface Entry {
  readonly number: number;
  readonly about: DeviceEntryAbout;
  readonly target: string;
  readonly at: number;
  readonly value?: unknown;
  readonly patch?: Patch;
  /** The earlier version that this entry brings back. */
  readonly restored?: EntryRef;
}

/** The longest entry that is taken, as canonical JSON, in bytes of UTF-8. */
export const ENTRY_LIMIT = 256 * 1024;
/** What a device sends in one batch, unless a single entry is longer, in bytes; the head comes on top: below 64 kB in all. */
export const BATCH_LIMIT = 60 * 1024;

/** The length of a text in bytes of UTF-8. */
export function byteLength(text: string): number {
  let bytes = text.length;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    // Two bytes to 0x7ff, three beyond; each half of a surrogate pair stands for two of four.
    if (code > 0x7ff) bytes += code >= 0xd800 && code <= 0xdfff ? 1 : 2;
    else if (code > 0x7f) bytes += 1;
  }
  return bytes;
}

/** The canonical JSON of an entry, over which the chain runs; `body` is that of its value. */
export function entryText(entry: Omit<Entry, 'value'>, body: string): string {
  const { about, at, number: own, patch, restored, target } = entry;
  const head = canonicalJson({ about, at, number: own, patch, restored, target }).slice(0, -1);
  return patch ? `${head}}` : `${head},"value":${body}}`;
}

/** Later in the order that decides: a later hold before an earlier one, within a hold the higher running number. */
export const isLater = (a: EntryRef, b: EntryRef): boolean =>
  a.hold > b.hold || (a.hold === b.hold && a.number > b.number);

/** Where an entry belongs on the desk: one value is current for each. There is only one place. */
export const slotOf = ({ about, target }: { readonly about: EntryAbout; readonly target: string }): string =>
  about === 'place' ? 'place ' : `${about} ${target}`;
