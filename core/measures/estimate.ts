/** Why a figure cannot be told. */
export type UndefinedReason = 'too few' | 'no variation';

/**
 * A figure with its N and an interval of 95 %. What cannot be computed is told with the reason, never as 0. `interval`
 * is null where the figure has one value only, as of a single pair.
 */
export type Estimate =
  | {
      readonly n: number;
      readonly value: number;
      readonly interval: readonly [low: number, high: number] | null;
    }
  | { readonly n: number; readonly value: null; readonly reason: UndefinedReason };

export const unknown = (n: number, reason: UndefinedReason): Estimate => ({ n, value: null, reason });

/**
 * An estimate with as many digits as are shown: the figure and its interval as multiples of `step` (0.01 for a share or a
 * kappa, 1 for hundredths of a mark). The digits beyond would let a reader compute back what single marks are.
 */
export function roundEstimate(estimate: Estimate, step = 0.01): Estimate {
  if (estimate.value === null) return estimate;
  const perUnit = 1 / step;
  const rounded = (figure: number) => Math.round(figure * perUnit) / perUnit;
  const interval =
    estimate.interval && ([rounded(estimate.interval[0]), rounded(estimate.interval[1])] as const);
  return { n: estimate.n, value: rounded(estimate.value), interval };
}
