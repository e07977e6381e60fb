import { canonicalJson } from '../../core/journal/canonicalJson';
import type { Page } from '../../core/files/pages';
import { applyChange, emptyDesk, type Desk } from '../../core/journal/desk';
import {
  ENTRY_LIMIT,
  entryText,
  type DeviceEntryAbout,
  type EntryRef,
  type Patch,
} from '../../core/journal/entry';
import { applyPatch, DEPTH_LIMIT } from '../../core/journal/patch';
import type { StoredResponse } from '../../core/kinds/stored';
import { checkSum } from './checkSum';
import type { CurrentAnswer, JournalRow, SittingQueries } from './queries';

/** A value as canonical JSON, and how many patches it stands on. */
export interface Value {
  readonly text: string;
  readonly depth: number;
}

/** A patch as it is stored: without the names, which would take most of the room of an essay's history. */
type StoredPatch = readonly [
  hold: number,
  number: number,
  place: number,
  cut: number,
  sum: string,
  put: string,
];

export function storedPatch({ base, place, cut, sum, put }: Patch): string {
  const stored: StoredPatch = [base.hold, base.number, place, cut, sum, put];
  return JSON.stringify(stored);
}

export function patchOf(row: Pick<JournalRow, 'patch'>): Patch | null {
  if (row.patch === null) return null;
  const [hold, number, place, cut, sum, put] = JSON.parse(row.patch) as StoredPatch;
  return { base: { hold, number }, place, cut, put, sum };
}

/** The canonical text of an entry, from its row. */
export function textOfRow(row: JournalRow): string {
  const { number, target, claimedAt, restored, value } = row;
  // What the server writes itself is in no hold, and is never made out of its row.
  const about = row.about as DeviceEntryAbout;
  const patch = patchOf(row) ?? undefined;
  const entry = {
    number,
    about,
    target,
    at: claimedAt,
    patch,
    restored: restored === null ? undefined : (JSON.parse(restored) as EntryRef),
  };
  return entryText(entry, value ?? 'null');
}

/**
 * The value of an entry: its own, or its base's with all patches since; null where a base is missing, is another place's,
 * or a check sum fails.
 */
export function valueOf(find: SittingQueries, sitting: number, ref: EntryRef): Value | null {
  const patches: Patch[] = [];
  let wanted = ref;
  let slot: string | null = null;
  while (patches.length <= DEPTH_LIMIT) {
    const [row] = find.variantsOf({ sitting, hold: wanted.hold }, wanted.number);
    if (!row || row.aside !== null) return null;
    slot ??= `${row.about} ${row.target}`;
    if (slot !== `${row.about} ${row.target}`) return null;
    const patch = patchOf(row);
    if (patch) {
      patches.push(patch);
      wanted = patch.base;
    } else return patched(row.value!, patches);
  }
  return null;
}

function patched(whole: string, patches: readonly Patch[]): Value | null {
  let text: string | null = whole;
  for (const patch of patches.toReversed()) {
    text = text === null ? null : applyPatch(text, patch, checkSum);
    // Patches must not add up to what could never be sent whole.
    if (text !== null && text.length > ENTRY_LIMIT) return null;
  }
  return text === null ? null : { text, depth: patches.length };
}

/** An answer as the server keeps it (`StoredAnswer`), as canonical JSON. */
export const storedAnswer = (written: string | null, pages: string): string =>
  canonicalJson({
    ...(written === null ? {} : (JSON.parse(written) as StoredResponse)),
    pages: JSON.parse(pages) as Page[],
  });

/** The answers (by target) as canonical JSON, with what joined phones have sent. */
export function answerTexts(rows: readonly CurrentAnswer[]): ReadonlyMap<string, string> {
  const texts = new Map<string, string>();
  for (const { about, target, value } of rows) if (about === 'answer') texts.set(target, value);
  for (const { about, target, value } of rows)
    if (about === 'page') texts.set(target, storedAnswer(texts.get(target) ?? null, value));
  return texts;
}

/** The desk as its current values have it. */
export function deskOf(rows: readonly CurrentAnswer[]): Desk {
  let desk = emptyDesk;
  for (const [target, text] of answerTexts(rows))
    desk = { ...desk, answers: { ...desk.answers, [target]: JSON.parse(text) as unknown } };
  for (const { about, target, value } of rows) {
    if (about === 'answer' || about === 'page') continue;
    const read: unknown = JSON.parse(value);
    desk = applyChange(desk, { about, target: about === 'place' ? (read as string) : target, value: read });
  }
  return desk;
}

/** Where a value is kept: there is only one place on the desk, and its value is the item. */
export const slotOfRow = ({ about, target }: Pick<JournalRow, 'about' | 'target'>) =>
  about === 'place' ? { about, target: '' } : { about, target };

export const storedValue = ({ about, target }: Pick<JournalRow, 'about' | 'target'>, text: string): string =>
  about === 'place' ? canonicalJson(target) : text;
