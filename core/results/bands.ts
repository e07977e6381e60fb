import type { Hundredths } from '../marks';

/** A band of a round: from so many marks on. */
export interface Band {
  readonly title: string;
  readonly from: Hundredths;
}

/** The band that a total reaches, and where the next begins; null below all of them. */
export function bandOf(
  bands: readonly Band[],
  total: Hundredths,
): (Band & { readonly next: Hundredths | null }) | null {
  const sorted = [...bands].sort((a, b) => a.from - b.from);
  const index = sorted.findLastIndex((band) => total >= band.from);
  const band = sorted[index];
  return band ? { title: band.title, from: band.from, next: sorted[index + 1]?.from ?? null } : null;
}
