import { canonicalJson } from '../journal/canonicalJson';
import type { Digest } from '../journal/chain';

/** What the server notes of a sitting by itself. Facts, not verdicts: a person weighs them. */
export const observationKinds = [
  /** A hold was not heard of for longer than a device with a working line is, across an end or a stop. */
  'silence',
  /** Nothing was heard of a running sitting for a while. */
  'connection gap',
  /** The right to write was granted to another browser store. */
  'second hold',
  /** The page was loaded again. */
  'reload',
  /** Another kind of browser than before. */
  'device changed',
  /** An earlier version was brought back. */
  'restored writing',
  /** A readiness check that was not good. */
  'check',
  /** Entries contradict each other: a broken chain, a check sum that fails, other bytes under the same number. */
  'mismatch',
  /** Entries that were announced in time and never came. */
  'missing-entries',
  /** An answer to a question that was passed, or whose turn had not come. */
  'out of turn',
  /** Time given back because the device had not heard of a start, an entering or the end of a stop. */
  'time given back',
] as const;
export type ObservationKind = (typeof observationKinds)[number];
export type ObservationFacts = Readonly<Record<string, string | number | boolean>>;

export interface Observation {
  readonly kind: ObservationKind;
  /** Start and end, in the server's time (ms since 1970). */
  readonly from: number;
  readonly to: number;
  readonly facts: ObservationFacts;
}

/** Before the first observation of a sitting. */
export const firstLink = (script: string, digest: Digest): string => digest(`observations of ${script}`);

/** The hash of an observation, which includes the hash of the one before. */
export const linkOf = (before: string, { kind, from, to, facts }: Observation, digest: Digest): string =>
  digest(before + canonicalJson({ kind, from, to, facts }));

/**
 * Where a chain of observations no longer holds: the place (from 0) of the first row that was altered or that follows a
 * missing one; null where all is well.
 */
export function firstBrokenLink(
  start: string,
  rows: readonly (Observation & { readonly hash: string })[],
  digest: Digest,
): number | null {
  let before = start;
  for (const [place, row] of rows.entries()) {
    if (linkOf(before, row, digest) !== row.hash) return place;
    before = row.hash;
  }
  return null;
}
