import type { Hundredths } from '../marks';
import { seededRandom } from '../random';

/** A script with an agreed mark, as an assessor marked it without knowing. */
export interface StandardMark {
  readonly given: Hundredths;
  readonly agreed: Hundredths;
  readonly at: number;
}

export const isWithin = ({ given, agreed }: Pick<StandardMark, 'given' | 'agreed'>, tolerance: Hundredths) =>
  Math.abs(given - agreed) <= tolerance;

/** How long a mark can be changed as if it had just been given, in ms, and at least until the next script is passed on. */
export const CORRECTION_MS = 30_000;

/** How many of the last ones are looked at, and how many of them may be outside. */
export const DRIFT = { last: 5, outside: 2 } as const;

/** Has an assessor left the tolerance too often: in two or more of their last five scripts with agreed marks? */
export function hasDrifted(marks: readonly StandardMark[], tolerance: Hundredths): boolean {
  const last = [...marks].sort((a, b) => a.at - b.at).slice(-DRIFT.last);
  return last.filter((one) => !isWithin(one, tolerance)).length >= DRIFT.outside;
}

/**
 * Where scripts with agreed marks are slipped into an assessor's queue of `length` scripts: one in every `every`, at a
 * place within its stretch that the seed decides, so that nobody can count on it. Places are those in the queue of the
 * others before which one stands; in rising order, as many as there are whole stretches, and no more than `known`.
 */
export function standardPlaces(
  length: number,
  { every, known, seed }: { readonly every: number; readonly known: number; readonly seed: string },
): number[] {
  if (!(Number.isInteger(every) && every >= 2))
    throw new RangeError('every second script at most is one with agreed marks');
  const random = seededRandom(seed);
  const count = Math.min(known, Math.floor(length / every));
  return Array.from({ length: count }, (_, i) => i * every + Math.floor(random() * every));
}
