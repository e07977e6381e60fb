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

/** The change from one canonical JSON text to another as one replaced stretch. */
export function makePatch(
  base: EntryRef,
  { from, to }: { readonly from: string; readonly to: string },
  digest: Digest,
): Patch {
  const shorter = Math.min(from.length, to.length);
  let place = 0;
  while (place < shorter && from[place] === to[place]) place++;
  if (splitsPair(from, place) || splitsPair(to, place)) place--;
  let same = 0;
  while (same < shorter - place && from[from.length - 1 - same] === to[to.length - 1 - same]) same++;
  if (splitsPair(to, to.length - same) || splitsPair(from, from.length - same)) same--;
  const put = to.slice(place, to.length - Math.max(0, same));
  return { base, place, cut: from.length - place - Math.max(0, same), put, sum: checkSum(to, digest) };
}

/** The text after a patch; null where the patch does not fit its base or its check sum fails. */
export function applyPatch(base: string, { place, cut, put, sum }: Patch, digest: Digest): string | null {
  if (place + cut > base.length) return null;
  const text = base.slice(0, place) + put + base.slice(place + cut);
  return checkSum(text, digest) === sum ? text : null;
}
