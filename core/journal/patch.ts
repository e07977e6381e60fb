import type { Digest } from './chain';
import type { EntryRef, Patch } from './entry';

/** The check sum of a text: the first 64 bits of its SHA-256, in hex. */
export const checkSum = (text: string, digest: Digest): string => digest(text).slice(0, 16);

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
  digest: Digest,
): Patch => ({ base, ...stretchBetween(from, to), sum: checkSum(to, digest) });

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
export function applyPatch(base: string, { place, cut, put, sum }: Patch, digest: Digest): string | null {
  if (place + cut > base.length) return null;
  const text = base.slice(0, place) + put + base.slice(place + cut);
  return checkSum(text, digest) === sum ? text : null;
}
