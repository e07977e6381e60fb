import type { EntryRef, Patch } from './entry';

/**
 * The CRC-32 of a text (ISO-HDLC, as UTF-8) in eight lower-case hex digits. It finds a patch that was put on another base
 * than its device's; it guards against nobody, since a device may send any value as a whole too. Handed in, so that server
 * and browser use their own.
 */
export type CheckSum = (text: string) => string;

/** A whole value comes at the latest after so many patches. */
export const WHOLE_AFTER = 50;
/** The longest row of patches that is taken; a device sends a whole value long before. */
export const DEPTH_LIMIT = 100;
/** Values shorter than this always travel whole. */
export const SHORT_TEXT = 200;

const splitsPair = (text: string, at: number) => {
  const code = text.charCodeAt(at - 1);
  return at > 0 && code >= 0xd800 && code <= 0xdbff;
};

type Stretch = Pick<Patch, 'place' | 'cut' | 'put'>;

/** The one stretch in which two texts differ, without cutting a surrogate pair. */
function stretchBetween(from: string, to: string): Stretch {
  const shorter = Math.min(from.length, to.length);
  let place = 0;
  while (place < shorter && from[place] === to[place]) place++;
  if (splitsPair(from, place) || splitsPair(to, place)) place--;
  let same = 0;
  while (same < shorter - place && from[from.length - 1 - same] === to[to.length - 1 - same]) same++;
  if (splitsPair(to, to.length - same) || splitsPair(from, from.length - same)) same--;
  const rest = Math.max(0, same);
  return { place, cut: from.length - place - rest, put: to.slice(place, to.length - rest) };
}

/** The change from one canonical JSON text to another as one replaced stretch. */
export const makePatch = (
  base: EntryRef,
  { from, to }: { readonly from: string; readonly to: string },
  checkSum: CheckSum,
): Patch => ({ base, ...stretchBetween(from, to), sum: checkSum(to) });

/** About what an entry takes beside the text that it puts, in characters. */
const ENTRY_COST = 200;

/**
 * Whether two changes are far apart: as one stretch, with all that lies between them, they would take more than as two
 * entries.
 */
export function farApart(base: string, between: string, next: string): boolean {
  const [first, second] = [stretchBetween(base, between), stretchBetween(between, next)];
  return stretchBetween(base, next).put.length > first.put.length + second.put.length + ENTRY_COST;
}

/** The text after a patch; null where the patch does not fit its base or its check sum fails. */
export function applyPatch(base: string, { place, cut, put, sum }: Patch, checkSum: CheckSum): string | null {
  if (place + cut > base.length) return null;
  const text = base.slice(0, place) + put + base.slice(place + cut);
  return checkSum(text) === sum ? text : null;
}
